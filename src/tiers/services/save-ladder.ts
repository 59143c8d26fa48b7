import { z } from 'zod';
import { lock, transaction } from '@/platform/store/db';
import {
  arrangeTiers as store,
  listLadders,
  listTiers,
  saveLadder as storeLadder,
} from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const ladderSchema = z.object({
  id: z.string(),
  name: z.string().trim().min(1, say('ladder.no-name')).max(60),
  creditUnused: z.boolean(),
  waitDays: z.coerce
    .number(say('number.days'))
    .int(say('number.whole-days'))
    .min(0)
    .max(366, say('days.too-many')),
  downAtOnce: z.boolean(),
});

/** Changes how a ladder is named and how its tiers are switched between. */
export const saveLadder = staffUse('set tiers')(
  'save-ladder',
  ladderSchema,
  async (actor, input): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'tiers');
      const ladders = await listLadders(db);
      const known = ladders.find((ladder) => ladder.id === input.id);
      if (!known) return refusedField('', 'ladder.gone');
      if (ladders.some((l) => l.id !== known.id && l.name.toLowerCase() === input.name.toLowerCase()))
        return refusedField('name', 'ladder.taken');
      await storeLadder(db, { ...known, ...input });
      await record(db, actor, at, 'ladder changed', `ladder:${known.id}`, { name: input.name });
      return done(null);
    });
  },
);

const orderSchema = z.object({ ladderId: z.string().nullable(), tierIds: z.array(z.string()).max(500) });

/** Puts the tiers of a ladder, or those on none, into order: highest, or first, on top. */
export const arrangeTiers = staffUse('set tiers')(
  'arrange-tiers',
  orderSchema,
  async (actor, input): Promise<Result<null>> => {
    const { ladderId, tierIds } = input;
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'tiers');
      const there = (await listTiers(db)).filter((tier) => tier.ladderId === ladderId).map((tier) => tier.id);
      const isSame = there.length === tierIds.length && there.every((id) => tierIds.includes(id));
      if (!isSame) return refusedField('', 'ladder.changed');
      // Rungs count from below; the page shows the highest on top.
      await store(db, ladderId, ladderId === null ? tierIds : [...tierIds].reverse());
      await record(db, actor, at, 'tiers arranged', ladderId ? `ladder:${ladderId}` : 'site', { tierIds });
      return done(null);
    });
  },
);
