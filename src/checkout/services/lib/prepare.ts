import { firstPrice, type PriceForHolder } from '@/core/tiers/holder-prices';
import { joiningOf } from '@/core/tiers/joining';
import { randomUUID } from 'node:crypto';
import type { Discount, Method } from '@/core/billing/book';
import { figuresOfCheckout, type Figures } from '@/core/billing/figures';
import { quoteOffer, type Quote } from '@/core/offers/quote';
import { offerSentence } from '@/words/offers';
import { wordsOf } from '@/words/words';
import { fieldsOfTier, type JoinField } from '@/core/tiers/join-fields';
import type { JoiningState } from '@/core/tiers/joining';
import { openBook, contextOf } from '@/billing/services/lib/open-book';
import type { OpenBook } from '@/billing/services/lib/opened';
import { offerKey } from '@/billing/store/book-from-rows';
import { confirmCheckouts, findOpenCheckout, type Checkout } from '@/billing/store/checkouts';
import { localDate } from '@/core/calendar';
import type { Problem } from '@/core/problem';
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
import { findCodeWord, hasDiscountsFor } from '@/tiers/store/codes';
import type { GatewayAccount } from '@/billing/store/gateways';
import type { Member } from '@/people/store/members';
import { findOffer, listOffers, type StoredOffer } from '@/tiers/store/offers';
import { findTier, listTierNames, type Tier } from '@/tiers/store/tiers';
import type { ProblemCode } from '@/words/problems';
import { priceBy, readCode, type CodeInCheckout } from './code-in-checkout';
import { heldTiers, offerForHolder } from './holder-price';
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
  /** The code that is used, or was tried. */
  code: { word: string; discount: Discount | null; problem: Problem<ProblemCode> | null } | null;
  /** What they pay less because of a tier they hold, where that is used. */
  forHolder: (PriceForHolder & { tierName: string }) | null;
  /** Whether a place to type a code is shown. */
  asksCode: boolean;
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

/** `country`: where the payer is; the member's own by default. `code`: '' for none; left out: that of a checkout that is resumed. */
type Asked = { country?: string; mode?: '' | 'test'; code?: string };

/** Everything that checkout shows before a person joins; the figures are those that will be charged. */
export async function prepare(
  offerId: OfferId,
  member: Member | undefined,
  { country = member?.country ?? '', mode = '', code: typedCode }: Asked = {},
): Promise<PreparedCheckout | null> {
  const own = await currentSite();
  const site = inMode(own, joiningMode(own, { staffRole: member?.staffRole ?? null }, mode));
  const now = siteNow(site);
  const listed = await findOffer(pool(), offerId);
  const tier = listed && (await findTier(pool(), listed.tierId));
  if (!listed?.onSale || !tier || tier.retiredAt) return null;
  const pricing = priceOffer(site, listed, country);
  const { offer } = pricing;
  const freshId = randomUUID();
  const begunBefore = member && (await findOpenCheckout(pool(), member.id, offer.id, site.mode));
  const word = typedCode ?? (begunBefore?.codeId ? await findCodeWord(pool(), begunBefore.codeId) : '');
  const read: CodeInCheckout | null = word
    ? await readCode(pool(), word, {
        site,
        offer,
        memberId: member?.id ?? null,
        checkoutId: begunBefore?.id ?? null,
      })
    : null;
  const forHolder = offerForHolder(offer, await heldTiers(pool(), site, member?.id ?? null));
  const { discount, by, code } = priceBy(read, forHolder, firstPrice(offer.definition));
  const { action, skipTrial, figures, atWallet, begun, typed } = member
    ? await ownFigures(site, member, pricing, tier, { freshId, discount })
    : VISITOR;
  // What is joined anew alone is joined by a code.
  const used = action.kind === 'new' ? discount : null;
  const accounts = offer.isPaid ? await gatewaysFor(site, offer, { hasDiscount: used !== null }) : [];
  const quote = quoteOffer(offer.definition, now, site.zone, skipTrial, used);
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
    action,
    figures: isSwitch ? action.figures : figures,
    fields: fieldsOfTier(await listJoinFields(pool()), tier.id),
    code:
      code && action.kind === 'new'
        ? { word, discount: code.ok ? code.discount : null, problem: code.ok ? null : code.problem }
        : null,
    forHolder:
      forHolder && by === 'holder' && action.kind === 'new'
        ? { ...forHolder, tierName: (await findTier(pool(), forHolder.tierId))?.name ?? '' }
        : null,
    asksCode:
      action.kind === 'new' &&
      (joiningOf(site.joining, tier.joining) === 'by-code' ||
        word !== '' ||
        (offer.isPaid && (await hasDiscountsFor(pool(), tier.id, localDate(now, site.zone))))),
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
    code: codeId ? await findCodeWord(db, codeId) : '',
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
  { freshId, discount }: { freshId: string; discount: Discount | null },
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
    const figures =
      action.kind === 'new' ? figuresBy(open, key, tier, id, { method: { nature: 'card' }, discount }) : null;
    const spends = action.kind === 'switch' ? action.figures.credit : (figures?.credit ?? 0);
    // A wallet can take nothing off a single bill.
    const atWallet =
      spends > 0 ? spends + (action.kind === 'switch' ? action.figures.due : (figures?.due ?? 0)) : null;
    const typed = begun ? await typedOf(open, begun) : null;
    return { action, skipTrial, figures, atWallet, begun, typed };
  });
}

function figuresBy(
  { stored, at, site }: OpenBook,
  offer: string,
  tier: Tier,
  checkout: string,
  by: { method: Method; discount: Discount | null },
): Figures | null {
  const submitted = { ...placeOf(tier, checkout), checkout, offer, ...by, byQuote: false };
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
