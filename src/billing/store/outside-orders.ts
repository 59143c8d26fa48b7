import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import { many, maybeOne, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** What a member was given under a number that another program uses. `until` null: for good. */
export type OutsideOrder = {
  number: string;
  memberId: MemberId;
  kind: 'tier' | 'pass';
  /** The id of the tier or the pass. */
  item: string;
  holdingId: string;
  since: Instant;
  until: Instant | null;
};

const ORDERS = `SELECT o.number, o.member_id, o.kind, o.item, o.holding_id, coalesce(h.from_at, p.since_at) AS since, coalesce(h.until_at, p.until_at) AS until
  FROM outside_orders o LEFT JOIN holdings h ON o.kind = 'tier' AND h.id = o.holding_id LEFT JOIN held_passes p ON o.kind = 'pass' AND p.id = o.holding_id`;

export async function findOrder(db: Db, mode: Mode, number: string): Promise<OutsideOrder | undefined> {
  return maybeOne(db, `${ORDERS} WHERE o.mode = $1 AND o.number = $2`, [mode, number]);
}

/** What a member was given by orders, the newest first; of several at once, one after the other. */
export async function listOrdersOf(db: Db, mode: Mode, memberId: string): Promise<OutsideOrder[]> {
  return many(db, `${ORDERS} WHERE o.mode = $1 AND o.member_id = $2 ORDER BY since DESC, o.number`, [
    mode,
    memberId,
  ]);
}

/** Keeps what was given under a number; given anew, the new one takes its place. */
export async function saveOrder(
  db: Db,
  mode: Mode,
  { number, memberId, kind, item, holdingId }: Omit<OutsideOrder, 'since' | 'until'>,
): Promise<void> {
  await run(
    db,
    `INSERT INTO outside_orders (mode, number, member_id, kind, item, holding_id) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (mode, number) DO UPDATE SET holding_id = $6`,
    [mode, number, memberId, kind, item, holdingId],
  );
}
