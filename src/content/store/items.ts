import type { ItemFacts } from '@/core/access/facts';
import type { Instant } from '@/core/instants';
import { withParents } from '@/core/content/categories';
import { listCategories } from '@/content/store/categories';
import { articleSchema, type Prose } from '@/core/content/prose';
import { built, many, maybeOne, one, prepared, type Db } from '@/platform/store/db';
import { SYSTEM_ROLES } from '@/core/content/page-roles';
import type { ItemId, PictureId } from '@/core/ids';

/** An item without its text: safe to list for staff, and what decisions are made from. */
export type ItemHead = ItemFacts & {
  parentId: string | null;
  title: string;
  summary: string;
  author: string;
  position: number;
  /** Its own categories; `categories` holds their parents too. */
  ownCategories: string[];
  pictureId: PictureId | null;
  /** What the picture shows, in words. */
  pictureAlt: string;
  wasPublishedAt: Instant | null;
  /** Whether it has comments; null where it is as its kind. */
  commentsOn: boolean | null;
  trashedAt: Instant | null;
  words: number;
  updatedAt: Instant;
  version: number;
};
/** `target`: where a link leads; null for every other kind. */
export type Item = ItemHead & { body: Prose; target: string | null };

const BODY = { body: articleSchema };

/** What a head has of its own, of the table items as i. */
const OWN = `
  i.id, i.type, i.path, i.parent_id, i.title, i.summary, i.author, i.tags, i.position, i.picture_id, i.picture_alt,
  i.published_at, i.was_published_at, i.comments_on, i.trashed_at, i.words, i.updated_at, i.version,
  i.id IN (SELECT item_id FROM page_roles WHERE role IN (${SYSTEM_ROLES.map((role) => `'${role}'`).join(', ')})) AS system`;
/** How deep a tree of pages is followed. */
const DEEPEST = 50;
/** The columns of a head, of the table items as i. */
export const HEAD = `${OWN},
  CASE WHEN i.parent_id IS NULL THEN '{}' ELSE (WITH RECURSIVE up AS (
     SELECT p.id, p.parent_id, 1 AS depth FROM items p WHERE p.id = i.parent_id
     UNION ALL SELECT p.id, p.parent_id, depth + 1 FROM items p JOIN up ON p.id = up.parent_id WHERE depth < ${DEEPEST}
   ) SELECT array_agg(id ORDER BY depth) FROM up) END AS ancestors,
  (SELECT coalesce(array_agg(category_id ORDER BY category_id), '{}') FROM item_categories c WHERE c.item_id = i.id) AS own_categories,
  (WITH RECURSIVE up AS (
     SELECT c.id, c.parent_id FROM categories c JOIN item_categories ic ON ic.category_id = c.id WHERE ic.item_id = i.id
     UNION SELECT c.id, c.parent_id FROM categories c JOIN up ON c.id = up.parent_id
   ) SELECT coalesce(array_agg(id), '{}') FROM up) AS categories`;

export async function findItemByPath(db: Db, path: string): Promise<Item | undefined> {
  return maybeOne(
    db,
    `SELECT ${HEAD}, i.body, i.target FROM items i WHERE i.path = $1 AND i.trashed_at IS NULL`,
    [path],
    BODY,
  );
}

/** `picture`: the size of its picture, in pixels. `older` and `newer`: the published items beside it, of its kind. */
export type ItemToRead = Item & {
  picture: { width: number; height: number } | null;
  older: Beside | null;
  newer: Beside | null;
};
export type Beside = { path: string; title: string };

const besideIt = (than: '<' | '>', order: 'ASC' | 'DESC'): string => `
  (SELECT jsonb_build_object('path', o.path, 'title', o.title) FROM items o
   WHERE o.trashed_at IS NULL AND o.type = i.type AND o.published_at <= $2 AND NOT o.id = ANY ($3) AND (o.published_at, o.id) ${than} (i.published_at, i.id)
   ORDER BY o.published_at ${order}, o.id ${order} LIMIT 1)`;

const FIND_TO_READ = prepared(
  'find-item-to-read',
  `SELECT ${HEAD}, i.body, i.target,
     CASE WHEN p.id IS NOT NULL THEN jsonb_build_object('width', p.width, 'height', p.height) END AS picture,
     ${besideIt('<', 'DESC')} AS older, ${besideIt('>', 'ASC')} AS newer
   FROM items i LEFT JOIN pictures p ON p.id = i.picture_id WHERE i.path = $1 AND i.trashed_at IS NULL`,
);

/** An item with all that its page shows around its text, by the site's clock `at`; `hidden`: the ids of those that are not named beside it. */
export async function findItemToRead(
  db: Db,
  path: string,
  at: Instant,
  hidden: string[],
): Promise<ItemToRead | undefined> {
  return maybeOne(db, FIND_TO_READ, [path, at, hidden], {
    ...BODY,
    picture: built,
    older: built,
    newer: built,
  });
}

/** The item that once had an address, and has another now. */
export async function findMovedItem(db: Db, path: string): Promise<Item | undefined> {
  return maybeOne(
    db,
    `SELECT ${HEAD}, i.body, i.target FROM items i JOIN redirects r ON r.item_id = i.id
     WHERE r.path = $1 AND i.trashed_at IS NULL`,
    [path],
    BODY,
  );
}

const FIND_ITEM = prepared('find-item', `SELECT ${HEAD}, i.body, i.target FROM items i WHERE i.id = $1`);

/** By its id, in the trash too. */
export async function findItem(db: Db, id: string): Promise<Item | undefined> {
  return maybeOne(db, FIND_ITEM, [id], BODY);
}

const FIND_HEAD = prepared('find-item-head', `SELECT ${HEAD} FROM items i WHERE i.id = $1`);

/** By its id, in the trash too. */
export async function findHead(db: Db, id: string): Promise<ItemHead | undefined> {
  return maybeOne(db, FIND_HEAD, [id]);
}

const LIST_HEADS = prepared(
  'list-item-heads',
  `SELECT ${HEAD} FROM items i WHERE i.id = ANY ($1) AND i.trashed_at IS NULL`,
);

/** The items with these ids that are not in the trash. */
export async function listHeads(db: Db, ids: string[]): Promise<ItemHead[]> {
  return many(db, LIST_HEADS, [ids]);
}

/** The position after all pages below a parent. */
export async function lastPosition(db: Db, parentId: string): Promise<number> {
  const { position } = await one<{ position: number }>(
    db,
    'SELECT coalesce(max(position), -1) + 1 AS position FROM items WHERE parent_id = $1',
    [parentId],
  );
  return position;
}

/** Items in whose text a section names a rule. */
export async function itemsWithSectionsOf(db: Db, ruleId: string): Promise<{ id: string; title: string }[]> {
  return many(
    db,
    `SELECT id, title FROM items
     WHERE trashed_at IS NULL AND jsonb_path_exists(body, '$.**.attrs.rule ? (@ == $rule)', jsonb_build_object('rule', $1::text)) ORDER BY title`,
    [ruleId],
  );
}

/** Items in whose text a section opens to a group or a pass by a line of its own. */
export async function itemsWithSectionsFor(
  db: Db,
  who: { kind: 'group' | 'pass'; id: string },
): Promise<{ id: string; title: string }[]> {
  return many(
    db,
    `SELECT id, title FROM items
     WHERE trashed_at IS NULL AND jsonb_path_exists(body, '$.**.who ? (@.kind == $kind && @.id == $id)', $1::jsonb) ORDER BY title`,
    [JSON.stringify(who)],
  );
}

/**
 * Heads of a long list, `rest` being all that follows its columns. What lies above each is put together here: to ask for it
 * with each row takes several times as long.
 */
export async function listManyHeads(db: Db, rest: string, values: unknown[] = []): Promise<ItemHead[]> {
  type Own = Omit<ItemHead, 'ancestors' | 'categories' | 'ownCategories'>;
  const rows = await many<Own>(db, `SELECT ${OWN} ${rest}`, values);
  const below = await many<{ id: string; parentId: string }>(
    db,
    'SELECT id, parent_id FROM items WHERE parent_id IS NOT NULL',
  );
  const within = await many<{ itemId: string; ids: string[] }>(
    db,
    'SELECT item_id, array_agg(category_id ORDER BY category_id) AS ids FROM item_categories GROUP BY item_id',
  );
  const categories = await listCategories(db);
  const parents = new Map(below.map(({ id, parentId }) => [id, parentId]));
  const own = new Map(within.map(({ itemId, ids }) => [itemId, ids]));
  const above = new Map<string, string[]>();
  const allOf = (ids: string[]): string[] => {
    const name = ids.join(' ');
    const known = above.get(name) ?? withParents(categories, ids);
    above.set(name, known);
    return known;
  };
  return rows.map((row) => {
    const ancestors: string[] = [];
    for (let at = row.parentId; at && ancestors.length < DEEPEST; at = parents.get(at) ?? null)
      ancestors.push(at);
    const ownCategories = own.get(row.id) ?? [];
    return { ...row, ancestors, ownCategories, categories: allOf(ownCategories) };
  });
}

/** Every item that is not in the trash, or of one kind, pages in tree order first, then the others, newest first. */
export const listItems = (db: Db, type: string | null = null): Promise<ItemHead[]> =>
  listManyHeads(
    db,
    `FROM items i WHERE i.trashed_at IS NULL AND ($1::text IS NULL OR i.type = $1)
     ORDER BY (i.type = 'page') DESC, i.type, i.position, i.published_at DESC NULLS FIRST, i.title`,
    [type],
  );

/** The addresses of all items that are not in the trash, but of those with these ids. */
export async function listPaths(db: Db, without: string[]): Promise<string[]> {
  const rows = await many<{ path: string }>(
    db,
    'SELECT path FROM items WHERE trashed_at IS NULL AND id <> ALL($1) ORDER BY path',
    [without],
  );
  return rows.map(({ path }) => path);
}

/** What items are called, by their ids; those in the trash, too. */
export async function listTitles(db: Db, ids: string[]): Promise<{ id: ItemId; name: string }[]> {
  return many(db, 'SELECT id, title AS name FROM items WHERE id = ANY ($1)', [ids]);
}

/** The items with these ids that are not in the trash, with their texts. */
export async function listByIds(db: Db, ids: string[]): Promise<Item[]> {
  return many(
    db,
    `SELECT ${HEAD}, i.body, i.target FROM items i WHERE i.id = ANY ($1) AND i.trashed_at IS NULL`,
    [ids],
    BODY,
  );
}

export type Redirect = { path: string; itemId: string };

export async function listRedirects(db: Db, itemId: string): Promise<Redirect[]> {
  return many(db, 'SELECT path, item_id FROM redirects WHERE item_id = $1 ORDER BY path', [itemId]);
}

/** What is in the trash, last thrown away first. */
export async function listTrashed(db: Db): Promise<ItemHead[]> {
  return many(
    db,
    `SELECT ${HEAD} FROM items i WHERE i.trashed_at IS NOT NULL ORDER BY i.trashed_at DESC, i.path`,
  );
}

export async function countItems(db: Db): Promise<{ published: number; drafts: number }> {
  const row = await one<{ published: bigint; drafts: bigint }>(
    db,
    'SELECT count(*) FILTER (WHERE published_at IS NOT NULL) AS published, count(*) FILTER (WHERE published_at IS NULL) AS drafts FROM items WHERE trashed_at IS NULL',
  );
  return { published: Number(row.published), drafts: Number(row.drafts) };
}

/** Those of some items that have others below them. */
export async function findParents(db: Db, ids: string[]): Promise<Set<string>> {
  const rows = await many<{ parentId: string }>(
    db,
    'SELECT DISTINCT parent_id FROM items WHERE parent_id = ANY ($1) AND trashed_at IS NULL',
    [ids],
  );
  return new Set(rows.map(({ parentId }) => parentId));
}
