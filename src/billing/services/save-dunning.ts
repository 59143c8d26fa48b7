import { z } from 'zod';
import { transaction } from '@/platform/store/db';
import { setDunning } from '@/platform/store/site';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { issueOf, say } from '@/words/problems';

const MOST = 90;
const inputSchema = z.object({
  /** As people type them: "1, 3, 5, 7". */
  retryDays: z.string().transform((typed, context) => {
    const days = typed
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map(Number);
    const isRising = days.every((day, index) => day > (days[index - 1] ?? 0));
    if (
      days.length > 0 &&
      days.length <= 10 &&
      days.every((day) => Number.isInteger(day) && day <= MOST) &&
      isRising
    )
      return days;
    context.addIssue(issueOf('retry-days.unreadable', { most: MOST }));
    return z.NEVER;
  }),
  graceDays: z.coerce
    .number(say('days.missing'))
    .int(say('number.whole-days'))
    .min(0, say('days.below-zero'))
    .max(MOST, say('days.too-many')),
});

/** When a refused charge is tried again, and how long access is kept meanwhile. Counts for failures from now on. */
export const saveDunning = staffUse('change settings')(
  'save-dunning',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const { retryDays, graceDays } = input;
    const site = await currentSite();
    return transaction(async (db) => {
      await setDunning(db, retryDays, graceDays);
      await record(db, actor, siteNow(site), 'dunning changed', 'site', { retryDays, graceDays });
      return done(null);
    });
  },
);
