import { z } from 'zod';
import { STAFF_MAILS } from '@/core/staff-mails';
import { findStaffMails, setStaffMails } from '@/people/store/staff-mails';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

/** What the caller, who is staff, is mailed about. */
export const myStaffMails = staffUse('look')('my-staff-mails', nothing, async ({ memberId }) =>
  done(memberId ? await findStaffMails(pool(), memberId) : []),
);

const inputSchema = z.object({ kinds: z.array(z.enum(STAFF_MAILS)).max(STAFF_MAILS.length) });

export const saveMyStaffMails = staffUse('look')(
  'save-my-staff-mails',
  inputSchema,
  async (actor, { kinds }): Promise<Result<null>> => {
    const { memberId } = actor;
    if (!memberId) return refusedField('', 'staff.not-signed-in');
    const site = await currentSite();
    return transaction(async (db) => {
      await setStaffMails(db, memberId, [...new Set(kinds)]);
      await record(db, actor, siteNow(site), 'staff mails chosen', `member:${memberId}`, { kinds });
      return done(null);
    });
  },
);
