import { z } from 'zod';
import { addLength } from '@/core/calendar';
import { toMs } from '@/core/instants';
import { transaction } from '@/platform/store/db';
import { addToClock, findSite } from '@/platform/store/site';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const daysSchema = z.coerce
  .number({ error: say('number.days') })
  .int(say('number.whole-days'))
  .min(1, say('clock.backwards'))
  .max(400, say('clock.too-far'));

/** Moves the rehearsal clock forward by local days. The worker does everything that falls due on the way. */
export const moveClock = staffUse('move the clock')(
  'move-clock',
  z.object({ days: daysSchema }),
  async (actor, { days }): Promise<Result<{ days: number }>> => {
    return transaction(async (db) => {
      const site = await findSite(db);
      if (site?.mode !== 'test') return refusedField('', 'clock.test-only');
      const from = siteNow(site);
      const ahead = toMs(addLength(from, { n: days, unit: 'day' }, site.zone)) - toMs(from);
      await addToClock(db, ahead, from);
      await record(db, actor, from, 'clock moved', 'site', { days });
      return done({ days });
    });
  },
);
