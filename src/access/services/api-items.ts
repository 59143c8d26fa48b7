import type { z } from 'zod';
import { itemInput, itemsInput, type itemOutput } from '@/core/api/schemas';
import { countPublished, listPublished } from '@/content/store/item-lists';
import { findItem, type ItemHead } from '@/content/store/items';
import { writeMarkdown } from '@/content/services/lib/markdown';
import { done, missing, refusedField } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { keyUse } from '@/platform/use';
import { doorstepAt } from './lib/doorstep-at';
import { hiddenFrom } from './lib/hidden';
import { readerAs } from './lib/reader-as';
import { isLetIn, isOut, judge, type Judged, type Reader } from './lib/reader';
import { textFor } from './lib/text-for';

/** What a viewpoint may know of what is published, the newest first, a page at a time. */
export const apiItems = keyUse('content:read')(
  'api-items',
  itemsInput,
  async (_, { type, as, on, page, size }) => {
    const reader = await readerAs(as, on);
    if (!reader) return refusedField('as', 'api.no-viewpoint');
    const where = { ...(type && { type }), hidden: (await hiddenFrom(reader)).ids };
    const items = await listPublished(pool(), reader.now, where, { limit: size, offset: (page - 1) * size });
    const judged = await judge(reader, items);
    const known: z.input<typeof itemOutput>[] = [];
    for (const item of items) known.push(await told(reader, item, judged));
    return done({ items: known, total: await countPublished(pool(), reader.now, where), page });
  },
);

/** An item with what a viewpoint may read of it: its open text, or its teaser. */
export const apiItem = keyUse('content:read')('api-item', itemInput, async (_, { id, as, on }) => {
  const reader = await readerAs(as, on);
  if (!reader) return refusedField('as', 'api.no-viewpoint');
  const item = await findItem(pool(), id);
  if (!item || item.trashedAt || !isOut(reader, item)) return missing();
  const { ids } = await hiddenFrom(reader);
  if (ids.includes(item.id)) return missing();
  const judged = await judge(reader, [item]);
  const text = await textFor(reader, item);
  return done({
    ...(await told(reader, item, judged)),
    text: text ? writeMarkdown(text, { picture: (picture) => `/pictures/${picture}` }) : '',
  });
});

/** What may be known of an item: of one that is closed, its summary follows its doorstep. */
async function told(reader: Reader, item: ItemHead, judged: Judged): Promise<z.input<typeof itemOutput>> {
  const decision = judged(item.id);
  const isSummaryShown =
    isLetIn(decision) || (await doorstepAt(reader, item, decision)).doorstep.teaser.kind !== 'none';
  return {
    id: item.id,
    type: item.type,
    path: item.path,
    title: item.title,
    summary: isSummaryShown ? item.summary : '',
    publishedAt: item.publishedAt,
    categories: item.ownCategories,
    tags: item.tags,
    state: decision.state === 'metered' ? 'closed' : decision.state,
    ...(decision.opensAt && { opensAt: decision.opensAt }),
  };
}
