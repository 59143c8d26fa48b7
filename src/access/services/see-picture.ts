import { z } from 'zod';
import { picturesIn, type Prose } from '@/core/content/prose';
import { listByIds } from '@/content/store/items';
import { findPicture, itemsWithPicture } from '@/content/store/pictures';
import { uuid } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { publicUse } from '@/platform/use';
import type { Actor } from '@/platform/actor';
import { embedReader } from './lib/embed-reader';
import { withReads } from './lib/free-reads';
import { isOut, readerOf, type Reader } from './lib/reader';
import { textFor } from './lib/text-for';
import { keptTiers } from '@/tiers/services/lib/kept';

const pictureSchema = z.object({ id: uuid, isSmall: z.boolean().default(false) });

/**
 * A picture, for those who see what shows it: the card of a tier, the site's mark and lead pictures are public; a
 * picture within a text by those who may read that part of it. `isPublic`: everyone sees it.
 */
export const seePicture = publicUse('see-picture', pictureSchema, async (actor, { id, isSmall }) => {
  const picture = await findPicture(pool(), id);
  if (!picture) return missing();
  const isPublic = picture.of === 'tier' || (await currentSite()).markId === id;
  if (!isPublic && !(await isSeen(actor, await withReads(await readerOf(actor), actor), id)))
    return missing();
  return done({ bytes: (isSmall ? picture.small : null) ?? picture.bytes, isPublic });
});

async function isSeen(actor: Actor, reader: Reader, id: string): Promise<boolean> {
  if (reader.person.readsAll) return true;
  const { beside, within } = await itemsWithPicture(pool(), id);
  const items = (await listByIds(pool(), [...beside, ...within])).filter((item) => isOut(reader, item));
  if (items.some((item) => beside.includes(item.id))) return true;
  // One that came with an import can be on the card of a tier as well.
  if ((await keptTiers()).some(({ pictureId }) => pictureId === id)) return true;
  for (const item of items)
    for (const each of [reader, await embedReader(actor, item.id)]) {
      const text: Prose | null = each && (await textFor(each, item));
      if (text && picturesIn(text).includes(id)) return true;
    }
  return false;
}
