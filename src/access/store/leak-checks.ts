import { z } from 'zod';
import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import { maybeOne, one, run, type Db } from '@/platform/store/db';

const addressSchema = z.object({
  path: z.string(),
  kind: z.enum(['item', 'file', 'list']),
  /** The item whose page or file it is. */
  item: z.string().nullable(),
});
export type CheckedAddress = z.infer<typeof addressSchema>;
const planSchema = z.object({ viewpoints: z.array(z.string()), addresses: z.array(addressSchema) });
export type LeakPlan = z.infer<typeof planSchema>;

const findingSchema = z.object({
  /** Closed words, the address of something hidden, what is open and is not shown, an answer that failed. */
  kind: z.enum(['words', 'hidden', 'shut', 'failed']),
  path: z.string(),
  viewpoint: z.string(),
  item: z.string().nullable(),
  /** The words as they were found, or the status. */
  evidence: z.string(),
});
export type Finding = z.infer<typeof findingSchema>;

export type LeakCheck = {
  id: string;
  startedAt: Instant;
  finishedAt: Instant | null;
  plan: LeakPlan;
  position: number;
  total: number;
  found: Finding[];
};

const COLUMNS = 'id, started_at, finished_at, plan, position, total, found';
const JSON_COLUMNS = { plan: planSchema, found: z.array(findingSchema) };

export async function insertLeakCheck(
  db: Db,
  {
    startedAt,
    startedBy,
    plan,
    total,
  }: { startedAt: Instant; startedBy: MemberId | null; plan: LeakPlan; total: number },
): Promise<{ id: string }> {
  return one(
    db,
    'INSERT INTO leak_checks (started_at, started_by, plan, total) VALUES ($1, $2, $3, $4) RETURNING id',
    [startedAt, startedBy, plan, total],
  );
}

export async function findLeakCheck(db: Db, id: string): Promise<LeakCheck | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM leak_checks WHERE id = $1`, [id], JSON_COLUMNS);
}

/** The one that was started last. */
export async function newestLeakCheck(db: Db): Promise<LeakCheck | undefined> {
  return maybeOne(
    db,
    `SELECT ${COLUMNS} FROM leak_checks ORDER BY created_at DESC, id LIMIT 1`,
    [],
    JSON_COLUMNS,
  );
}

/** Notes what a piece of a check found, if nobody else has done that piece; `to` where the whole of it is done. */
export async function advanceLeakCheck(
  db: Db,
  id: string,
  { from, to, found, finishedAt }: { from: number; to: number; found: Finding[]; finishedAt: Instant | null },
): Promise<boolean> {
  const changed = await run(
    db,
    `UPDATE leak_checks SET position = $3, found = found || $4::jsonb, finished_at = $5 WHERE id = $1 AND position = $2`,
    [id, from, to, JSON.stringify(found), finishedAt],
  );
  return changed === 1;
}

/** Only the newest few stay. */
export async function deleteOldLeakChecks(db: Db): Promise<number> {
  return run(
    db,
    'DELETE FROM leak_checks WHERE id NOT IN (SELECT id FROM leak_checks ORDER BY created_at DESC LIMIT 20)',
  );
}
