import type { z } from 'zod';
import { decisionInput, decisionsInput, type decisionOutput } from '@/core/api/schemas';
import { normalisePath } from '@/core/access/paths';
import { findItem, findItemByPath, listHeads, type ItemHead } from '@/content/store/items';
import { done, missing, refusedField } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { keyUse } from '@/platform/use';
import { readerAs } from './lib/reader-as';
import { isOut, judge, type Judged, type Reader } from './lib/reader';

/** What is decided about an item from a viewpoint, by its id or its address. */
export const apiDecision = keyUse('decisions:read')(
  'api-decision',
  decisionInput,
  async (_, { item: id, path: written, as, on }) => {
    if ((id === undefined) === (written === undefined)) return refusedField('item', 'api.item-or-path');
    const path = written === undefined ? null : normalisePath(written);
    const [reader, item] = [
      await readerAs(as, on),
      id ? await findItem(pool(), id) : path ? await findItemByPath(pool(), path) : undefined,
    ];
    if (!reader) return refusedField('as', 'api.no-viewpoint');
    if (!item || item.trashedAt) return missing();
    return done(told(reader, item, await judge(reader, [item])));
  },
);

/** The same of many items, by their ids. */
export const apiDecisions = keyUse('decisions:read')(
  'api-decisions',
  decisionsInput,
  async (_, { items: ids, as, on }) => {
    const reader = await readerAs(as, on);
    if (!reader) return refusedField('as', 'api.no-viewpoint');
    const items = (await listHeads(pool(), [...new Set(ids)])).filter(({ trashedAt }) => !trashedAt);
    const judged = await judge(reader, items);
    const known = new Map(items.map((item) => [item.id as string, item]));
    return done({
      decisions: ids.flatMap((id) => {
        const item = known.get(id);
        return item ? [told(reader, item, judged)] : [];
      }),
      missing: ids.filter((id) => !known.has(id)),
    });
  },
);

/** What has not come out is closed, whatever the rules say. */
function told(reader: Reader, item: ItemHead, judged: Judged): z.input<typeof decisionOutput> {
  const { state, by, rules, opensAt, endedAt } = judged(item.id);
  const isPublished = isOut(reader, item);
  return {
    item: item.id,
    path: item.path,
    title: item.title,
    isPublished,
    state: isPublished && state !== 'metered' ? state : 'closed',
    by,
    rules,
    ...(opensAt && { opensAt }),
    ...(endedAt && { endedAt }),
  };
}
