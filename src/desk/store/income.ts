import type { Income } from '@/core/income';
import type { Instant, LocalDate, LocalMonth } from '@/core/instants';
import { many, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

const FORMATS = { month: 'YYYY-MM', day: 'YYYY-MM-DD' };
type When = { month: LocalMonth; day: LocalDate };

/** What was received since an instant, by the zone's months or days, tier and currency; for a pass, its product is in place of a tier. */
export async function listIncome<By extends keyof When>(
  db: Db,
  mode: Mode,
  { by, zone, from }: { by: By; zone: string; from: Instant },
): Promise<Income<When[By]>[]> {
  const rows = await many<Omit<Income<When[By]>, 'amount'> & { amount: bigint }>(
    db,
    `SELECT to_char(coalesce(p.settled_at, p.at) AT TIME ZONE $2, $4) AS when, coalesce(c.tier_id, u.product_id) AS tier_id, p.currency, sum(p.amount)::bigint AS amount
     FROM payments p JOIN charges c ON c.id = p.charge_id LEFT JOIN purchases u ON u.id = c.purchase_id
     WHERE p.mode = $1 AND p.state = 'succeeded' AND coalesce(p.settled_at, p.at) >= $3 GROUP BY 1, 2, 3`,
    [mode, zone, from, FORMATS[by]],
  );
  return rows.map((row) => ({ ...row, amount: toMinor(row.amount) }));
}
