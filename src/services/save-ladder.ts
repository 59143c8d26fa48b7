import { z } from 'zod';
import { lock, transaction } from '@/store/db';
import { arrangeTiers as store, listLadders, listTiers, saveLadder as storeLadder } from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

const ladderSchema = z.object({
  id: z.string(),
  name: z.string().trim().min(1, 'Name the ladder.').max(60, 'A name has at most 60 characters.'),
  creditUnused: z.boolean(),
  waitDays: z.coerce
    .number('Type a number of days.')
    .int('Whole days only.')
    .min(0)
    .max(366, 'At most 366 days.'),
  downAtOnce: z.boolean(),
});

/** Changes how a ladder is named and how its tiers are switched between. */
export async function saveLadder(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'set tiers');
  const parsed = ladderSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    await lock(db, 'tiers');
    const ladders = await listLadders(db);
    const known = ladders.find((ladder) => ladder.id === parsed.data.id);
    if (!known) return refusedField('', 'This ladder is not there any more.');
    if (ladders.some((l) => l.id !== known.id && l.name.toLowerCase() === parsed.data.name.toLowerCase()))
      return refusedField('name', 'Another ladder has this name.');
    await storeLadder(db, { ...known, ...parsed.data });
    await record(db, actor, at, 'ladder changed', `ladder:${known.id}`, { name: parsed.data.name });
    return done(null);
  });
}

const orderSchema = z.object({ ladderId: z.string().nullable(), tierIds: z.array(z.string()).max(500) });

/** Puts the tiers of a ladder, or those on none, into order: highest, or first, on top. */
export async function arrangeTiers(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'set tiers');
  const parsed = orderSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { ladderId, tierIds } = parsed.data;
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    await lock(db, 'tiers');
    const there = (await listTiers(db)).filter((tier) => tier.ladderId === ladderId).map((tier) => tier.id);
    const isSame = there.length === tierIds.length && there.every((id) => tierIds.includes(id));
    if (!isSame)
      return refusedField('', 'These tiers have changed in the meantime. Load the page again, then drag.');
    // Rungs count from below; the page shows the highest on top.
    await store(db, ladderId, ladderId === null ? tierIds : [...tierIds].reverse());
    await record(db, actor, at, 'tiers arranged', ladderId ? `ladder:${ladderId}` : 'site', { tierIds });
    return done(null);
  });
}
