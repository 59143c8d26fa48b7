import { z } from 'zod';
import { insertMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { emailAddress, personName } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { isConflict, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

/** Adds a member by hand. They have no password: they sign in by a code or a link that is mailed to them. */
export const addMember = staffUse('manage members')(
  'add-member',
  z.object({ email: emailAddress, name: personName }),
  async (actor, { email, name }): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    try {
      return await transaction(async (db) => {
        const { id } = await insertMember(db, {
          email,
          name,
          passwordHash: null,
          staffRole: null,
          joinedAt: at,
          emailConfirmedAt: null,
        });
        await record(db, actor, at, 'added by staff', `member:${id}`);
        return done({ id });
      });
    } catch (error) {
      if (isConflict(error)) return refusedField('email', 'member.there');
      throw error;
    }
  },
);
