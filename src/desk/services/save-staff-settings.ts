import { z } from 'zod';
import { parseAmount } from '@/core/money';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refused, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { setStaffSettings } from '@/platform/store/site';
import { staffUse } from '@/platform/use';

const MOST_HOURS = 720;
const inputSchema = z.object({
  /** Hours without a page, after which a session of staff ends. */
  idleHours: z.coerce
    .number({ error: 'Enter a number of hours.' })
    .int('Whole hours only.')
    .min(1, 'One hour at least.')
    .max(MOST_HOURS, `At most ${MOST_HOURS} hours, which is 30 days.`),
  /** As people type it: "50" or "50.00". */
  refundAsksAbove: z.string().trim().min(1, 'Enter an amount. 0 asks every time.'),
});

/** How long the Desk stays open on a screen that nobody uses, and above what amount a refund asks for the password. */
export const saveStaffSettings = staffUse('set up the site')(
  'save-staff-settings',
  inputSchema,
  async (actor, { idleHours, refundAsksAbove: typed }): Promise<Result<null>> => {
    const site = await currentSite();
    const amount = parseAmount(typed, site.currency);
    if (!amount.ok) return refused({ refundAsksAbove: amount.reason });
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
