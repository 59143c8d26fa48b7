import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { documentSchema, EMPTY_DOCUMENT, fromText } from '@/core/content/document';
import { slugify } from '@/core/content/slug';
import { chooseKeyCut, keyCutSchema } from '@/core/key-cut';
import { isConflict, lock, transaction, type Transaction } from '@/store/db';
import { deleteUnusedPictures } from '@/store/pictures';
import {
  deleteEmptyLadders,
  findTier,
  listLadders,
  listTiers,
  saveLadder,
  saveTier as store,
  type Tier,
} from '@/store/tiers';
import { countDoubleHolders, moveToTrack } from '@/store/tracks';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { optionalCount, optionalDate } from './form-fields';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

/** Rich text, or, from an import, a plain paragraph. */
const words = z
  .union([documentSchema, z.string().trim().max(2_000, 'At most 2,000 characters.').transform(fromText)])
  .default(EMPTY_DOCUMENT);

export const tierInputSchema = z
  .object({
    /** Left out for a new tier; demo and imports may name it. */
    id: z
      .string()
      .regex(/^[a-z0-9-]+$/)
      .optional(),
    isNew: z.boolean().default(true),
    /** The version that was opened, where an existing tier is changed. */
    version: z.number().int().optional(),
    name: z.string().trim().min(1, 'Name the tier.').max(60, 'A name has at most 60 characters.'),
    description: words,
    /** '' for a tier on its own; else the ladder's id, or a new ladder's name. */
    ladder: z.string().trim().max(60).default(''),
    /** Left out, it is chosen. */
    keyCut: keyCutSchema.optional(),
    reference: z.string().trim().max(60, 'A reference has at most 60 characters.').default(''),
    /** Left out, it stays; null takes it away. */
    pictureId: z.uuid().nullable().optional(),
    joinWords: words,
    welcomeWords: words,
    welcomeShown: z.array(z.enum(['page', 'mail', 'account'])).default(['page', 'mail', 'account']),
    welcomePath: z
      .string()
      .trim()
      .max(200)
      .refine((path) => path === '' || /^\/(?!\/)/.test(path), 'An address on this site begins with /.')
      .default(''),
    joining: z.enum(['open', 'by-code', 'closed']).default('open'),
    onJoinPage: z.boolean().default(true),
    several: z.boolean().default(false),
    onSaleFrom: optionalDate.default(null),
    onSaleUntil: optionalDate.default(null),
    places: optionalCount('At least one place; to stop joining, close it.').default(null),
    confirmAddress: z.boolean().default(false),
  })
  .superRefine((tier, context) => {
    if (tier.onSaleFrom && tier.onSaleUntil && tier.onSaleUntil < tier.onSaleFrom)
      context.addIssue({
        code: 'custom',
        path: ['onSaleUntil'],
        message: 'This is before the first day of sale.',
      });
    if (tier.several && tier.ladder)
      context.addIssue({
        code: 'custom',
        path: ['several'],
        message: 'Of a ladder one tier is held at a time. Take it off the ladder, or untick this.',
      });
  });

export type TierInput = z.input<typeof tierInputSchema>;
type Input = z.output<typeof tierInputSchema>;

/** Said to whoever saves what somebody else has saved since they opened it. */
export const SAVED_ELSEWHERE =
  'This was saved in another window in the meantime. Open it there or in a new one, copy over what you need, and save again.';

/** Makes a tier with a key-cut that no other has, or changes one. */
export async function saveTier(actor: Actor, raw: TierInput): Promise<Result<{ id: string }>> {
  requireRight(actor, 'set tiers');
  const parsed = tierInputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const input = parsed.data;
  const at = siteNow(await currentSite());
  try {
    return await transaction(async (db) => {
      await lock(db, 'tiers');
      const tiers = await listTiers(db);
      const known = input.id ? await findTier(db, input.id) : undefined;
      if (!input.isNew && !known) return refusedField('', 'This tier is not there any more.');
      if (input.version !== undefined && known && known.version !== input.version)
        return refusedField('', SAVED_ELSEWHERE);
      const others = tiers.filter((tier) => tier.id !== known?.id);
      const twin = others.find((tier) => tier.name.toLowerCase() === input.name.toLowerCase());
      if (twin)
        return refusedField(
          'name',
          `There is a tier called “${twin.name}” already. Give this one another name.`,
        );
      const sameKey = others.find((tier) => isDeepStrictEqual(tier.keyCut.notches, input.keyCut?.notches));
      if (sameKey)
        return refusedField(
          'keyCut',
          `This is the key of ${sameKey.name}. Change a notch: two tiers are never cut alike.`,
        );
      const place = await placeOnLadder(db, input, known, tiers);
      if (!place.ok) return place;
      const id = known?.id ?? freeId(input.id ?? slugify(input.name), new Set(tiers.map((tier) => tier.id)));
      await store(db, {
        ...input,
        ...place.value,
        id,
        pictureId: input.pictureId === undefined ? (known?.pictureId ?? null) : input.pictureId,
        keyCut: input.keyCut ?? known?.keyCut ?? chooseKeyCut(tiers.map((tier) => tier.keyCut)),
        position: known?.position ?? tiers.length,
      });
      if (known) await moveToTrack(db, id, place.value.ladderId ?? id);
      await deleteEmptyLadders(db);
      await deleteUnusedPictures(db);
      await record(db, actor, at, known ? 'tier changed' : 'tier made', `tier:${id}`, { name: input.name });
      return done({ id });
    });
  } catch (error) {
    if (isConflict(error, 'tier_references'))
      return refusedField(
        'reference',
        'Another tier has this reference. In an export the two could not be told apart.',
      );
    throw error;
  }
}

/** Where a tier stands: where it stood, or, new on a ladder, on top of it. */
async function placeOnLadder(
  db: Transaction,
  input: Input,
  known: Tier | undefined,
  tiers: Tier[],
): Promise<Result<Pick<Tier, 'ladderId' | 'rung'>>> {
  const ladderId = input.ladder ? await ensureLadder(db, input.ladder) : null;
  if (known && known.ladderId === ladderId) return done({ ladderId, rung: known.rung });
  const track = ladderId ?? known?.id ?? '';
  const double = known ? await countDoubleHolders(db, known.id, track) : 0;
  if (double > 0)
    return refusedField(
      'ladder',
      `${double === 1 ? 'One member holds' : `${double} members hold`} this tier beside another of that ladder, where only one can be held. Switch or end one of the two first.`,
    );
  const rungs = tiers.filter((tier) => tier.ladderId === ladderId).map((tier) => tier.rung ?? 0);
  return done({ ladderId, rung: ladderId === null ? null : Math.max(0, ...rungs) + 1 });
}

async function ensureLadder(db: Transaction, idOrName: string): Promise<string> {
  const ladders = await listLadders(db);
  const known = ladders.find(
    (ladder) => ladder.id === idOrName || ladder.name.toLowerCase() === idOrName.toLowerCase(),
  );
  if (known) return known.id;
  const id = freeId(slugify(idOrName), new Set(ladders.map((ladder) => ladder.id)));
  await saveLadder(db, {
    id,
    name: idOrName,
    position: ladders.length,
    creditUnused: true,
    waitDays: 0,
    downAtOnce: false,
  });
  return id;
}

/** The wanted id, or the first with a number behind it that is free. */
export function freeId(wanted: string, taken: Set<string>): string {
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${wanted}-${n}`)) return `${wanted}-${n}`;
}
