import { z } from 'zod';
import { itemPath, PAGE } from '@/core/content/item';
import { findItem, listItems } from '@/content/store/items';
import { arrangeItems, dropTakenRedirects, saveItem } from '@/content/store/save-items';
import { addRevision } from '@/content/store/revisions';
import { isConflict } from '@/platform/store/db';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { missing, refusedField } from '@/platform/result';
import { slug } from '@/platform/inputs';
import { requirePublishing, requireWriting } from './lib/may-write';
import { followMove } from './lib/addresses';
import { searchLanguageOf } from './lib/search-language';

const placeSchema = z.object({
  id: slug,
  parentId: slug.nullable(),
  /** The page before which it is put; null for the last place. */
  before: slug.nullable(),
});

/** Puts a page in a place of the tree. Its address and those below it follow; the old ones lead on. */
export const arrangePages = staffUse('write pages')(
  'arrange-pages',
  placeSchema,
  async (actor, { id, parentId, before }): Promise<Result<{ path: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const powers = await powersOf(actor);
    try {
      return await transaction(async (db) => {
        await lock(db, 'items');
        const page = await findItem(db, id);
        if (!page || page.trashedAt || page.type !== PAGE) return missing();
        requireWriting(powers, page);
        requirePublishing(powers, page.publishedAt !== null);
        const items = await listItems(db);
        const parent = parentId ? items.find((item) => item.id === parentId) : undefined;
        if (parentId && !parent) return refusedField('', 'item.parent-gone');
        if (parent && (parent.id === id || parent.ancestors.includes(id)))
          return refusedField('', 'item.own-parent');
        const siblings = items
          .filter((item) => item.type === PAGE && item.parentId === parentId && item.id !== id)
          .map((item) => item.id);
        const place = before === null ? -1 : siblings.indexOf(before);
        siblings.splice(place === -1 ? siblings.length : place, 0, id);
        const isMoved = page.parentId !== parentId;
        const path =
          !isMoved || page.path === '/'
            ? page.path
            : itemPath(PAGE, parent?.path ?? '', page.path.split('/').at(-1) ?? '');
        if (path === null) return refusedField('', 'item.reserved');
        if (isMoved) {
          if (path !== page.path) await followMove(db, page, path);
          const input = { ...page, categories: page.ownCategories, path, parentId };
          await saveItem(db, input, searchLanguageOf(site));
          await dropTakenRedirects(db);
          await addRevision(db, id, actor.memberId, at);
        }
        await arrangeItems(db, siblings);
        await record(db, actor, at, 'page moved', `item:${id}`, { from: page.path, to: path });
        return done({ path });
      });
    } catch (error) {
      if (isConflict(error)) return refusedField('', 'item.taken');
      throw error;
    }
  },
);
