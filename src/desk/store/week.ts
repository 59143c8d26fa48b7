import type { Instant } from '@/core/instants';
import type { Paid } from '@/core/reports/today';
import { LEFT } from '@/members/store/member-lists';
import { maybeOne, one, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** What went wrong, and who left, between two instants of the site's clock. */
export async function countWeek(
  db: Db,
  mode: Mode,
  from: Instant,
  to: Instant,
): Promise<{ left: number; failed: number; disputed: number }> {
  const row = await one<{ left: bigint; failed: bigint; disputed: bigint }>(
    db,
    `SELECT
       (SELECT count(*) FROM members m WHERE m.staff_role IS NULL AND m.deleted_at IS NULL
          AND m.id IN (${LEFT('$1', '$2')}) AND m.id NOT IN (${LEFT('$1', '$3')})) AS left,
       (SELECT count(DISTINCT p.charge_id) FROM payments p WHERE p.mode = $1 AND p.state = 'declined' AND p.at >= $2 AND p.at < $3) AS failed,
       (SELECT count(*) FROM disputes d WHERE d.mode = $1 AND d.opened_at >= $2 AND d.opened_at < $3) AS disputed`,
    [mode, from, to],
  );
  return { left: Number(row.left), failed: Number(row.failed), disputed: Number(row.disputed) };
}

const paid = (row: (Omit<Paid, 'amount'> & { amount: bigint }) | undefined): Paid | null =>
  row ? { ...row, amount: toMinor(row.amount) } : null;
const PAID = `SELECT coalesce(p.settled_at, p.at) AS at, p.amount, p.currency FROM payments p JOIN charges c ON c.id = p.charge_id
  WHERE p.mode = $1 AND p.state = 'succeeded'`;

/** The first payment that was received in a mode. */
export const findFirstPayment = async (db: Db, mode: Mode): Promise<Paid | null> =>
  paid(await maybeOne(db, `${PAID} ORDER BY 1 LIMIT 1`, [mode]));

/** The first payment of a subscription that had been paid for before. */
export const findRenewal = async (db: Db, mode: Mode): Promise<Paid | null> =>
  paid(
    await maybeOne(
      db,
      `${PAID} AND EXISTS (SELECT 1 FROM charges e JOIN payments f ON f.charge_id = e.id
         WHERE e.subscription_id = c.subscription_id AND e.id <> c.id AND f.state = 'succeeded' AND f.at < p.at) ORDER BY 1 LIMIT 1`,
      [mode],
    ),
  );
