import { sectionsFor, type SectionId } from '@/core/account-sections';
import { compare, type Instant } from '@/core/instants';
import { addLength } from '@/core/calendar';
import { chargesAhead } from '@/core/billing/upcoming';
import { deedsOpen, type Deed } from '@/core/billing/deeds';
import { creditLeft } from '@/core/billing/credit';
import { figuresOfNext, looking } from '@/core/billing/figures';
import { isKept } from '@/core/billing/work';
import { readBook } from '@/billing/services/lib/open-book';
import { keptOffersOf } from '@/billing/services/lib/schedules';
import { listAgreementsOf } from '@/billing/store/agreements';
import { pool, readTogether, together, type Db } from '@/platform/store/db';
import { listHoldings, type Holding } from '@/billing/store/holdings';
import type { Member } from '@/people/store/members';
import { ALL_PAYMENTS, listPayments, type PaymentListRow } from '@/billing/store/payment-lists';
import type { Mode, Site } from '@/platform/store/site';
import type { MemberId } from '@/core/ids';
import { listSubscriptionsOf, type StoredSubscription } from '@/billing/store/subscriptions';
import { type StoredOffer } from '@/tiers/store/offers';
import { type Tier } from '@/tiers/store/tiers';
import { gatewayById } from '@/billing/gateways';
import type { Gateway } from '@/billing/gateways/contract';
import { listGatewayAccounts } from '@/billing/store/gateways';
import { siteNow } from '@/platform/clock';
import { currentSite, inMode } from '@/platform/site';
import { offerSentence } from '@/words/offers';
import type { Words } from '@/words/speak';
import { transferDetailsOf, type TransferDetails } from '@/billing/services/lib/transfer-details';
import { keptTiers } from '@/tiers/services/lib/kept';

/** How far ahead charges are shown. */
const AHEAD = { n: 6, unit: 'month' } as const;

export type SubscriptionView = {
  subscription: StoredSubscription;
  offer: StoredOffer;
  tier: Tier | undefined;
  sentence: string;
  /** Where it goes over at its next period. */
  movesTo: {
    /** Whether the member asked for it, and can take it back. */
    isOwn: boolean;
    name: string;
    tier: Tier | undefined;
    sentence: string;
  } | null;
  /** What money will be asked for, as things are, and what credit pays of it; minor units. */
  next: { at: Instant; amount: number; credit: number; currency: string } | null;
  /** The charges of the next half year as things are, before credit; minor units. */
  ahead: { at: Instant; amount: number }[];
  /** The transfer that is awaited for it. */
  transfer: TransferDetails | null;
  /** What would not be refused now. */
  deeds: Deed[];
  /** Nothing more is charged, and its tier is held for good. */
  isKept: boolean;
  /** It is paid by a wallet that has not been told yes to what it costs next. */
  needsApproval: boolean;
};

export type MemberAccount = {
  now: Instant;
  zone: string;
  /** What is left of credit, by currency; minor units. */
  credit: { currency: string; amount: number }[];
  subscriptions: SubscriptionView[];
  holdings: (Holding & { tier: Tier | undefined; isNow: boolean })[];
  /** The newest, and how many there are. */
  payments: (PaymentListRow & { tierName: string })[];
  paymentsTotal: number;
};

/** What the account of a member in the site's mode is put together of. */
export const readAccount = (db: Db, site: Site, memberId: MemberId) =>
  together([
    listGatewayAccounts(db),
    listSubscriptionsOf(db, memberId, site.mode),
    readBook(db, site, { memberId, mode: site.mode }),
    listPayments(db, site.mode, { ...ALL_PAYMENTS, memberId }),
    listHoldings(db, memberId, site.mode),
  ]);

/** What a member has, owes and paid: the same for the member's own account and for the Desk, each in its own words. */
export async function memberAccount(
  { id }: Pick<Member, 'id'>,
  t: Words,
  mode?: Mode,
): Promise<MemberAccount> {
  const current = await currentSite();
  const site = inMode(current, mode ?? current.mode);
  const [read] = await readTogether((db) => [readAccount(db, site, id)]);
  return accountFrom(read, site, t);
}

/** The same from what has been read. */
export async function accountFrom(
  [connected, stored, { stored: own, context, at }, paid, holdings]: Awaited<ReturnType<typeof readAccount>>,
  site: Site,
  t: Words,
): Promise<MemberAccount> {
  const now = siteNow(site);
  const tiers = new Map((await keptTiers()).map((tier) => [tier.id, tier]));
  const names = new Map([...tiers].map(([id, tier]) => [id, tier.name]));
  const gateways = new Map<string, Gateway>(connected.map(({ id, gateway }) => [id, gatewayById(gateway)]));
  const gatewayOf = ({ gatewayAccountId }: StoredSubscription) => gateways.get(gatewayAccountId ?? '');
  const isPaidBy = (nature: Gateway['nature']): boolean =>
    stored.some((s) => gatewayOf(s)?.nature === nature);
  const bought = await keptOffersOf(stored);
  const ids = stored.map(({ id }) => id);
  const transfers = isPaidBy('transfer') ? await transferDetailsOf(ids) : null;
  const agreements = isPaidBy('wallet') ? await listAgreementsOf(pool(), ids, ['running']) : null;
  const subscriptions = stored.map((subscription): SubscriptionView => {
    const offer = bought.get(subscription.offer);
    if (!offer) throw new Error(`no offer version ${subscription.offerVersionId}`);
    const movesTo = bought.get(subscription.switchesTo ?? subscription.movesTo ?? '') ?? null;
    const running = own.book.subscriptions.find(({ id }) => id === subscription.id);
    const next = running ? figuresOfNext(own.book, running, context, at) : null;
    const paidBy = gatewayOf(subscription);
    const isByWallet = paidBy?.nature === 'wallet';
    const tierId = offer.definition.steps[subscription.place.last?.step ?? 0]?.tier ?? offer.tierId;
    return {
      subscription,
      offer,
      tier: tiers.get(tierId),
      sentence: offerSentence(offer.definition, t, {
        skipTrial: subscription.place.skipTrial,
        // What the fee was is told until it is paid.
        skipFee: subscription.begunBy !== 'first',
        tierNames: names,
      }),
      movesTo: movesTo && {
        isOwn: subscription.switchesTo !== null,
        name: movesTo.name,
        tier: tiers.get(movesTo.tierId),
        sentence: offerSentence(movesTo.definition, t, { skipTrial: true, skipFee: true, tierNames: names }),
      },
      next: next && {
        at: next.at,
        amount: next.due,
        credit: next.credit,
        currency: (movesTo ?? offer).definition.currency,
      },
      ahead: running ? chargesAhead(running, context, addLength(at, AHEAD, site.zone)) : [],
      transfer: transfers?.get(subscription.id) ?? null,
      deeds: deedsOpen(own.book, subscription.id, context, at).filter(
        (deed) => !(deed === 'pause' && !paidBy?.carries.pause) && !(deed === 'undo' && isByWallet),
      ),
      isKept: running
        ? isKept(looking(own.book, context, at, running), running)
        : own.book.holdings.some(({ subscription: id, to }) => id === subscription.id && to === null),
      needsApproval:
        isByWallet &&
        next !== null &&
        agreements?.get(subscription.id)?.offerVersionId !== (movesTo ?? offer).versionId,
    };
  });
  const tierNames = new Map(
    subscriptions.map((view) => [view.subscription.id, view.tier?.name ?? view.offer.name]),
  );
  return {
    now,
    zone: site.zone,
    credit: creditLeft(own.book),
    subscriptions,
    holdings: holdings.map((holding) => ({
      ...holding,
      tier: tiers.get(holding.tierId),
      isNow:
        compare(holding.fromAt, now) <= 0 && (holding.untilAt === null || compare(holding.untilAt, now) > 0),
    })),
    payments: paid.rows.map((payment) => ({
      ...payment,
      tierName: payment.productName ?? tierNames.get(payment.subscriptionId ?? '') ?? '',
    })),
    paymentsTotal: paid.total,
  };
}

/** The sections of the account as the owner arranged them for a member with these holdings. */
export async function accountSections({ holdings }: Pick<MemberAccount, 'holdings'>): Promise<SectionId[]> {
  const site = await currentSite();
  const held = new Set(holdings.filter((holding) => holding.isNow).map((holding) => holding.tierId));
  const tiers = (await keptTiers()).filter((tier) => held.has(tier.id));
  return sectionsFor(
    site.accountSections,
    tiers.map((tier) => tier.accountSections),
  );
}
