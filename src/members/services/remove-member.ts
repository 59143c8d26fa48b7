import { lockMember } from '@/people/store/members';
import { uuid } from '@/platform/inputs';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transactionUnlessRefused } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { eraseMember } from './lib/erase-member';

/** Removes a member: what they hold ends now, and who they were is forgotten. What the books must keep stays. */
export const removeMember = staffUse('manage members')(
  'remove-member',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    const site = await currentSite();
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      const member = await lockMember(db, id);
      if (!member) return missing();
      if (member.deletedAt) return done(null);
      if (member.staffRole) return refusedField('', 'remove.staff');
      return eraseMember(db, site, actor, member);
    });
  },
);
