import { z } from 'zod';
import { WRITES } from '@/core/staff';
import { listCategories } from '@/content/store/categories';
import { listByIds, type Item } from '@/content/store/items';
import { saveItem, type ItemInput } from '@/content/store/save-items';
import { addRevision } from '@/content/store/revisions';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { refusedField } from '@/platform/result';
import { slug } from '@/platform/inputs';
import { requirePublishing, requireWriting } from './lib/may-write';
import { searchLanguageOf } from './lib/search-language';
import { tagIds } from './lib/tag-ids';

const changeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.enum(['add-category', 'remove-category']), category: slug }),
  z.object({ kind: z.enum(['add-tag', 'remove-tag']), tag: z.string().trim().min(1).max(60) }),
  z.object({ kind: z.literal('author'), author: z.string().trim().max(80) }),
  z.object({ kind: z.enum(['publish', 'unpublish']) }),
]);
type Change = z.output<typeof changeSchema>;

/** Changes many items in one way, all or none. The answer is how many were not so already. */
export const changeItems = staffUse(...WRITES)(
  'change-items',
  z.object({ ids: z.array(slug).min(1).max(1000), change: changeSchema }),
  async (actor, { ids, change }): Promise<Result<{ count: number }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      await lock(db, 'items');
      if ('category' in change && !(await listCategories(db)).some(({ id }) => id === change.category))
        return refusedField('category', 'category.gone');
      const tag = 'tag' in change ? (await tagIds(db, [change.tag]))[0] : undefined;
      const chosen = await listByIds(db, ids);
      requireWriting(powers, ...chosen);
      requirePublishing(
        powers,
        change.kind === 'publish' || chosen.some(({ publishedAt }) => publishedAt !== null),
      );
      const changed = chosen.flatMap((item) => {
        const after = changedItem(item, change, tag ?? '', at);
        return after ? [after] : [];
      });
      for (const item of changed) {
        await saveItem(db, item, searchLanguageOf(site));
        await addRevision(db, item.id, actor.memberId, at);
        await record(db, actor, at, 'item changed', `item:${item.id}`, { change });
      }
      return done({ count: changed.length });
    });
  },
);

/** The item as it is after a change; null where it is so already. */
function changedItem(item: Item, change: Change, tag: string, at: Item['publishedAt']): ItemInput | null {
  const same: ItemInput = { ...item, categories: item.ownCategories };
  const without = (list: string[], one: string): string[] => list.filter((other) => other !== one);
  switch (change.kind) {
    case 'add-category':
      if (same.categories.includes(change.category)) return null;
      return { ...same, categories: [...same.categories, change.category] };
    case 'remove-category':
      if (!same.categories.includes(change.category)) return null;
      return { ...same, categories: without(same.categories, change.category) };
    case 'add-tag':
      return item.tags.includes(tag) ? null : { ...same, tags: [...item.tags, tag] };
    case 'remove-tag':
      return item.tags.includes(tag) ? { ...same, tags: without(item.tags, tag) } : null;
    case 'author':
      return item.author === change.author ? null : { ...same, author: change.author };
    case 'publish':
      return item.publishedAt === null ? { ...same, publishedAt: at } : null;
    case 'unpublish':
      if (item.publishedAt === null) return null;
      return { ...same, publishedAt: null, wasPublishedAt: item.publishedAt };
  }
}
