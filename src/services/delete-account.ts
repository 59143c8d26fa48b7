import { z } from 'zod';
import { pool, transaction } from '@/platform/store/db';
import { findMember, forgetMember } from '@/store/members';
import { findOpenPayment } from '@/store/payments';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { listSubscriptionsOf, lockSubscription } from '@/store/subscriptions';
import { NotAllowed } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { happen } from '@/services/lib/happen';
import { passwordMatches } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { waitWords } from './lib/wait-words';
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
    return transaction(async (db) => {
      for (const mode of ['test', 'live'] as const)
        for (const { id } of await listSubscriptionsOf(db, member.id, mode)) {
          const subscription = await lockSubscription(db, id);
          const open = await findOpenPayment(db, id);
          if (open && !open.isAwaited)
            return refusedField('', 'A payment is under way. Try again in a minute; nothing was deleted.');
          if (!subscription) continue;
          await happen(db, site, actor, subscription, { type: 'end-now' }, siteNow(site, mode));
        }
      const at = siteNow(site);
      await record(db, actor, at, 'account deleted', `member:${member.id}`);
      await forgetMember(db, member.id, member.email, at);
      return done(null);
    });
  },
);
