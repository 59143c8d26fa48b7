import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { proseSchema, EMPTY_PROSE, fromText } from '@/core/content/prose';
import { slugify } from '@/core/content/slug';
import { chooseKeyCut } from '@/core/key-cut';
import { keyCutSchema } from '@/core/key-cut-schema';
import { isConflict, lock, transaction, type Transaction } from '@/platform/store/db';
import { deleteUnusedPictures } from '@/content/store/pictures';
import {
  deleteEmptyLadders,
  findTier,
  listLadders,
  listTiers,
  saveLadder,
  saveTier as store,
  type Tier,
} from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { optionalCount, optionalDate, seenVersion } from '@/platform/form-fields';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import type { Actor } from '@/platform/actor';
import { freeId } from '@/platform/free-id';
import { given } from '@/platform/absent';
import { isPathHere } from '@/core/addresses';
import { say } from '@/words/problems';
import type { TierId } from '@/core/ids';

/** Rich text, or, from an import, a plain paragraph. */
const words = z.union([proseSchema, z.string().trim().max(2_000).transform(fromText)]).optional();

export const tierInputSchema = z.object({
  /** Left out for a new tier; demo and imports may name it. */
  id: z
    .string()
    .regex(/^[a-z0-9-]+$/)
    .optional(),
  isNew: z.boolean().default(true),
  /** The version that was opened, where an existing tier is changed. */
  version: seenVersion,
  name: z.string().trim().min(1, say('tier.no-name')).max(60),
  description: words,
  /** '' for a tier on its own; else the ladder's id, or a new ladder's name. */
  ladder: z.string().trim().max(60).optional(),
  /** Left out, it is chosen. */
  keyCut: keyCutSchema.optional(),
  reference: z.string().trim().max(60).optional(),
  /** Left out, it stays; null takes it away. */
  pictureId: z.uuid().nullable().optional(),
  joinWords: words,
  welcomeWords: words,
  welcomeShown: z.array(z.enum(['page', 'mail', 'account'])).optional(),
  welcomePath: z
    .string()
    .trim()
    .max(200)
    .refine((path) => path === '' || isPathHere(path), say('tier.path'))
    .optional(),
  joining: z.enum(['open', 'by-code', 'closed']).optional(),
  onJoinPage: z.boolean().optional(),
  several: z.boolean().optional(),
  onSaleFrom: optionalDate.optional(),
  onSaleUntil: optionalDate.optional(),
  places: optionalCount(say('tier.places')).optional(),
});

/** What a new tier has where nothing else was said. What exists keeps what it was. */
const NEW_TIER = {
  description: EMPTY_PROSE,
  reference: '',
  pictureId: null,
  joinWords: EMPTY_PROSE,
  welcomeWords: EMPTY_PROSE,
  welcomeShown: ['page', 'mail', 'account'] as Tier['welcomeShown'],
  welcomePath: '',
  joining: 'open' as const,
  onJoinPage: true,
  several: false,
  onSaleFrom: null,
  onSaleUntil: null,
  places: null,
};

/** What a tier that comes onto a ladder, or leaves it, means for those who hold it: of a ladder one tier is held at a time. */
export type Tracks = {
  /** Members who hold the tier and another of that track. */
  countDoubleHolders: (db: Transaction, tierId: TierId, track: string) => Promise<number>;
  moveToTrack: (db: Transaction, tierId: TierId, track: string) => Promise<void>;
};

/** Makes a tier with a key-cut that no other has, or changes one. */
export const savingTier =
  (tracks: Tracks) =>
  async (actor: Actor, raw: z.output<typeof tierInputSchema>): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    try {
      return await transaction(async (db) => {
        await lock(db, 'tiers');
        const tiers = await listTiers(db);
        const known = raw.id ? await findTier(db, raw.id) : undefined;
        if (!raw.isNew && !known) return refusedField('', 'tier.gone');
        const input = { ...NEW_TIER, ...known, ...given(raw) };
        const dates = datesProblem(input);
        if (dates) return dates;
        if (raw.version !== undefined && known && known.version !== raw.version)
          return refusedField('', 'record.saved-elsewhere');
        const others = tiers.filter((tier) => tier.id !== known?.id);
        const twin = others.find((tier) => tier.name.toLowerCase() === input.name.toLowerCase());
        if (twin) return refusedField('name', 'tier.taken', { tier: twin.name });
        const sameKey = others.find((tier) => isDeepStrictEqual(tier.keyCut.notches, raw.keyCut?.notches));
        if (sameKey) return refusedField('keyCut', 'tier.key-taken', { tier: sameKey.name });
        const place = await placeOnLadder(db, tracks, raw.ladder, known, tiers);
        if (!place.ok) return place;
        if (input.several && place.value.ladderId) return refusedField('several', 'tier.several');
        const id =
          known?.id ?? freeId(input.id ?? slugify(input.name), new Set(tiers.map((tier) => tier.id)));
        await store(db, {
          ...input,
          ...place.value,
          id,
          keyCut: input.keyCut ?? chooseKeyCut(tiers.map((tier) => tier.keyCut)),
          position: known?.position ?? tiers.length,
        });
        if (known) await tracks.moveToTrack(db, id, place.value.ladderId ?? id);
        await deleteEmptyLadders(db);
        const shown = (await listTiers(db)).flatMap((tier) => tier.pictureId ?? []);
        await deleteUnusedPictures(db, shown);
        await record(db, actor, at, known ? 'tier changed' : 'tier made', `tier:${id}`, { name: input.name });
        return done({ id });
      });
    } catch (error) {
      if (isConflict(error, 'tier_references')) return refusedField('reference', 'tier.reference-taken');
      throw error;
    }
  };

function datesProblem({ onSaleFrom, onSaleUntil }: Pick<Tier, 'onSaleFrom' | 'onSaleUntil'>) {
  return onSaleFrom && onSaleUntil && onSaleUntil < onSaleFrom
    ? refusedField('onSaleUntil', 'tier.sale-dates')
    : null;
}

/** The rung of a tier: the one it had, or, if it is new on a ladder, the top. */
async function placeOnLadder(
  db: Transaction,
  tracks: Tracks,
  asked: string | undefined,
  known: Tier | undefined,
  tiers: Tier[],
): Promise<Result<Pick<Tier, 'ladderId' | 'rung'>>> {
  const ladderId =
    asked === undefined ? (known?.ladderId ?? null) : asked ? await ensureLadder(db, asked) : null;
  if (known && known.ladderId === ladderId) return done({ ladderId, rung: known.rung });
  const track = ladderId ?? known?.id ?? '';
  const double = known ? await tracks.countDoubleHolders(db, known.id, track) : 0;
  if (double > 0)
    return refusedField('ladder', 'tier.double-held', {
      count: double === 1 ? 'One member holds' : `${double} members hold`,
    });
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
