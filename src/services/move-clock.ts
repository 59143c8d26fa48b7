import { z } from 'zod';
import { addLength, toMs } from '@/core/calendar';
import { pool, transaction } from '@/store/db';
import { addToClock, findSite } from '@/store/site';
import { countDue } from '@/store/subscription-work';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';

const daysSchema = z.coerce
  .number({ error: 'Type a number of days.' })
  .int('Whole days only.')
  .min(1, 'The rehearsal clock only goes forward.')
  .max(400, 'At most 400 days at once.');

/** Moves the rehearsal clock forward by local days. The worker does everything that falls due on the way. */
export async function moveClock(actor: Actor, days: unknown): Promise<Result<{ days: number }>> {
  requireRight(actor, 'move the clock');
  const parsed = daysSchema.safeParse(days);
  if (!parsed.success)
    return refusedField('days', parsed.error.issues[0]?.message ?? 'Type a number of days.');
  return transaction(async (db) => {
    const site = await findSite(db);
    if (site?.mode !== 'test') return refusedField('', 'The clock can be moved in test mode only.');
    const from = siteNow(site);
    const ahead = toMs(addLength(from, { n: parsed.data, unit: 'day' }, site.zone)) - toMs(from);
    await addToClock(db, ahead);
    await record(db, actor, from, 'clock moved', 'site', { days: parsed.data });
    return done({ days: parsed.data });
  });
}

/** How much the rehearsal clock has passed that the worker has not done yet. */
export async function workBehindClock(): Promise<number> {
  const site = await currentSite();
  return site.mode === 'test' ? countDue(pool(), siteNow(site)) : 0;
}
