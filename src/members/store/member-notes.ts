import type { Instant } from '@/core/instants';
import { many, prepared, run, type Db } from '@/platform/store/db';
import type { MemberId } from '@/core/ids';

/** What staff wrote about a member: for themselves, or for the member to read. */
export type MemberNote = {
  id: string;
  memberId: MemberId;
  staffName: string | null;
  words: string;
  isShown: boolean;
  /** The site's clock. */
  at: Instant;
};

const LIST_NOTES = prepared(
  'list-notes',
  `SELECT n.id, n.member_id, s.name AS staff_name, n.words, n.is_shown, n.at FROM member_notes n LEFT JOIN members s ON s.id = n.staff_id
   WHERE n.member_id = $1 AND (n.is_shown OR NOT $2) ORDER BY n.at DESC, n.created_at DESC`,
);

/** Notes about a member, newest first; with `onlyShown` those that the member reads. */
export async function listNotes(db: Db, memberId: MemberId, onlyShown: boolean): Promise<MemberNote[]> {
  return many(db, LIST_NOTES, [memberId, onlyShown]);
}

export async function insertNote(
  db: Db,
  n: { memberId: MemberId; staffId: MemberId | null; words: string; isShown: boolean; at: Instant },
): Promise<void> {
  await run(
    db,
    'INSERT INTO member_notes (member_id, staff_id, words, is_shown, at) VALUES ($1, $2, $3, $4, $5)',
    [n.memberId, n.staffId, n.words, n.isShown, n.at],
  );
}

/** False where it no longer exists. */
export async function deleteNote(db: Db, id: string, memberId: MemberId): Promise<boolean> {
  return (await run(db, 'DELETE FROM member_notes WHERE id = $1 AND member_id = $2', [id, memberId])) === 1;
}

export async function deleteNotesOn(db: Db, memberId: MemberId): Promise<void> {
  await run(db, 'DELETE FROM member_notes WHERE member_id = $1', [memberId]);
}

export async function moveNotes(db: Db, from: MemberId, to: MemberId): Promise<void> {
  await run(db, 'UPDATE member_notes SET member_id = $2 WHERE member_id = $1', [from, to]);
}
