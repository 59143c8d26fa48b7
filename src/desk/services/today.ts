import { addLength } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import { pool } from '@/platform/store/db';
import { listGatewayAccounts, type GatewayAccount } from '@/billing/store/gateways';
import { countByCommentState } from '@/content/store/comments';
import { countItems } from '@/content/store/items';
import {
  ALL_PAYMENTS,
  listPayments,
  sumIncome,
  type Income,
  type PaymentListRow,
} from '@/billing/store/payment-lists';
import {
  listSubscriptions,
  type SubscriptionFilter,
  type SubscriptionRow,
} from '@/desk/store/subscription-lists';
import { nextCharges } from '@/billing/services/lib/schedules';
import { countWeek } from '@/desk/store/week';
import { listOffers } from '@/tiers/store/offers';
import { listTiers } from '@/tiers/store/tiers';
import { closedToVisitors, readAccessMap } from '@/access/services/lib/access-map';
import { unknownItems } from '@/access/services/lib/desk-items';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { countJoined } from '@/members/store/member-lists';

/** A subscription and what it is charged next; null where nothing is. */
type WithNext = SubscriptionRow & { next: { at: Instant; amount: number; currency: string } | null };

export type Today = {
  now: Instant;
  /** The site's own. */
  currency: string;
  isLive: boolean;
  gateway: GatewayAccount | null;
  tiersOnSale: number;
  tiers: number;
  published: number;
  turnedAway: number;
  lastPayment: PaymentListRow | null;
  joinedThisWeek: number;
  incomeThisWeek: Income[];
  leftThisWeek: number;
  overdue: WithNext[];
  /** How many are overdue in all. */
  overdueTotal: number;
  disputed: WithNext[];
  dueNext: WithNext[];
  /** Comments that wait for approval. */
  commentsWaiting: number;
};

const BY_DUE: SubscriptionFilter = { state: '', search: '', sort: 'due', offset: 0, limit: 30 };

/** What the first page of the Desk shows; each figure is read from what really happened. */
async function readToday(actor: Actor): Promise<Today> {
  const site = await currentSite();
  const now = siteNow(site);
  const weekAgo = addLength(now, { n: -7, unit: 'day' }, site.zone);
  const [
    accounts,
    tiers,
    offers,
    items,
    map,
    payments,
    joinedThisWeek,
    incomeThisWeek,
    overdue,
    running,
    week,
    disputed,
    comments,
  ] = await Promise.all([
    listGatewayAccounts(pool()),
    listTiers(pool()),
    listOffers(pool()),
    countItems(pool()),
    readAccessMap(),
    listPayments(pool(), site.mode, { ...ALL_PAYMENTS, state: 'succeeded', limit: 1 }),
    countJoined(pool(), weekAgo, now),
    sumIncome(pool(), site.mode, weekAgo, now),
    listSubscriptions(pool(), site.mode, { ...BY_DUE, state: 'overdue', limit: 5 }),
    listSubscriptions(pool(), site.mode, { ...BY_DUE, limit: 30 }),
    countWeek(pool(), site.mode, weekAgo, now),
    listSubscriptions(pool(), site.mode, { ...BY_DUE, state: 'disputed', limit: 5 }),
    countByCommentState(pool(), await unknownItems(actor)),
  ]);
  const shown = [...overdue.rows, ...running.rows, ...disputed.rows];
  const next = await nextCharges(
    site,
    shown.map(({ id }) => id),
  );
  const withNext = (rows: SubscriptionRow[]): WithNext[] =>
    rows.map((row) => ({ ...row, next: next.get(row.id) ?? null }));
  return {
    now,
    currency: site.currency,
    isLive: site.mode === 'live',
    gateway: accounts.find((account) => account.mode === site.mode && account.atCheckout) ?? null,
    tiersOnSale: tiers.filter((tier) => offers.some((offer) => offer.tierId === tier.id && offer.onSale))
      .length,
    tiers: tiers.length,
    published: items.published,
    turnedAway: closedToVisitors(map),
    lastPayment: payments.rows[0] ?? null,
    joinedThisWeek,
    incomeThisWeek,
    leftThisWeek: week.left,
    overdue: withNext(overdue.rows),
    overdueTotal: overdue.total,
    disputed: withNext(disputed.rows),
    commentsWaiting: comments.get('waiting') ?? 0,
    dueNext: withNext(running.rows)
      .filter((row) => row.next !== null && row.state !== 'overdue')
      .slice(0, 6),
  };
}

export const today = staffUse('look')('today', nothing, async (actor) => done(await readToday(actor)));
