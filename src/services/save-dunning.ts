import { z } from 'zod';
import { transaction } from '@/store/db';
import { setDunning } from '@/store/site';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, type Result } from './result';
import { currentSite } from './site';

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
    context.addIssue({
      code: 'custom',
      message: `Up to ten whole numbers of days, each above the one before and at most ${MOST}, like 1, 3, 5, 7.`,
    });
    return z.NEVER;
  }),
  graceDays: z.coerce
    .number('Type a whole number of days.')
    .int('Whole days only.')
    .min(0, 'Not below zero.')
    .max(MOST, `At most ${MOST} days.`),
});

/** When a refused charge is tried again, and how long access is kept meanwhile. Counts for failures from now on. */
export async function saveDunning(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'set up the site');
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { retryDays, graceDays } = parsed.data;
  const site = await currentSite();
  return transaction(async (db) => {
    await setDunning(db, retryDays, graceDays);
    await record(db, actor, siteNow(site), 'dunning changed', 'site', { retryDays, graceDays });
    return done(null);
  });
}
