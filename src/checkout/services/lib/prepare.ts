import { randomUUID } from 'node:crypto';
import type { Method } from '@/core/billing/book';
import { figuresOfCheckout, type Figures } from '@/core/billing/figures';
import { quoteOffer, type Quote } from '@/core/offers/quote';
import { offerSentence } from '@/words/offers';
import { wordsOf } from '@/words/words';
import { fieldsOfTier, type JoinField } from '@/core/tiers/join-fields';
import type { JoiningState } from '@/core/tiers/joining';
import { openBook, contextOf } from '@/billing/services/lib/open-book';
import type { OpenBook } from '@/billing/services/lib/opened';
import { offerKey } from '@/billing/store/book-rows';
import { confirmCheckouts, findOpenCheckout, type Checkout } from '@/billing/store/checkouts';
import { siteNow } from '@/platform/clock';
import { formStamp } from '@/platform/guard-form';
import { currentSite, inMode, joiningMode } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { joiningStateOf } from './joining-state';
import {
  toCheckoutGateway,
  gatewaysFor,
  type CheckoutGateway,
} from '@/billing/services/lib/checkout-gateways';
import { listJoinFields } from '@/tiers/store/join-fields';
import { findCodeWords } from '@/tiers/store/joining-codes';
import type { GatewayAccount } from '@/billing/store/gateways';
import type { Member } from '@/people/store/members';
import { findOffer, listOffers, type StoredOffer } from '@/tiers/store/offers';
import { findTier, listTierNames, type Tier } from '@/tiers/store/tiers';
import { priceOffer, type Pricing } from './pricing';
import { placeOf, actionOf, type CheckoutAction } from './checkout-action';
import type { CheckoutId, GatewayAccountId, OfferId } from '@/core/ids';

/** What was typed in a checkout that is resumed. */
export type Typed = {
  answers: Record<string, string>;
  code: string;
  /** How they chose to pay; '' where they had not yet. */
  accountId: GatewayAccountId;
};

export type PreparedCheckout = {
  checkoutId: CheckoutId;
  typed: Typed | null;
  /** Whether staff of a live site try it in test mode. */
  isTry: boolean;
  /** What tax is in the amounts, and for which country. */
  pricing: Pricing;
  /** The signed moment at which the form was shown. */
  stamp: string;
  offer: StoredOffer;
  tier: Tier;
  otherOffers: StoredOffer[];
  sentence: string;
  skipTrial: boolean;
  /** What a person without credit would pay, by the calendar. */
  quote: Quote;
  action: CheckoutAction;
  /** What the button would charge; null for a visitor, and where there is none. */
  figures: Figures | null;
  fields: JoinField[];
  joining: JoiningState;
  /** How it can be paid, in the owner's order, each with what is due by it; none where the offer is free. */
  ways: (CheckoutGateway & { due: number })[];
  /** The card of the running subscription, which can be kept. */
  keptCard: { accountId: GatewayAccountId; label: string } | null;
  /** Why no one can join by this offer now. */
  obstacle: 'none' | 'no-gateway' | 'over';
};

type Own = {
  action: CheckoutAction;
  skipTrial: boolean;
  figures: Figures | null;
  atWallet: number | null;
  begun: Checkout | undefined;
  typed: Typed | null;
};
const VISITOR: Own = {
  action: { kind: 'new' },
  skipTrial: false,
  figures: null,
  atWallet: null,
  begun: undefined,
  typed: null,
};

/** Everything that checkout shows before a person joins; the figures are those that will be charged. */
export async function prepare(
  offerId: OfferId,
  member: Member | undefined,
  country: string = member?.country ?? '',
  mode: '' | 'test' = '',
): Promise<PreparedCheckout | null> {
  const own = await currentSite();
  const site = inMode(own, joiningMode(own, { staffRole: member?.staffRole ?? null }, mode));
  const now = siteNow(site);
  const listed = await findOffer(pool(), offerId);
  const tier = listed && (await findTier(pool(), listed.tierId));
  if (!listed?.onSale || !tier || tier.retiredAt) return null;
  const pricing = priceOffer(site, listed, country);
  const { offer } = pricing;
  const accounts = offer.isPaid ? await gatewaysFor(site, offer) : [];
  const freshId = randomUUID();
  const {
    action: action,
    skipTrial,
    figures,
    atWallet,
    begun,
    typed,
  } = member ? await ownFigures(site, member, pricing, tier, freshId) : VISITOR;
  const quote = quoteOffer(offer.definition, now, site.zone, skipTrial);
  const isSwitch = action.kind === 'switch';
  const subscription = isSwitch || action.kind === 'renew' ? action.subscription : null;
  const keptOn = accounts.find(({ id }) => id === subscription?.gatewayAccountId);
  const due = isSwitch ? action.figures.due : (figures?.due ?? quote.dueToday);
  return {
    checkoutId: begun?.id ?? freshId,
    typed,
    isTry: site.mode !== own.mode,
    pricing,
    stamp: formStamp(),
    offer,
    tier,
    otherOffers: (await listOffers(pool())).filter(
      (other) => other.tierId === tier.id && other.onSale && other.id !== offer.id,
    ),
    sentence: offerSentence(offer.definition, wordsOf(site), {
      skipTrial: skipTrial || isSwitch,
      skipFee: isSwitch,
      tierNames: await listTierNames(pool()),
    }),
    skipTrial,
    quote,
    action: action,
    figures: isSwitch ? action.figures : figures,
    fields: fieldsOfTier(await listJoinFields(pool()), tier.id),
    joining: await joiningStateOf(site, tier, now),
    ways: accounts
      .map(toCheckoutGateway)
      .map((way) => ({ ...way, due: way.nature === 'wallet' ? (atWallet ?? due) : due })),
    keptCard: keptCardOf(keptOn, subscription),
    obstacle: offer.isPaid && accounts.length === 0 ? 'no-gateway' : quote.hasAnything ? 'none' : 'over',
  };
}

async function typedOf({ db, stored }: OpenBook, begun: Checkout): Promise<Typed> {
  const { answers, codeId, subscriptionId } = begun;
  return {
    answers: Object.fromEntries(answers.map(({ fieldId, value }) => [fieldId, value])),
    code: codeId ? await findCodeWords(db, codeId) : '',
    accountId: stored.accounts.get(subscriptionId ?? '')?.gatewayAccountId ?? '',
  };
}

const keptCardOf = (
  account: GatewayAccount | undefined,
  subscription: { methodRef: string | null; methodLabel: string | null } | null,
): PreparedCheckout['keptCard'] =>
  account && subscription?.methodRef && toCheckoutGateway(account).nature === 'card'
    ? { accountId: account.id, label: subscription.methodLabel ?? '' }
    : null;

/** What a member would do by the offer, and what they would pay: read in their book, and nothing of it stored but a quote. */
async function ownFigures(
  site: Site,
  member: Member,
  { offer, addedTax }: Pricing,
  tier: Tier,
  freshId: string,
): Promise<Own> {
  const key = offerKey(offer.versionId, addedTax);
  return transaction(async (db) => {
    await confirmCheckouts(db, member, offer.id, site.mode);
    const begun = await findOpenCheckout(db, member.id, offer.id, site.mode);
    const id = begun?.id ?? freshId;
    const place = placeOf(tier, id);
    const of = { memberId: member.id, mode: site.mode };
    const open = await openBook(
      db,
      site,
      { kind: 'member', memberId: member.id, staffRole: member.staffRole },
      of,
      { offers: [key], tracks: [place.track] },
    );
    const action = await actionOf(open, offer, addedTax, tier, id);
    const skipTrial = open.stored.book.summaries.some(
      ({ track, hadTrial }) => track === place.track && hadTrial,
    );
    const figures = action.kind === 'new' ? figuresBy(open, key, tier, id, { nature: 'card' }) : null;
    const spends = action.kind === 'switch' ? action.figures.credit : (figures?.credit ?? 0);
    // A wallet can take nothing off a single bill.
    const atWallet =
      spends > 0 ? spends + (action.kind === 'switch' ? action.figures.due : (figures?.due ?? 0)) : null;
    const typed = begun ? await typedOf(open, begun) : null;
    return { action: action, skipTrial, figures, atWallet, begun, typed };
  });
}

function figuresBy(
  { stored, at, site }: OpenBook,
  offer: string,
  tier: Tier,
  checkout: string,
  method: Method,
): Figures | null {
  const submitted = { ...placeOf(tier, checkout), checkout, offer, method, byQuote: false };
  const figures = figuresOfCheckout(stored.book, submitted, contextOf(site, stored), at);
  if (!('why' in figures)) return figures;
  // What is being asked for is what is shown.
  const own = stored.book.checkouts.find(({ id }) => id === checkout);
  const asked = stored.book.charges.find(
    ({ subscription, state }) => subscription === own?.subscription && state === 'open',
  );
  return asked
    ? {
        amount: asked.amount,
        fresh: 0,
        leftOver: 0,
        credit: asked.amount - asked.due,
        due: asked.due,
        first: asked.period,
      }
    : null;
}
