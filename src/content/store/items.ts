import type { ItemFacts } from '@/core/access/facts';
import type { Instant } from '@/core/instants';
import { articleSchema, type Prose } from '@/core/content/prose';
import { many, maybeOne, one, run, type Db } from '@/platform/store/db';
import type { ItemId } from '@/core/ids';

export type ItemType = 'page' | 'post';
/** An item without its body: safe to list for staff, and what decisions are made from. */
export type ItemHead = ItemFacts & {
  type: ItemType;
  parentId: string | null;
  title: string;
  summary: string;
  author: string;
  inMenu: boolean;
  position: number;
  /** Its own categories; `categories` holds their parents too. */
  ownCategories: string[];
  updatedAt: Instant;
  version: number;
};
export type Item = ItemHead & { body: Prose };

export type ItemInput = {
  id: ItemId;
  type: ItemType;
  path: string;
  parentId: string | null;
  title: string;
  summary: string;
  body: Prose;
  author: string;
  tags: string[];
  inMenu: boolean;
  position: number;
  publishedAt: Instant | null;
  categories: string[];
};

const BODY = { body: articleSchema };

const HEAD = `
  i.id, i.type, i.path, i.parent_id, i.title, i.summary, i.author, i.tags, i.in_menu, i.position, i.published_at, i.updated_at, i.version,
  (WITH RECURSIVE up AS (
     SELECT p.id, p.parent_id, 1 AS depth FROM items p WHERE p.id = i.parent_id
     UNION ALL SELECT p.id, p.parent_id, depth + 1 FROM items p JOIN up ON p.id = up.parent_id WHERE depth < 50
   ) SELECT coalesce(array_agg(id ORDER BY depth), '{}') FROM up) AS ancestors,
  (SELECT coalesce(array_agg(category_id ORDER BY category_id), '{}') FROM item_categories c WHERE c.item_id = i.id) AS own_categories,
  (WITH RECURSIVE up AS (
     SELECT c.id, c.parent_id FROM categories c JOIN item_categories ic ON ic.category_id = c.id WHERE ic.item_id = i.id
     UNION SELECT c.id, c.parent_id FROM categories c JOIN up ON c.id = up.parent_id
   ) SELECT coalesce(array_agg(id), '{}') FROM up) AS categories`;

export async function findItemByPath(db: Db, path: string): Promise<Item | undefined> {
  return maybeOne(db, `SELECT ${HEAD}, i.body FROM items i WHERE i.path = $1`, [path], BODY);
}

export async function findItem(db: Db, id: string): Promise<Item | undefined> {
  return maybeOne(db, `SELECT ${HEAD}, i.body FROM items i WHERE i.id = $1`, [id], BODY);
}

/** Items in whose text a section names a rule. */
export async function itemsWithSectionsOf(db: Db, ruleId: string): Promise<{ id: string; title: string }[]> {
  return many(
    db,
    `SELECT id, title FROM items
     WHERE jsonb_path_exists(body, '$.**.attrs.rule ? (@ == $rule)', jsonb_build_object('rule', $1::text)) ORDER BY title`,
    [ruleId],
  );
}

/** Every item, pages in tree order first, then posts, newest first. */
export async function listItems(db: Db): Promise<ItemHead[]> {
  return many(
    db,
    `SELECT ${HEAD} FROM items i ORDER BY i.type, (i.type = 'page') DESC, i.position, i.published_at DESC NULLS FIRST, i.title`,
  );
}

/** Published items by the site's clock `at`, newest first; all of one category where it is given. */
export async function listPublished(
  db: Db,
  at: Instant,
  filter: { type?: ItemType; category?: string } = {},
): Promise<Item[]> {
  return many(
    db,
    `SELECT ${HEAD}, i.body FROM items i
     WHERE i.published_at <= $1 AND ($2::text IS NULL OR i.type = $2)
       AND ($3::text IS NULL OR i.id IN (SELECT item_id FROM item_categories WHERE category_id = $3))
     ORDER BY i.published_at DESC, i.id`,
    [at, filter.type ?? null, filter.category ?? null],
    BODY,
  );
}

/** Published items in the menu, in its order. */
export async function listMenuItems(db: Db, at: Instant): Promise<ItemHead[]> {
  return many(
    db,
    `SELECT ${HEAD} FROM items i WHERE i.in_menu AND i.published_at <= $1 ORDER BY i.position, i.title`,
    [at],
  );
}

/** Adds or replaces an item with its categories. @throws a conflict where the address is taken */
export async function saveItem(db: Db, item: ItemInput): Promise<void> {
  await run(
    db,
    `INSERT INTO items (id, type, path, parent_id, title, summary, body, author, tags, in_menu, position, published_at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)
     ON CONFLICT (id) DO UPDATE SET path = $3, parent_id = $4, title = $5, summary = $6, body = $7, author = $8, tags = $9,
       in_menu = $10, position = $11, published_at = $12, version = items.version + 1, updated_at = now()`,
    [
      item.id,
      item.type,
      item.path,
      item.parentId,
      item.title,
      item.summary,
      item.body,
      item.author,
      item.tags,
      item.inMenu,
      item.position,
      item.publishedAt,
    ],
  );
  await run(db, 'DELETE FROM item_categories WHERE item_id = $1', [item.id]);
  await run(db, 'INSERT INTO item_categories (item_id, category_id) SELECT $1, unnest($2::text[])', [
    item.id,
    item.categories,
  ]);
}

/** Brings the addresses below an item into step after its own address changed. */
export async function moveDescendants(db: Db, oldPath: string, newPath: string): Promise<void> {
  await run(
    db,
    `UPDATE items SET path = $2 || substr(path, length($1) + 1) WHERE starts_with(path, $1 || '/')`,
    [oldPath, newPath],
  );
}

export type Category = { id: string; name: string; parentId: string | null };

export async function listCategories(db: Db): Promise<Category[]> {
  return many(db, 'SELECT id, name, parent_id FROM categories ORDER BY position, name');
}

export async function insertCategory(db: Db, category: Category): Promise<void> {
  await run(db, 'INSERT INTO categories (id, name, parent_id) VALUES ($1, $2, $3)', [
    category.id,
    category.name,
    category.parentId,
  ]);
}

export async function countItems(db: Db): Promise<{ published: number; drafts: number }> {
  const row = await one<{ published: bigint; drafts: bigint }>(
    db,
    'SELECT count(*) FILTER (WHERE published_at IS NOT NULL) AS published, count(*) FILTER (WHERE published_at IS NULL) AS drafts FROM items',
  );
  return { published: Number(row.published), drafts: Number(row.drafts) };
}
