import { z } from 'zod';
import { slugify } from '@/core/content/slug';
import { whoSchema } from '@/core/access/rule-schema';
import { addLength } from '@/core/calendar';
import {
  countEnds,
  deleteMeter as remove,
  findMeter,
  listMeters,
  saveMeter as store,
} from '@/access/store/meters';
import { listRules } from '@/access/store/rules';
import { listGroups } from '@/people/store/groups';
import { siteNow } from '@/platform/clock';
import { idIfKnown } from '@/platform/form-fields';
import { freeId } from '@/platform/free-id';
import { nothing, slug } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { keptTiers } from '@/tiers/services/lib/kept';
import { say } from '@/words/problems';
import { namesIn } from './lib/rule-names';

export type { StoredMeter } from '@/access/store/meters';

/** A new one is made at this address. */
const NOT_METERS = ['new'];

/** Over how many days the people are counted who met the end of a meter. */
const COUNTED_DAYS = 30;

/** All meters: the rules that use each, how many people met its end lately, and how many of those joined. */
export const metersPlace = staffUse('look')('meters-place', nothing, async (actor) => {
  const [site, meters, rules] = [await currentSite(), await listMeters(pool()), await listRules(pool())];
  const since = addLength(siteNow(site), { n: -COUNTED_DAYS, unit: 'day' }, site.zone);
  const ends = await countEnds(pool(), site.mode, since);
  const openTo = meters.flatMap(({ allowances }) => allowances.map(({ who }) => ({ who })));
  return done({
    days: COUNTED_DAYS,
    meters: meters.map((meter) => ({
      ...meter,
      ...(ends.get(meter.id) ?? { met: 0, joined: 0 }),
      rules: rules.filter((rule) => rule.meter === meter.id).map(({ id, name }) => ({ id, name })),
    })),
    names: await namesIn(actor, [{ covers: [], openTo }]),
  });
});

/** A meter with all that its editor shows; "new" for one that is about to be made. */
export const meterEditor = staffUse('set access')('meter-editor', slug, async (_, id) => {
  const meter = id === 'new' ? null : await findMeter(pool(), id);
  if (meter === undefined) return missing();
  return done({
    meter,
    tiers: (await keptTiers()).map(({ id: tier, name }) => ({ id: tier, name })),
    groups: await listGroups(pool()),
  });
});

const whole = z.number(say('meter.no-number')).int(say('meter.no-number'));
const meterSchema = z
  .object({
    id: idIfKnown,
    name: z.string().trim().min(1, say('meter.no-name')).max(60),
    window: z.enum(['rolling', 'calendar-month']),
    days: whole.min(1, say('meter.no-number')).max(366, say('meter.too-long')).optional(),
    allowances: z
      .array(z.object({ who: whoSchema, reads: whole.min(0, say('meter.no-number')).max(1000) }))
      .min(1, say('meter.for-none'))
      .max(50),
    version: z.number().int().optional(),
  })
  .refine(({ window, days }) => window !== 'rolling' || days !== undefined, {
    message: say('meter.no-number'),
    path: ['days'],
  });

/** Makes a meter of free reads, or changes one. What was counted by it stays counted. */
export const saveMeter = staffUse('set access')(
  'save-meter',
  meterSchema,
  async (actor, { id: asked, days, version = 0, ...input }): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      const before = asked ? await findMeter(db, asked) : undefined;
      // One that was opened is gone by now; one that comes in has an id of its own, and no version.
      if (asked && !before && version > 0) return refusedField('', 'meter.gone');
      const ids = new Set((await listMeters(db)).map(({ id }) => id));
      const id = before?.id ?? freeId(asked || slugify(input.name), new Set([...NOT_METERS, ...ids]));
      const meter = { ...input, id, version, ...(input.window === 'rolling' && { days }) };
      if (!(await store(db, meter))) return refusedField('', 'meter.changed-elsewhere');
      await record(db, actor, at, before ? 'meter changed' : 'meter made', `meter:${id}`, {
        before: before ?? null,
        after: input,
      });
      return done({ id });
    });
  },
);

/** Deletes a meter, with what it counted; refused while a rule uses it. */
export const deleteMeter = staffUse('set access')(
  'delete-meter',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      const used = (await listRules(db)).find(({ meter }) => meter === id);
      if (used) return refusedField('', 'meter.in-rule', { rule: used.name });
      const before = await findMeter(db, id);
      if (!before || !(await remove(db, id))) return refusedField('', 'meter.gone');
      await record(db, actor, at, 'meter deleted', `meter:${id}`, { before });
      return done(null);
    });
  },
);
