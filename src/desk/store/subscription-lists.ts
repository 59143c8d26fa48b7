import type { Instant } from '@/core/instants';
import type { State } from '@/core/billing/states';
import { containing, where } from '@/platform/store/conditions';
import { many, one, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { GatewayAccountId, MemberId, OfferVersionId, SubscriptionId } from '@/core/ids';

export type SubscriptionRow = {
  id: SubscriptionId;
  memberId: MemberId;
  memberName: string;
  offerVersionId: OfferVersionId;
  state: State;
  beganAt: Instant;
  dueAt: Instant | null;
  paidThrough: Instant | null;
  methodLabel: string | null;
  gatewayAccountId: GatewayAccountId | null;
  pauses: boolean;
  isDisputed: boolean;
};
/** What a list of subscriptions can be narrowed to. */
export const SUBSCRIPTION_SORTS = ['due', 'member', 'started', 'paid-until'] as const;
export type SubscriptionFilter = {
  /** '' for all; a state, or `disputed`. */
  state: string;
  /** Part of a member's name or address. */
  search: string;
  sort: (typeof SUBSCRIPTION_SORTS)[number];
  /** Only those that fall due before this. */
  dueBefore?: Instant;
  /** Those that are charged by a card which expires in this month or before it: '2026-11'. */
  expiresBy?: string;
  /** Only these, whatever they are. */
  ids?: string[];
  offset: number;
  limit: number;
};
const SUBSCRIPTION_ORDER: Record<SubscriptionFilter['sort'], string> = {
  due: 's.due_at NULLS LAST, s.began_at DESC, s.id',
  member: 'lower(m.name), s.id',
  started: 's.began_at DESC, s.id',
  'paid-until': 's.paid_through NULLS LAST, s.id',
};

const narrowedBy = (mode: Mode, filter: SubscriptionFilter) =>
  where([
    [`s.mode = ? AND s.began_at IS NOT NULL`, mode],
    filter.state === 'disputed' && [`s.disputes <> '{}'`],
    filter.state && filter.state !== 'disputed' && ['s.state = ?', filter.state],
    filter.ids && ['s.id = ANY (?::uuid[])', filter.ids],
    filter.expiresBy && [
      `s.method_expires <= ? AND s.due_at IS NOT NULL AND s.state NOT IN ('pending', 'ended')`,
      filter.expiresBy,
    ],
    filter.dueBefore && ['s.due_at < ?', filter.dueBefore],
    filter.search && [
      's.member_id IN (SELECT id FROM members WHERE search_text LIKE ?)',
      containing(filter.search),
    ],
  ]);

/** Subscriptions of a mode that fit a filter, and how many there are in all. */
export async function listSubscriptions(
  db: Db,
  mode: Mode,
  filter: SubscriptionFilter,
): Promise<{ rows: SubscriptionRow[]; total: number }> {
  const narrowed = narrowedBy(mode, filter);
  const { total } = await one<{ total: bigint }>(
    db,
    `SELECT count(*) AS total FROM subscriptions s ${narrowed.sql}`,
    [...narrowed.values],
  );
  const rows = await many<SubscriptionRow>(
    db,
    `SELECT s.id, s.member_id, coalesce(nullif(m.name, ''), m.email) AS member_name, s.offer_version_id, s.state, s.began_at, s.due_at, s.paid_through, s.method_label,
       s.gateway_account_id, s.pauses, s.disputes <> '{}' AS is_disputed FROM subscriptions s JOIN members m ON m.id = s.member_id ${narrowed.sql}
     ORDER BY ${SUBSCRIPTION_ORDER[filter.sort]} OFFSET ${narrowed.add(filter.offset)} LIMIT ${narrowed.add(filter.limit)}`,
    narrowed.values,
  );
  return { rows, total: Number(total) };
}

/** The ids of all subscriptions that fit a filter, in its order: for exports, which read them page by page. */
export async function listSubscriptionIds(db: Db, mode: Mode, filter: SubscriptionFilter): Promise<string[]> {
  const narrowed = narrowedBy(mode, filter);
  const rows = await many<{ id: string }>(
    db,
    `SELECT s.id FROM subscriptions s JOIN members m ON m.id = s.member_id ${narrowed.sql} ORDER BY ${SUBSCRIPTION_ORDER[filter.sort]}`,
    narrowed.values,
  );
  return rows.map((row) => row.id);
}

export async function countDisputed(db: Db, mode: Mode): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM subscriptions WHERE mode = $1 AND began_at IS NOT NULL AND disputes <> '{}'`,
    [mode],
  );
  return Number(count);
}

export async function countByState(db: Db, mode: Mode): Promise<Map<State, number>> {
  const rows = await many<{ state: State; count: bigint }>(
    db,
    `SELECT state, count(*) FROM subscriptions WHERE mode = $1 AND began_at IS NOT NULL GROUP BY state`,
    [mode],
  );
  return new Map(rows.map((row) => [row.state, Number(row.count)]));
}
