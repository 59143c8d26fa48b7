import { WRITES } from '@/core/staff';
import { randomUUID } from 'node:crypto';
import { freePath, LINK } from '@/core/content/item';
import { findItem, listItems } from '@/content/store/items';
import { saveItem } from '@/content/store/save-items';
import { addRevision } from '@/content/store/revisions';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { slug } from '@/platform/inputs';
import { missing } from '@/platform/result';
import { desk } from '@/words/desk';
import { requireWriting } from './lib/may-write';
import { searchLanguageOf } from './lib/search-language';

/** A copy of an item, as a draft beside it. The answer is its id. */
export const duplicateItem = staffUse(...WRITES)(
  'duplicate-item',
  slug,
  async (actor, id): Promise<Result<{ id: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      await lock(db, 'items');
      const item = await findItem(db, id);
      // The bytes of a file are uploaded, not written: there is nothing to change in a copy.
      if (!item || item.trashedAt || item.type === 'file') return missing();
      requireWriting(powers, item);
      const taken = new Set((await listItems(db)).map(({ path }) => path));
      const copy = randomUUID();
      await saveItem(
        db,
        {
          ...item,
          id: copy,
          title: desk('desk-content.copy-of', { title: item.title }).slice(0, 200),
          path: freePath(item.path === '/' ? '/front' : item.path, (path) => taken.has(path)),
          target: item.type === LINK ? item.target : null,
          categories: item.ownCategories,
          publishedAt: null,
          wasPublishedAt: null,
        },
        searchLanguageOf(site),
      );
      await addRevision(db, copy, actor.memberId, at);
      await record(db, actor, at, 'item made', `item:${copy}`, { copyOf: id });
      return done({ id: copy });
    });
  },
);
