import { z } from 'zod';
import { siteNow } from '@/platform/clock';
import { passwordAgain } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transactionUnlessRefused } from '@/platform/store/db';
import { setAsksStaffProof } from '@/platform/store/site';
import { hashToken } from '@/platform/tokens';
import { staffUse } from '@/platform/use';
import { isProvenSession } from '@/people/store/sessions';
import { confirmStaff } from '@/people/services/lib/confirm-password';

/**
 * Whether staff need a second proof besides a password: a one-time code or a passkey. Sessions without one count as those of
 * members. An owner can only require it from a session that has shown one, so that they cannot lock themselves out.
 */
export const setStaffProof = staffUse('set up the site')(
  'set-staff-proof',
  z.object({ asks: z.boolean(), password: passwordAgain }),
  async (actor, { asks, password }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      const session = actor.browser?.session;
      if (asks && !(session && (await isProvenSession(db, hashToken(session)))))
        return refusedField('', 'proof.own-first');
      await setAsksStaffProof(db, asks);
      const site = await currentSite(db);
      await record(db, actor, siteNow(site), 'staff sign-in changed', 'site', { asksForMore: asks });
      return done(null);
    });
  },
);
