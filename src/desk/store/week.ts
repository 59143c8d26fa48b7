import type { Instant } from '@/core/instants';
import { one, type Db } from '@/platform/store/db';
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
       (SELECT count(DISTINCT s.member_id) FROM subscriptions s
        WHERE s.mode = $1 AND s.state = 'ended' AND s.began_at IS NOT NULL AND s.ended_at >= $2 AND s.ended_at < $3
          AND NOT EXISTS (SELECT 1 FROM subscriptions o WHERE o.member_id = s.member_id AND o.mode = s.mode AND o.state NOT IN ('ended', 'pending'))) AS left,
       (SELECT count(DISTINCT p.charge_id) FROM payments p WHERE p.mode = $1 AND p.state = 'declined' AND p.at >= $2 AND p.at < $3) AS failed,
       (SELECT count(*) FROM disputes d WHERE d.mode = $1 AND d.opened_at >= $2 AND d.opened_at < $3) AS disputed`,
    [mode, from, to],
  );
  return { left: Number(row.left), failed: Number(row.failed), disputed: Number(row.disputed) };
}
