import type { Meter, Read } from '@/core/access/facts';
import { allowancesSchema } from '@/core/access/meter-schema';
import type { Instant } from '@/core/instants';
import type { ItemId, MemberId } from '@/core/ids';
import { many, maybeOne, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

export type StoredMeter = Meter & { name: string; version: number };

type Row = {
  id: string;
  name: string;
  readsWindow: Meter['window'];
  days: number | null;
  allowances: Meter['allowances'];
  version: number;
};

const COLUMNS = 'id, name, reads_window, days, allowances, version';
const JSON_COLUMNS = { allowances: allowancesSchema };

const fromRow = ({ readsWindow, days, ...row }: Row): StoredMeter => ({
  ...row,
  window: readsWindow,
  ...(days !== null && { days }),
});

export async function listMeters(db: Db): Promise<StoredMeter[]> {
  return (await many<Row>(db, `SELECT ${COLUMNS} FROM meters ORDER BY name, id`, [], JSON_COLUMNS)).map(
    fromRow,
  );
}

export async function findMeter(db: Db, id: string): Promise<StoredMeter | undefined> {
  const row = await maybeOne<Row>(db, `SELECT ${COLUMNS} FROM meters WHERE id = $1`, [id], JSON_COLUMNS);
  return row && fromRow(row);
}

/** Adds a meter, or replaces it if it has not changed since `meter.version`. False if it has. */
export async function saveMeter(db: Db, meter: StoredMeter): Promise<boolean> {
  const { id, name, window, days, allowances, version } = meter;
  const changed = await run(
    db,
    `INSERT INTO meters (id, name, reads_window, days, allowances) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (id) DO UPDATE SET name = $2, reads_window = $3, days = $4, allowances = $5, version = meters.version + 1
     WHERE meters.version = $6`,
    [id, name, window, days ?? null, JSON.stringify(allowances), version],
  );
  return changed === 1;
}

export async function deleteMeter(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM meters WHERE id = $1', [id])) === 1;
}

/** Whose reads are counted: a member's, or those of a visitor's browser, by the hash of what its cookie holds. */
export type Counted = { memberId: MemberId | null; browser: Buffer | null };

const OF = '(member_id = $1::uuid OR ($1::uuid IS NULL AND browser = $2::bytea))';
const valuesOf = ({ memberId, browser }: Counted): unknown[] => [memberId, browser];

/** What was counted of someone in a mode since an instant, the earliest first. */
export async function listReads(db: Db, of: Counted, mode: Mode, since: Instant): Promise<Read[]> {
  return many(
    db,
    `SELECT meter_id AS meter, item_id AS item, at FROM meter_reads WHERE ${OF} AND mode = $3 AND at >= $4 ORDER BY at, id`,
    [...valuesOf(of), mode, since],
  );
}

export type Counting = { meterId: string; mode: Mode; at: Instant };

export async function insertRead(
  db: Db,
  { memberId, browser }: Counted,
  { meterId, mode, at, itemId }: Counting & { itemId: ItemId },
): Promise<void> {
  // The browser of a member is not noted: the next who uses it has reads of their own.
  await run(
    db,
    'INSERT INTO meter_reads (member_id, browser, meter_id, item_id, mode, at) VALUES ($1, $2, $3, $4, $5, $6)',
    [memberId, memberId ? null : browser, meterId, itemId, mode, at],
  );
}

/** Notes that someone met the end of a meter, once in each of its windows, which began at `since`. */
export async function noteEnd(
  db: Db,
  of: Counted,
  { meterId, mode, at, since }: Counting & { since: Instant },
): Promise<void> {
  await run(
    db,
    `INSERT INTO meter_ends (member_id, browser, meter_id, mode, at)
     SELECT $1::uuid, CASE WHEN $1::uuid IS NULL THEN $2::bytea END, $3, $4::money_mode, $5::timestamptz
     WHERE NOT EXISTS (SELECT 1 FROM meter_ends WHERE ${OF} AND meter_id = $3 AND mode = $4 AND at >= $6)`,
    [...valuesOf(of), meterId, mode, at, since],
  );
}

/** Makes what a visitor's browser has read the reads of the member who signed in with it. What is a member's already stays theirs. */
export async function claimReads(db: Db, browser: Buffer, memberId: MemberId): Promise<void> {
  for (const table of ['meter_reads', 'meter_ends'])
    await run(db, `UPDATE ${table} SET member_id = $2 WHERE browser = $1 AND member_id IS NULL`, [
      browser,
      memberId,
    ]);
}

/** How many people met the end of each meter since an instant, and how many of them began to hold a tier afterwards. */
export async function countEnds(
  db: Db,
  mode: Mode,
  since: Instant,
): Promise<Map<string, { met: number; joined: number }>> {
  const rows = await many<{ meterId: string; met: bigint; joined: bigint }>(
    db,
    `SELECT meter_id, count(*) AS met, count(*) FILTER (WHERE joined) AS joined FROM (
       SELECT e.meter_id, coalesce(e.member_id::text, encode(e.browser, 'hex')) AS who, bool_or(EXISTS (
         SELECT 1 FROM holdings h WHERE h.member_id = e.member_id AND h.mode = e.mode AND h.since_at >= e.at)) AS joined
       FROM meter_ends e WHERE e.mode = $1 AND e.at >= $2 GROUP BY 1, 2) ends
     GROUP BY meter_id`,
    [mode, since],
  );
  return new Map(
    rows.map(({ meterId, met, joined }) => [meterId, { met: Number(met), joined: Number(joined) }]),
  );
}

/** Deletes what was counted before an instant, which no window reaches. @returns how many reads */
export async function deleteOldReads(db: Db, before: Instant): Promise<number> {
  await run(db, 'DELETE FROM meter_ends WHERE at < $1', [before]);
  return run(db, 'DELETE FROM meter_reads WHERE at < $1', [before]);
}

/** What a member read for free, for their own data. */
export async function listReadsOf(db: Db, memberId: string): Promise<{ item: string; at: Instant }[]> {
  return many(db, 'SELECT item_id AS item, at FROM meter_reads WHERE member_id = $1 ORDER BY at, id', [
    memberId,
  ]);
}

export async function deleteReadsOf(db: Db, memberId: string): Promise<void> {
  await run(db, 'DELETE FROM meter_reads WHERE member_id = $1', [memberId]);
  await run(db, 'DELETE FROM meter_ends WHERE member_id = $1', [memberId]);
}
