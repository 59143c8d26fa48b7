import type { HoldingId, MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import type { CodeUses } from '@/core/tiers/codes';
import { listed } from '@/platform/store/conditions';
import { many, one, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** Checkouts that use a code up: what is being paid for counts as well, so that the last use goes to one person. */
const USING = `state IN ${listed(['charging', 'approving', 'awaiting', 'done'])}`;

/** How often a code was used in a mode, and how often its batch was by one person; without one checkout of theirs. */
export async function countUses(
  db: Db,
  { id, batchId }: { id: string; batchId: string },
  { memberId, mode, except }: { memberId: MemberId | null; mode: Mode; except: string | null },
): Promise<CodeUses> {
  const { all, own } = await one<{ all: bigint; own: bigint }>(
    db,
    `WITH uses AS (
       SELECT k.code_id, k.member_id FROM checkouts k WHERE k.code_id IN (SELECT id FROM codes WHERE batch_id = $2) AND k.mode = $3 AND ${USING}
         AND k.id IS DISTINCT FROM $5::uuid
       UNION ALL SELECT u.code_id, u.member_id FROM code_uses u WHERE u.code_id IN (SELECT id FROM codes WHERE batch_id = $2) AND u.mode = $3)
     SELECT count(*) FILTER (WHERE code_id = $1) AS all, count(*) FILTER (WHERE member_id = $4::uuid) AS own FROM uses`,
    [id, batchId, mode, memberId, except],
  );
  return { all: Number(all), own: Number(own) };
}

/** Notes that a member used a code by which something was given. `holdingId`: of a tier. */
export async function insertCodeUse(
  db: Db,
  use: { codeId: string; memberId: MemberId; mode: Mode; at: Instant; holdingId: HoldingId | null },
): Promise<void> {
  await run(
    db,
    'INSERT INTO code_uses (code_id, member_id, mode, at, holding_id) VALUES ($1, $2, $3, $4, $5)',
    [use.codeId, use.memberId, use.mode, use.at, use.holdingId],
  );
}

/** Whether a member ever had a subscription that began, in a mode. */
export async function hadSubscription(db: Db, memberId: MemberId, mode: Mode): Promise<boolean> {
  const { had } = await one<{ had: boolean }>(
    db,
    'SELECT EXISTS (SELECT 1 FROM subscriptions WHERE member_id = $1 AND mode = $2 AND began_at IS NOT NULL) AS had',
    [memberId, mode],
  );
  return had;
}

/** What the codes of a batch did: how often they were used, and what was paid by those who used them, less refunds; minor units. */
export type CodeReport = { batchId: string; uses: number; income: { currency: string; amount: number }[] };

/** For each batch that was used in a mode. */
export async function reportCodes(db: Db, mode: Mode): Promise<Map<string, CodeReport>> {
  const uses = await many<{ batchId: string; uses: bigint }>(
    db,
    `SELECT c.batch_id, count(*) AS uses FROM (
       SELECT code_id FROM checkouts WHERE code_id IS NOT NULL AND mode = $1 AND state = 'done'
       UNION ALL SELECT code_id FROM code_uses WHERE mode = $1) u JOIN codes c ON c.id = u.code_id GROUP BY 1`,
    [mode],
  );
  const income = await many<{ batchId: string; currency: string; amount: bigint }>(
    db,
    `SELECT c.batch_id, p.currency, sum(p.amount - coalesce((SELECT sum(r.amount) FROM refunds r WHERE r.payment_id = p.id AND r.state = 'succeeded'), 0)) AS amount
     FROM checkouts k JOIN codes c ON c.id = k.code_id JOIN charges g ON g.subscription_id = k.subscription_id JOIN payments p ON p.charge_id = g.id
     WHERE k.mode = $1 AND k.state = 'done' AND p.state = 'succeeded' GROUP BY 1, 2 ORDER BY 1, 2`,
    [mode],
  );
  return new Map(
    uses.map(({ batchId, uses: n }) => [
      batchId,
      {
        batchId,
        uses: Number(n),
        income: income
          .filter((one) => one.batchId === batchId)
          .map(({ currency, amount }) => ({ currency, amount: Number(amount) })),
      },
    ]),
  );
}
