import { z } from 'zod';
import { transaction } from '@/platform/store/db';
import { deleteNote, insertNote } from '@/members/store/member-notes';
import { findMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const inputSchema = z.object({
  memberId: z.uuid(),
  words: z.string().trim().min(1, say('note.missing')).max(2_000),
  isShown: z.boolean(),
});

/** Staff leave a note at a member: for staff alone, or for the member to read in their account. */
export const addNote = staffUse('manage members')(
  'add-note',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const { memberId, isShown } = input;
      if (!(await findMember(db, memberId))) return refusedField('', 'member.gone');
      await insertNote(db, { ...input, staffId: actor.memberId, at });
      await record(
        db,
        actor,
        at,
        isShown ? 'note left for the member' : 'note written',
        `member:${memberId}`,
      );
      return done(null);
    });
  },
);

const removeSchema = z.object({ memberId: z.uuid(), id: z.uuid() });

export const removeNote = staffUse('manage members')(
  'remove-note',
  removeSchema,
  async (actor, { memberId, id }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const isThere = await deleteNote(db, id, memberId);
      if (!isThere) return refusedField('', 'note.gone');
      await record(db, actor, at, 'note taken away', `member:${memberId}`);
      return done(null);
    });
  },
);
