import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import { many, one, run, type Db } from '@/platform/store/db';

/** Notes, where the owner has it counted, that a member opened a letter, or read on from it; the first time of each counts. Real time. */
export async function noteLetterOpened(
  db: Db,
  letterId: string,
  memberId: string,
  isRead: boolean,
): Promise<void> {
  await run(
    db,
    `INSERT INTO letter_opens (letter_id, member_id, opened_at, read_at)
     SELECT l.id, m.id, now(), CASE WHEN $3 THEN now() END FROM letters l, members m, site WHERE l.id = $1 AND m.id = $2 AND site.counts_opens
     ON CONFLICT (letter_id, member_id) DO UPDATE SET read_at = coalesce(letter_opens.read_at, excluded.read_at) WHERE $3`,
    [letterId, memberId, isRead],
  );
}

export async function countOpens(db: Db, letterId: string): Promise<{ opened: number; read: number }> {
  const { opened, read } = await one<{ opened: bigint; read: bigint }>(
    db,
    'SELECT count(*) AS opened, count(read_at) AS read FROM letter_opens WHERE letter_id = $1',
    [letterId],
  );
  return { opened: Number(opened), read: Number(read) };
}

export type LetterOpened = { letterId: string; subject: string; openedAt: Instant; readAt: Instant | null };

/** The letters that a member opened, the last first. */
export async function listOpensOf(db: Db, memberId: MemberId, limit: number): Promise<LetterOpened[]> {
  return many(
    db,
    `SELECT o.letter_id, coalesce(i.title, l.subject) AS subject, o.opened_at, o.read_at FROM letter_opens o
     JOIN letters l ON l.id = o.letter_id LEFT JOIN items i ON i.id = l.item_id WHERE o.member_id = $1 ORDER BY o.opened_at DESC LIMIT $2`,
    [memberId, limit],
  );
}

/** Forgets who opened what: all of it, or what one member did. */
export async function deleteOpens(db: Db, memberId: MemberId | null): Promise<number> {
  return run(db, 'DELETE FROM letter_opens WHERE $1::uuid IS NULL OR member_id = $1', [memberId]);
}
