import type { Summary } from '@/core/billing/book';
import type { MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import { many, run, type Db, type Transaction } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** What of a member simply becomes another's, with the column that says whose it is. */
const MOVED = [
  ['subscriptions', 'member_id'],
  ['holdings', 'member_id'],
  ['credits', 'member_id'],
  ['checkouts', 'member_id'],
  ['documents', 'member_id'],
  ['mails', 'member_id'],
  ['mails', 'about_member_id'],
  ['member_notes', 'member_id'],
  ['comments', 'member_id'],
  ['meter_reads', 'member_id'],
  ['meter_ends', 'member_id'],
  ['held_passes', 'member_id'],
] as const;

/** What both may have: where they do, that of the one who is kept stays. */
const ONE_EACH = [
  ['group_members', 'group_id'],
  ['reading_places', 'item_id'],
  ['mail_refusals', 'topic'],
] as const;

/** Makes what is one member's another's: money, what is held, and what they wrote and read. Sessions and links are not. */
export async function moveToMember(db: Transaction, from: MemberId, to: MemberId): Promise<void> {
  for (const [table, column] of MOVED)
    await run(db, `UPDATE ${table} SET ${column} = $2 WHERE ${column} = $1`, [from, to]);
  for (const [table, key] of ONE_EACH) {
    await run(
      db,
      `UPDATE ${table} SET member_id = $2 WHERE member_id = $1 AND ${key} NOT IN (SELECT ${key} FROM ${table} WHERE member_id = $2)`,
      [from, to],
    );
    await run(db, `DELETE FROM ${table} WHERE member_id = $1`, [from]);
  }
  await run(db, 'DELETE FROM private_feeds WHERE member_id = $1', [from]);
}

/** Replaces the summaries of two members by those of one. Quotes that either was shown are void. */
export async function saveMergedSummaries(
  db: Transaction,
  { from, to, mode }: { from: MemberId; to: MemberId; mode: Mode },
  summaries: Summary[],
): Promise<void> {
  await run(db, 'DELETE FROM book_summaries WHERE member_id = ANY ($1) AND mode = $2', [[from, to], mode]);
  for (const { track, hadTrial, joinedAt, hasSwitchedUp } of summaries)
    await run(
      db,
      'INSERT INTO book_summaries (member_id, mode, track, had_trial, joined_at, has_switched_up) VALUES ($1, $2, $3, $4, $5, $6)',
      [to, mode, track, hadTrial, joinedAt, hasSwitchedUp],
    );
  await run(db, 'DELETE FROM switch_quotes WHERE member_id = ANY ($1)', [[from, to]]);
  await run(db, 'UPDATE books SET version = version + 1 WHERE member_id = ANY ($1) AND mode = $2', [
    [from, to],
    mode,
  ]);
}

/** Notes into which account another went, and since when the one that is kept is a member. */
export async function noteMerged(
  db: Db,
  { from, to, joinedAt }: { from: MemberId; to: MemberId; joinedAt: Instant },
): Promise<void> {
  await run(db, 'UPDATE members SET merged_into = $2 WHERE id = $1 OR merged_into = $1', [from, to]);
  await run(db, 'UPDATE members SET joined_at = $2 WHERE id = $1', [to, joinedAt]);
}

/** The accounts that went into a member's. */
export async function listMergedInto(db: Db, id: MemberId): Promise<MemberId[]> {
  const rows = await many<{ id: MemberId }>(db, 'SELECT id FROM members WHERE merged_into = $1', [id]);
  return rows.map((row) => row.id);
}
