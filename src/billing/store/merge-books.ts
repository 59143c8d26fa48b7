import type { Summary } from '@/core/billing/book';
import type { MemberId } from '@/core/ids';
import { run, type Transaction } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** Makes all of one member's money and access another's, in both modes. */
export async function moveBook(db: Transaction, from: MemberId, to: MemberId): Promise<void> {
  for (const table of [
    'subscriptions',
    'purchases',
    'holdings',
    'credits',
    'checkouts',
    'held_passes',
    'code_uses',
    'outside_orders',
  ])
    await run(db, `UPDATE ${table} SET member_id = $2 WHERE member_id = $1`, [from, to]);
}

/** Replaces the summaries of two books by those of one. Quotes that either member was shown are void. */
export async function saveMergedSummaries(
  db: Transaction,
  { from, to, mode }: { from: MemberId; to: MemberId; mode: Mode },
  summaries: Summary[],
): Promise<void> {
  const both = [from, to];
  await run(db, 'DELETE FROM book_summaries WHERE member_id = ANY ($1) AND mode = $2', [both, mode]);
  for (const { track, hadTrial, joinedAt, hasSwitchedUp } of summaries)
    await run(
      db,
      'INSERT INTO book_summaries (member_id, mode, track, had_trial, joined_at, has_switched_up) VALUES ($1, $2, $3, $4, $5, $6)',
      [to, mode, track, hadTrial, joinedAt, hasSwitchedUp],
    );
  await run(db, 'DELETE FROM switch_quotes WHERE member_id = ANY ($1)', [both]);
  await run(db, 'UPDATE books SET version = version + 1 WHERE member_id = ANY ($1) AND mode = $2', [
    both,
    mode,
  ]);
}
