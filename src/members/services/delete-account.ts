import { z } from 'zod';
import { pool, transactionUnlessRefused } from '@/platform/store/db';
import { findMember } from '@/people/store/members';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { NotAllowed } from '@/platform/actor';
import { problem } from '@/words/problems';
import { passwordMatches } from '@/platform/passwords';
import { refusedField, type Result } from '@/platform/result';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { currentSite } from '@/platform/site';
import { memberUse } from '@/platform/use';
import { say } from '@/words/problems';
import { eraseMember } from './lib/erase-member';

const TRIES: Limit = { name: 'account:delete', points: 10, seconds: 15 * 60 };
const inputSchema = z.object({
  password: z.string().max(1000).default(''),
  isSure: z.literal(true, { error: say('account.confirm-delete') }),
});

/**
 * Deletes a member's account: what they hold ends now, and who they were is forgotten. What the books must keep
 * (charges, payments, refunds) stays, without a name.
 */
export const deleteAccount = memberUse(
  'delete-account',
  inputSchema,
  async (actor, { password }): Promise<Result<null>> => {
    const site = await currentSite();
    const member = await findMember(pool(), actor.memberId);
    if (!member) throw new NotAllowed(problem('staff.not-signed-in'));
    if (!site.mayDeleteAccount) throw new NotAllowed(problem('account.by-staff'));
    if (member.staffRole) throw new NotAllowed(problem('account.of-staff'));
    const wait = await spendPoint(TRIES, member.id);
    if (wait > 0) return refusedField('password', 'tries.too-many', { minutes: waitMinutes(wait) });
    if (member.passwordHash && !(await passwordMatches(member.passwordHash, password)))
      return refusedField('password', 'account.wrong-password');
    return transactionUnlessRefused((db) => eraseMember(db, site, actor, member));
  },
);
