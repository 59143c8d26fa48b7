import { z } from 'zod';
import { findHead } from '@/content/store/items';
import { findReadingPlace, saveReadingPlace } from '@/content/store/reading-places';
import { slug } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { withReads } from './lib/free-reads';
import { isLetIn, isOut, judge, readerOf } from './lib/reader';

/** How far the caller has read an item. Staff who look as someone else have read nothing there. */
export const readingPlace = memberUse('reading-place', slug, async ({ memberId, look }, itemId) =>
  done({ place: look ? 0 : await findReadingPlace(pool(), memberId, itemId) }),
);

const placeSchema = z.object({ itemId: slug, place: z.number().int().min(0).max(1000) });

/** Saves how far a member has read, of what they can open. Nothing is written for staff who look as someone else. */
export const keepReadingPlace = memberUse(
  'keep-reading-place',
  placeSchema,
  async (actor, { itemId, place }) => {
    if (actor.look) return done(null);
    const reader = await withReads(await readerOf(actor), actor);
    const item = await findHead(pool(), itemId);
    if (!item || !isOut(reader, item) || !isLetIn((await judge(reader, [item]))(item.id))) return missing();
    await saveReadingPlace(pool(), actor.memberId, { itemId, place, at: reader.now });
    return done(null);
  },
);
