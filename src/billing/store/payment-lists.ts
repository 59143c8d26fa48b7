import type { Instant } from '@/core/instants';
import { containing, where } from '@/platform/store/conditions';
import { many, one, preparedForm, toMinor, totalOf, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { Payment, PaymentState } from './payments';
import type { GatewayAccountId, MemberId, OfferVersionId, SubscriptionId } from '@/core/ids';

export type PaymentListRow = Pick<
  Payment,
  | 'id'
  | 'subscriptionId'
  | 'mode'
  | 'attempt'
  | 'amount'
  | 'currency'
  | 'state'
  | 'gatewayRef'
  | 'declineCode'
  | 'at'
  | 'isAwaited'
  | 'reference'
> & {
  /** It changed nothing, so it is refunded. */
  isReturned: boolean;
  memberId: MemberId;
  memberName: string;
  /** Null of a purchase, which has the name of its product. */
  offerVersionId: OfferVersionId | null;
  productName: string | null;
  joiningFee: bigint;
  dueAt: Instant;
  /** When its outcome was known, by the site's clock; null while it is not. */
  settledAt: Instant | null;
  gatewayAccountId: GatewayAccountId;
  /** Refunded of it so far; minor units. */
  refunded: number;
  dispute: 'open' | 'won' | 'lost' | null;
};
/** What a list of payments can be narrowed to. */
export const PAYMENT_STATES = ['succeeded', 'declined', 'intent', 'refunded', 'disputed'] as const;
export const PAYMENT_SORTS = ['newest', 'oldest', 'amount', 'member'] as const;
export type PaymentFilter = {
  state: '' | PaymentState | 'refunded' | 'disputed';
  search: string;
  sort: (typeof PAYMENT_SORTS)[number];
  offset: number;
  limit: number;
  memberId: MemberId | null;
  /** Only these, whatever they are. */
  ids?: string[];
  /** Settled, or else tried, from and before; by the site's clock. */
  from: Instant | null;
  until: Instant | null;
};
export const ALL_PAYMENTS: PaymentFilter = {
  state: '',
  search: '',
  sort: 'newest',
  offset: 0,
  limit: 100,
  memberId: null,
  from: null,
  until: null,
};
const PAYMENT_ORDER: Record<PaymentFilter['sort'], string> = {
  newest: 'p.at DESC, p.created_at DESC',
  oldest: 'p.at, p.created_at',
  amount: 'p.amount DESC, p.at DESC',
  member: 'lower(m.name), p.at DESC',
};
const WITH_MEMBER = `JOIN charges c ON c.id = p.charge_id LEFT JOIN subscriptions s ON s.id = c.subscription_id LEFT JOIN purchases u ON u.id = c.purchase_id
  JOIN members m ON m.id = coalesce(s.member_id, u.member_id)`;
const REFUNDED = `(SELECT coalesce(sum(r.amount), 0)::bigint FROM refunds r WHERE r.payment_id = p.id AND r.state = 'succeeded')`;

const narrowedBy = (mode: Mode, filter: PaymentFilter) => {
  const words = filter.search && containing(filter.search);
  /** The payments of the members that a condition on `member_id` is for. */
  const ofMembers = (whose: string): string =>
    `SELECT found.id FROM subscriptions s JOIN charges c ON c.subscription_id = s.id JOIN payments found ON found.charge_id = c.id WHERE s.${whose}
     UNION ALL SELECT found.id FROM purchases u JOIN charges c ON c.purchase_id = u.id JOIN payments found ON found.charge_id = c.id WHERE u.${whose}`;
  return where([
    ['p.mode = ?', mode],
    filter.ids && ['p.id = ANY (?::uuid[])', filter.ids],
    filter.memberId && [`p.id IN (${ofMembers('member_id = ?')})`, filter.memberId, filter.memberId],
    filter.state === 'disputed'
      ? ['p.id IN (SELECT payment_id FROM disputes)']
      : filter.state === 'refunded'
        ? [`p.id IN (SELECT payment_id FROM refunds WHERE state = 'succeeded')`]
        : filter.state && ['p.state = ?', filter.state],
    filter.from && ['coalesce(p.settled_at, p.at) >= ?', filter.from],
    filter.until && ['coalesce(p.settled_at, p.at) < ?', filter.until],
    words && [
      `p.id IN (${ofMembers('member_id IN (SELECT id FROM members WHERE search_text LIKE ?)')}
         UNION ALL SELECT id FROM payments WHERE lower(gateway_ref) LIKE ?
         UNION ALL SELECT found.id FROM charges c JOIN payments found ON found.charge_id = c.id WHERE lower(c.reference) LIKE ?)`,
      words,
      words,
      words,
      words,
    ],
  ]);
};

/** Payments of a mode that fit a filter, and how many there are in all. */
export async function listPayments(
  db: Db,
  mode: Mode,
  filter: PaymentFilter,
): Promise<{ rows: PaymentListRow[]; total: number }> {
  const order = PAYMENT_ORDER[filter.sort];
  const narrowed = narrowedBy(mode, filter);
  const values = [...narrowed.values];
  const count = () =>
    one<{ total: bigint }>(db, `SELECT count(*) AS total FROM payments p ${narrowed.sql}`, values);
  const listed = `SELECT p.id, p.mode, p.attempt, p.amount, p.currency, p.state, p.gateway_ref, p.decline_code, p.at, p.settled_at, p.is_awaited, p.is_returned, p.gateway_account_id,
       c.subscription_id, c.joining_fee, c.due_at, c.reference, s.offer_version_id, (SELECT d.name FROM products d WHERE d.id = u.product_id) AS product_name, m.id AS member_id, coalesce(nullif(m.name, ''), m.email) AS member_name,
       d.state AS dispute, ${REFUNDED} AS refunded
     FROM (SELECT p.* FROM payments p ${filter.sort === 'member' ? WITH_MEMBER : ''} ${narrowed.sql} ORDER BY ${order}
       OFFSET ${narrowed.add(filter.offset)} LIMIT ${narrowed.add(filter.limit)}) p
     ${WITH_MEMBER} LEFT JOIN disputes d ON d.payment_id = p.id ORDER BY ${order}`;
  const rows = await many<Omit<PaymentListRow, 'amount' | 'refunded'> & { amount: bigint; refunded: bigint }>(
    db,
    // A member's are looked up with each look at their account.
    filter.memberId && !filter.search ? preparedForm(listed) : listed,
    narrowed.values,
  );
  return {
    total: await totalOf(rows.length, filter, async () => (await count()).total),
    rows: rows.map((row) => ({ ...row, amount: toMinor(row.amount), refunded: toMinor(row.refunded) })),
  };
}

/** The ids of all payments that fit a filter, in its order: for exports, which read them page by page. */
export async function listPaymentIds(db: Db, mode: Mode, filter: PaymentFilter): Promise<string[]> {
  const narrowed = narrowedBy(mode, filter);
  const rows = await many<{ id: string }>(
    db,
    `SELECT p.id FROM payments p ${filter.sort === 'member' ? WITH_MEMBER : ''} ${narrowed.sql} ORDER BY ${PAYMENT_ORDER[filter.sort]}`,
    narrowed.values,
  );
  return rows.map((row) => row.id);
}

/** Every payment of a mode that succeeded, by when it did; amounts in minor units. */
export async function listReceived(
  db: Db,
  mode: Mode,
): Promise<{ id: string; at: Instant; amount: number }[]> {
  const rows = await many<{ id: string; at: Instant; amount: bigint }>(
    db,
    `SELECT id, coalesce(settled_at, at) AS at, amount FROM payments WHERE mode = $1 AND state = 'succeeded' ORDER BY 2, created_at`,
    [mode],
  );
  return rows.map((row) => ({ ...row, amount: toMinor(row.amount) }));
}

/** How often a charge of each subscription that is unpaid now was declined. */
export async function countDeclines(db: Db, subscriptionIds: SubscriptionId[]): Promise<Map<string, number>> {
  const rows = await many<{ id: string; count: bigint }>(
    db,
    `SELECT s.id, count(*) FROM subscriptions s JOIN payments p ON p.charge_id = s.unpaid_charge_id AND p.state = 'declined'
     WHERE s.id = ANY ($1) GROUP BY s.id`,
    [subscriptionIds],
  );
  return new Map(rows.map((row) => [row.id, Number(row.count)]));
}

/** Why the newest try of each subscription failed, where it did. */
export async function lastDeclines(db: Db, subscriptionIds: SubscriptionId[]): Promise<Map<string, string>> {
  const rows = await many<{ subscriptionId: SubscriptionId; declineCode: string }>(
    db,
    `SELECT DISTINCT ON (c.subscription_id) c.subscription_id, p.decline_code FROM payments p JOIN charges c ON c.id = p.charge_id
     WHERE c.subscription_id = ANY ($1) AND p.state = 'declined' ORDER BY c.subscription_id, p.at DESC, p.created_at DESC`,
    [subscriptionIds],
  );
  return new Map(rows.map((row) => [row.subscriptionId, row.declineCode]));
}

export type Income = { currency: string; amount: number; count: number };

/** Money received between two instants of the site's clock, by currency. */
export async function sumIncome(db: Db, mode: Mode, from: Instant, to: Instant): Promise<Income[]> {
  const rows = await many<{ currency: string; amount: bigint; count: bigint }>(
    db,
    `SELECT currency, sum(amount)::int8 AS amount, count(*) FROM payments
     WHERE mode = $1 AND state = 'succeeded' AND coalesce(settled_at, at) >= $2 AND coalesce(settled_at, at) < $3 GROUP BY currency ORDER BY currency`,
    [mode, from, to],
  );
  return rows.map((row) => ({
    currency: row.currency,
    amount: toMinor(row.amount),
    count: Number(row.count),
  }));
}
