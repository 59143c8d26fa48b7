import { many, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** What a member can spend, by currency; minor units. What came from a payment that is disputed is frozen. */
export async function unspentCredit(
  db: Db,
  memberId: string,
  mode: Mode,
): Promise<{ currency: string; amount: number }[]> {
  const rows = await many<{ currency: string; amount: bigint }>(
    db,
    `SELECT k.currency, sum(k.unspent)::bigint AS amount FROM credits k LEFT JOIN disputes d ON d.payment_id = k.payment_id AND d.state = 'open'
     WHERE k.member_id = $1 AND k.mode = $2 AND k.unspent > 0 AND d.id IS NULL GROUP BY k.currency ORDER BY k.currency`,
    [memberId, mode],
  );
  return rows.map((row) => ({ ...row, amount: toMinor(row.amount) }));
}
