import { z } from 'zod';
import { pool, transaction } from '@/platform/store/db';
import { forgetCheckouts } from '@/billing/store/checkouts';
import { forgetMails } from '@/mail/store/mails';
import { deleteNotesOn } from '@/members/store/member-notes';
import { findMember, forgetMember } from '@/people/store/members';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { NotAllowed } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { happen, openBook } from '@/billing/services/lib/open-book';
import { refusalSentence } from '@/core/billing/refusal-words';
import { passwordMatches } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { waitWords } from '@/people/services/lib/wait-words';
import { currentSite } from '@/platform/site';
import { memberUse } from '@/platform/use';

const TRIES: Limit = { name: 'account:delete', points: 10, seconds: 15 * 60 };
const inputSchema = z.object({
  password: z.string().max(1000).default(''),
  isSure: z.literal(true, { error: 'Tick this to say that you are sure.' }),
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
    if (!member) throw new NotAllowed('Sign in first.');
    if (!site.mayDeleteAccount)
      throw new NotAllowed('Accounts are deleted by the people who run this site. Write to them.');
    if (member.staffRole) throw new NotAllowed('You are staff here. The owner takes that back first.');
    const wait = await spendPoint(TRIES, member.id);
    if (wait > 0) return refusedField('password', `Too many tries. Wait ${waitWords(wait)}, then try again.`);
    if (member.passwordHash && !(await passwordMatches(member.passwordHash, password)))
      return refusedField('password', 'This is not your password. Nothing was deleted.');
    return transaction(async (db): Promise<Result<null>> => {
      for (const mode of ['test', 'live'] as const) {
        const open = await openBook(db, site, actor, { memberId: member.id, mode });
        const happened = await happen(open, { do: 'erase' });
        if (!happened.ok) return refusedField('', `${refusalSentence(happened.why)} Nothing was deleted.`);
      }
      const at = siteNow(site);
      await record(db, actor, at, 'account deleted', `member:${member.id}`);
      await forgetMember(db, member.id, member.email, at);
      await deleteNotesOn(db, member.id);
      await forgetMails(db, member.id, member.email);
      await forgetCheckouts(db, member.id, member.email);
      return done(null);
    });
  },
);
