import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { normalisePath } from '@/core/access/paths';
import { articleSchema, EMPTY_PROSE } from '@/core/content/prose';
import { slugify } from '@/core/content/slug';
import { isConflict, lock, transaction } from '@/platform/store/db';
import {
  findItem,
  insertCategory,
  listCategories,
  listItems,
  moveDescendants,
  saveItem as store,
  type Item,
  type ItemType,
} from '@/content/store/items';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { given } from '@/platform/absent';
import { chosenId, idIfKnown, seenVersion, instantSchema } from '@/platform/form-fields';
import { say } from '@/words/problems';

/** First parts of addresses that the product itself answers. */
const RESERVED = new Set([
  'desk',
  'look',
  'api',
  'join',
  'sign-in',
  'sign-out',
  'account',
  'feed.xml',
  'feed.atom',
  'feed.json',
  'sitemap.xml',
  'robots.txt',
  'pictures',
  '_next',
]);

const itemInputSchema = z.object({
  id: idIfKnown,
  type: z.enum(['page', 'post']),
  title: z.string().trim().min(1, say('item.no-title')).max(200),
  slug: z.string().trim().max(80).optional(),
  parentId: chosenId,
  summary: z.string().trim().max(400).optional(),
  body: articleSchema.optional(),
  author: z.string().trim().max(80).optional(),
  tags: z.array(z.string().trim().min(1).max(60)).max(30).optional(),
  categories: z.array(z.string().max(200)).max(20).optional(),
  inMenu: z.boolean().optional(),
  /** Whether it is the front page, which people see first. */
  isFront: z.boolean().optional(),
  position: z.number().int().optional(),
  /** `draft`, `publish` (now, unless it is out already), or the instant of publishing. */
  publish: z.union([z.literal('draft'), z.literal('publish'), z.object({ at: instantSchema })]),
  /** The version that was opened, where an existing item is changed. */
  version: seenVersion,
});

/** What a new item has where nothing else was said. What exists keeps what it was. */
const NEW_ITEM = {
  parentId: null,
  summary: '',
  body: EMPTY_PROSE,
  author: '',
  tags: [],
  categories: [],
  inMenu: false,
  position: 0,
};

/** Writes a page or a post. An address follows from the parent and the slug, and the addresses below it follow along. */
export const saveItem = staffUse('write content')(
  'save-item',
  itemInputSchema,
  async (actor, raw): Promise<Result<{ id: string; path: string }>> => {
    const at = siteNow(await currentSite());
    try {
      return await transaction(async (db) => {
        // Addresses depend on one another, and a version is compared with what nobody else is changing.
        await lock(db, 'items');
        const known = raw.id ? await findItem(db, raw.id) : undefined;
        const before = known && { ...known, categories: known.ownCategories };
        const input = { ...NEW_ITEM, ...before, ...given(raw), slug: raw.slug ?? slugOf(known) };
        if (raw.version !== undefined && known && known.version !== raw.version) {
          return refusedField('', 'item.saved-elsewhere');
        }
        const items = await listItems(db);
        const parent = input.parentId ? items.find((item) => item.id === input.parentId) : undefined;
        if (input.parentId && !parent) return refusedField('parentId', 'item.parent-gone');
        if (known && parent && (parent.id === known.id || parent.ancestors.includes(known.id))) {
          return refusedField('parentId', 'item.own-parent');
        }
        const isFront =
          raw.type === 'page' && (raw.isFront ?? (raw.slug === undefined && known?.path === '/'));
        const front = isFront ? items.find((item) => item.path === '/' && item.id !== known?.id) : undefined;
        if (front) return refusedField('isFront', 'item.front-taken', { title: front.title });
        const path = isFront ? '/' : pathFor(input, parent?.path ?? '');
        const isReserved = RESERVED.has(path?.split('/')[1] ?? '') || path === '/posts';
        if (path === null || isReserved) return refusedField('slug', 'item.reserved');
        const publishedAt =
          typeof input.publish === 'object'
            ? input.publish.at
            : input.publish === 'draft'
              ? null
              : (known?.publishedAt ?? at);
        const id = known?.id ?? input.id ?? randomUUID();
        if (known && known.path !== path) await moveDescendants(db, known.path, path);
        await store(db, { ...input, id, path, publishedAt });
        await record(db, actor, at, known ? 'item changed' : 'item made', `item:${id}`, {
          path,
          published: publishedAt !== null,
        });
        return done({ id, path });
      });
    } catch (error) {
      if (isConflict(error)) return refusedField('slug', 'item.taken');
      throw error;
    }
  },
);

/** The last part of an item's address; '' for one that has none yet. */
const slugOf = (item: Item | undefined): string => item?.path.split('/').at(-1) ?? '';

function pathFor(input: { type: ItemType; slug: string; title: string }, above: string): string | null {
  // An imported page says by its slug that it is the front page.
  if (input.type === 'page' && input.slug === '/') return '/';
  const slug = slugify(input.slug || input.title);
  return normalisePath(input.type === 'post' ? `/posts/${slug}` : `${above === '/' ? '' : above}/${slug}`);
}

const categorySchema = z.object({
  id: z.string().max(200).optional(),
  name: z.string().trim().min(1, say('category.missing')).max(60),
  parentId: z.string().max(200).nullable().default(null),
});

/** Makes a category, and answers with its id. */
export const addCategory = staffUse('write content')(
  'add-category',
  categorySchema,
  async (actor, { id: asked, name, parentId }): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'categories');
      const categories = await listCategories(db);
      const id = asked ?? slugify(name);
      if (categories.some((category) => category.id === id)) return refusedField('name', 'category.taken');
      await insertCategory(db, { id, name, parentId });
      await record(db, actor, at, 'category made', `category:${id}`, { name });
      return done({ id });
    });
  },
);
