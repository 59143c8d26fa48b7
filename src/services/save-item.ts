import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { normalisePath } from '@/core/access/paths';
import { documentSchema } from '@/core/content/document';
import { slugify } from '@/core/content/slug';
import { isConflict, transaction } from '@/store/db';
import {
  findItem,
  insertCategory,
  listCategories,
  listItems,
  moveDescendants,
  saveItem as store,
} from '@/store/items';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

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
  'pictures',
  '_next',
]);

export const itemInputSchema = z.object({
  id: z.string().optional(),
  type: z.enum(['page', 'post']),
  title: z.string().trim().min(1, 'Give it a title.').max(200, 'A title has at most 200 characters.'),
  slug: z.string().trim().max(80).default(''),
  parentId: z.string().nullable().default(null),
  summary: z.string().trim().max(400, 'A summary has at most 400 characters.').default(''),
  body: documentSchema,
  author: z.string().trim().max(80).default(''),
  tags: z.array(z.string().trim().min(1)).max(30).default([]),
  categories: z.array(z.string()).max(20).default([]),
  inMenu: z.boolean().default(false),
  position: z.number().int().default(0),
  /** `draft`, `publish` (now, unless it is out already), or the instant of publishing. */
  publish: z.union([z.literal('draft'), z.literal('publish'), z.object({ at: z.string() })]),
  /** The version that was opened, where an existing item is changed. */
  version: z.number().int().optional(),
});

export type ItemInput = z.input<typeof itemInputSchema>;

/** Writes a page or a post. An address follows from the parent and the slug, and the addresses below it follow along. */
export async function saveItem(actor: Actor, raw: ItemInput): Promise<Result<{ id: string; path: string }>> {
  requireRight(actor, 'write content');
  const parsed = itemInputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const input = parsed.data;
  const at = siteNow(await currentSite());
  try {
    return await transaction(async (db) => {
      const known = input.id ? await findItem(db, input.id) : undefined;
      if (input.version !== undefined && known && known.version !== input.version) {
        return refusedField(
          '',
          'Somebody else saved this in the meantime. Open it in another window, copy over what you need, and save again.',
        );
      }
      const items = await listItems(db);
      const parent = input.parentId ? items.find((item) => item.id === input.parentId) : undefined;
      if (input.parentId && !parent) return refusedField('parentId', 'The page above is not there any more.');
      if (known && parent && (parent.id === known.id || parent.ancestors.includes(known.id))) {
        return refusedField('parentId', 'A page cannot stand below itself.');
      }
      const path = pathFor(input, parent?.path ?? '');
      const isReserved = RESERVED.has(path?.split('/')[1] ?? '') || path === '/posts';
      if (path === null || isReserved)
        return refusedField('slug', 'This address is kept for the site itself. Choose another.');
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
    if (isConflict(error))
      return refusedField('slug', 'Another page or post has this address already. Choose another.');
    throw error;
  }
}

function pathFor(input: z.output<typeof itemInputSchema>, above: string): string | null {
  // The front page has the address "/".
  if (input.type === 'page' && input.slug === '/') return '/';
  const slug = slugify(input.slug || input.title);
  return normalisePath(input.type === 'post' ? `/posts/${slug}` : `${above === '/' ? '' : above}/${slug}`);
}

/** Makes a category, and answers with its id. */
export async function addCategory(
  actor: Actor,
  raw: { id?: string; name: string; parentId?: string | null },
): Promise<Result<{ id: string }>> {
  requireRight(actor, 'write content');
  const name = raw.name.trim();
  if (!name) return refusedField('name', 'Name the category.');
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    const categories = await listCategories(db);
    const id = raw.id ?? slugify(name);
    if (categories.some((category) => category.id === id))
      return refusedField('name', 'There is a category of this name already.');
    await insertCategory(db, { id, name, parentId: raw.parentId ?? null });
    await record(db, actor, at, 'category made', `category:${id}`, { name });
    return done({ id });
  });
}
