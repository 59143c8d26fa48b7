import { z } from 'zod';
import { pool, transaction } from '@/store/db';
import { deleteNote, insertNote, listNotes, type MemberNote } from '@/store/member-notes';
import { findMember } from '@/store/members';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

const inputSchema = z.object({
  memberId: z.uuid(),
  words: z.string().trim().min(1, 'Write the note.').max(2_000, 'At most 2,000 characters.'),
  isShown: z.boolean(),
});

/** Staff leave a note at a member: for staff alone, or for the member to read in their account. */
export async function addNote(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'manage members');
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    const { memberId, isShown } = parsed.data;
    if (!(await findMember(db, memberId))) return refusedField('', 'This member is not there any more.');
    await insertNote(db, { ...parsed.data, staffId: actor.memberId, at });
    await record(db, actor, at, isShown ? 'note left for the member' : 'note written', `member:${memberId}`);
    return done(null);
  });
}

export async function removeNote(actor: Actor, memberId: string, id: string): Promise<Result<null>> {
  requireRight(actor, 'manage members');
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    const isThere = z.uuid().safeParse(id).success && (await deleteNote(db, id, memberId));
    if (!isThere) return refusedField('', 'This note is not there any more.');
    await record(db, actor, at, 'note taken away', `member:${memberId}`);
    return done(null);
  });
}

/** What a member reads: the notes that were left for them. */
export const notesFor = (memberId: string): Promise<MemberNote[]> => listNotes(pool(), memberId, true);
