import { z } from 'zod';
import { parseAmount } from '@/core/money';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result, refusedWith } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { setStaffSettings } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const MOST_HOURS = 720;
const inputSchema = z.object({
  /** Hours without a page, after which a session of staff ends. */
  idleHours: z.coerce
    .number({ error: say('number.hours') })
    .int(say('number.whole-hours'))
    .min(1, say('staff.one-hour'))
    .max(MOST_HOURS, say('staff.too-long-idle')),
  /** As people type it: "50" or "50.00". */
  refundAsksAbove: z.string().trim().min(1, say('staff.no-amount')),
});

/** How long the Desk stays open on a screen that nobody uses, and above what amount a refund asks for the password. */
export const saveStaffSettings = staffUse('set up the site')(
  'save-staff-settings',
  inputSchema,
  async (actor, { idleHours, refundAsksAbove: typed }): Promise<Result<null>> => {
    const site = await currentSite();
    const amount = parseAmount(typed, site.currency, site.language);
    if (!amount.ok) return refusedWith(amount.problem, 'refundAsksAbove');
    return transaction(async (db) => {
      await setStaffSettings(db, idleHours * 60, amount.amount);
      await record(db, actor, siteNow(site), 'staff settings changed', 'site', {
        idleHours,
        refundAsksAbove: amount.amount,
      });
      return done(null);
    });
  },
);
