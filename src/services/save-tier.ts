import { z } from 'zod';
import { slugify } from '@/core/content/slug';
import { chooseKeyCut } from '@/core/key-cut';
import { lock, transaction } from '@/store/db';
import { findTier, insertLadder, listLadders, listTiers, saveTier as store } from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

export const tierInputSchema = z.object({
  /** Left out for a new tier; demo and imports may name it. */
  id: z
    .string()
    .regex(/^[a-z0-9-]+$/)
    .optional(),
  isNew: z.boolean().default(true),
  name: z.string().trim().min(1, 'Name the tier.').max(60, 'A name has at most 60 characters.'),
  description: z.string().trim().max(600, 'At most 600 characters.').default(''),
  /** '' for a tier on its own; else the ladder's id, or a new ladder's name. */
  ladder: z.string().trim().max(60).default(''),
  onJoinPage: z.boolean().default(true),
});

/** Makes a tier with a key-cut that no other has, or changes one. */
export async function saveTier(
  actor: Actor,
  raw: z.input<typeof tierInputSchema>,
): Promise<Result<{ id: string }>> {
  requireRight(actor, 'set tiers');
  const parsed = tierInputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const input = parsed.data;
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    await lock(db, 'tiers');
    const tiers = await listTiers(db);
    const known = input.id ? await findTier(db, input.id) : undefined;
    if (!input.isNew && !known) return refusedField('', 'This tier is not there any more.');
    const twin = tiers.find(
      (tier) => tier.name.toLowerCase() === input.name.toLowerCase() && tier.id !== known?.id,
    );
    if (twin)
      return refusedField(
        'name',
        `There is a tier called “${twin.name}” already. Give this one another name.`,
      );

    const ladderId = input.ladder ? await ensureLadder(db, input.ladder) : null;
    const rungs = tiers
      .filter((tier) => tier.ladderId === ladderId && tier.rung !== null)
      .map((tier) => tier.rung ?? 0);
    const rung =
      ladderId === null ? null : known?.ladderId === ladderId ? known.rung : Math.max(0, ...rungs) + 1;
    const id = known?.id ?? freeId(input.id ?? slugify(input.name), new Set(tiers.map((tier) => tier.id)));
    await store(db, {
      id,
      name: input.name,
      description: input.description,
      ladderId,
      rung,
      onJoinPage: input.onJoinPage,
      keyCut: known?.keyCut ?? chooseKeyCut(tiers.map((tier) => tier.keyCut)),
      position: known?.position ?? tiers.length,
    });
    await record(db, actor, at, known ? 'tier changed' : 'tier made', `tier:${id}`, { name: input.name });
    return done({ id });
  });
}

async function ensureLadder(db: Parameters<typeof listLadders>[0], idOrName: string): Promise<string> {
  const ladders = await listLadders(db);
  const known = ladders.find(
    (ladder) => ladder.id === idOrName || ladder.name.toLowerCase() === idOrName.toLowerCase(),
  );
  if (known) return known.id;
  const id = freeId(slugify(idOrName), new Set(ladders.map((ladder) => ladder.id)));
  await insertLadder(db, { id, name: idOrName });
  return id;
}

/** The wanted id, or the first with a number behind it that is free. */
export function freeId(wanted: string, taken: Set<string>): string {
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${wanted}-${n}`)) return `${wanted}-${n}`;
}
