import type { Income } from '@/core/income';
import type { Instant } from '@/core/instants';
import { many, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** What was received since an instant, by the zone's months, tier and currency. */
export async function listIncome(db: Db, mode: Mode, zone: string, from: Instant): Promise<Income[]> {
  const rows = await many<Omit<Income, 'amount'> & { amount: bigint }>(
    db,
    `SELECT to_char(p.settled_at AT TIME ZONE $2, 'YYYY-MM') AS month, c.tier_id, p.currency, sum(p.amount)::bigint AS amount
     FROM payments p JOIN charges c ON c.id = p.charge_id
     WHERE p.mode = $1 AND p.state = 'succeeded' AND coalesce(p.settled_at, p.at) >= $3 GROUP BY 1, 2, 3`,
    [mode, zone, from],
  );
  return rows.map((row) => ({ ...row, amount: toMinor(row.amount) }));
}
