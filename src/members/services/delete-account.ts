import { z } from 'zod';
import { pool, transaction } from '@/platform/store/db';
import { forgetCheckouts } from '@/billing/store/checkouts';
import { deleteReadsOf } from '@/access/store/meters';
import { deletePassesOf } from '@/billing/store/held-passes';
import { deleteComments } from '@/content/store/comments';
import { forgetMails } from '@/mail/store/mails';
import { deleteNotesOn } from '@/members/store/member-notes';
import { findMember, forgetMember } from '@/people/store/members';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { NotAllowed } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { happen, openBook } from '@/billing/services/lib/open-book';
import { problem, refusal } from '@/words/problems';
import { passwordMatches } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { currentSite } from '@/platform/site';
import { memberUse } from '@/platform/use';
import { say } from '@/words/problems';

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
    return transaction(async (db): Promise<Result<null>> => {
      for (const mode of ['test', 'live'] as const) {
        const open = await openBook(db, site, actor, { memberId: member.id, mode });
        const happened = await happen(open, { do: 'erase' });
        if (!happened.ok) return refusedField('', 'account.not-deleted', { why: refusal(happened.why) });
      }
      const at = siteNow(site);
      await record(db, actor, at, 'account deleted', `member:${member.id}`);
      await forgetMember(db, member.id, member.email, at);
      await deleteNotesOn(db, member.id);
      await deleteReadsOf(db, member.id);
      await deletePassesOf(db, member.id);
      await deleteComments(db, { memberId: member.id });
      await forgetMails(db, member.id, member.email);
      await forgetCheckouts(db, member.id, member.email);
      return done(null);
    });
  },
);
