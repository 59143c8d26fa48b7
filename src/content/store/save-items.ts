import type { Instant } from '@/core/instants';
import { filesIn, picturesIn, plainText, wordCount } from '@/core/content/prose';
import { withoutSections } from '@/core/content/sections';
import { run, type Db } from '@/platform/store/db';
import type { Item } from './items';

export type ItemInput = Pick<
  Item,
  | 'id'
  | 'type'
  | 'path'
  | 'parentId'
  | 'title'
  | 'summary'
  | 'body'
  | 'target'
  | 'author'
  | 'tags'
  | 'position'
  | 'pictureId'
  | 'pictureAlt'
  | 'publishedAt'
  | 'wasPublishedAt'
  | 'commentsOn'
> & { categories: string[] };

/** The longest text that is searched: what PostgreSQL can hold as one vector, with room to spare. */
const MOST_SEARCHED = 400_000;

/**
 * Adds or replaces an item with its categories, and with what its text shows and offers. `searchLanguage` is a
 * configuration of PostgreSQL's text search. @throws a conflict where the address is taken
 */
export async function saveItem(db: Db, item: ItemInput, searchLanguage: string): Promise<void> {
  await run(
    db,
    `INSERT INTO items (id, type, path, parent_id, title, summary, body, target, author, tags, position, picture_id, picture_alt,
       published_at, was_published_at, words, body_text, search_language, comments_on)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18::text::regconfig, $19)
     ON CONFLICT (id) DO UPDATE SET path = $3, parent_id = $4, title = $5, summary = $6, body = $7, target = $8, author = $9, tags = $10,
       position = $11, picture_id = $12, picture_alt = $13, published_at = $14, was_published_at = $15, words = $16, body_text = $17,
       search_language = $18::text::regconfig, comments_on = $19, version = items.version + 1, updated_at = now()`,
    [
      item.id,
      item.type,
      item.path,
      item.parentId,
      item.title,
      item.summary,
      item.body,
      item.target,
      item.author,
      item.tags,
      item.position,
      item.pictureId,
      item.pictureAlt,
      item.publishedAt,
      item.wasPublishedAt,
      wordCount(item.body),
      plainText(withoutSections(item.body)).slice(0, MOST_SEARCHED),
      searchLanguage,
      item.commentsOn,
    ],
  );
  await replaceLinks(db, 'item_categories', 'category_id', item.id, item.categories);
  await replaceLinks(db, 'item_pictures', 'picture_id', item.id, picturesIn(item.body));
  await replaceLinks(db, 'item_files', 'file_item_id', item.id, filesIn(item.body));
}

/** What an item is joined to in a table: these, of those that exist, and no others. */
async function replaceLinks(
  db: Db,
  table: 'item_categories' | 'item_pictures' | 'item_files',
  column: 'category_id' | 'picture_id' | 'file_item_id',
  itemId: string,
  ids: string[],
): Promise<void> {
  const of = { category_id: 'categories', picture_id: 'pictures', file_item_id: 'items' }[column];
  await run(db, `DELETE FROM ${table} WHERE item_id = $1`, [itemId]);
  if (ids.length > 0)
    await run(
      db,
      `INSERT INTO ${table} (item_id, ${column}) SELECT $1, id FROM ${of} WHERE id::text = ANY ($2::text[])`,
      [itemId, ids],
    );
}

/** From now on texts are searched in this language. */
export async function setSearchLanguage(db: Db, searchLanguage: string): Promise<void> {
  await run(
    db,
    'UPDATE items SET search_language = $1::text::regconfig WHERE search_language <> $1::text::regconfig',
    [searchLanguage],
  );
}

/**
 * Brings the addresses below an item, or below the list of a kind, into step after its own changed. Those that had been
 * out lead on from their old ones.
 */
export async function moveDescendants(db: Db, oldPath: string, newPath: string): Promise<void> {
  await run(
    db,
    `INSERT INTO redirects (path, item_id)
     SELECT path, id FROM items WHERE starts_with(path, $1 || '/') AND trashed_at IS NULL
       AND (published_at IS NOT NULL OR was_published_at IS NOT NULL)
     ON CONFLICT (path) DO UPDATE SET item_id = excluded.item_id`,
    [oldPath],
  );
  await run(
    db,
    `UPDATE items SET path = $2 || substr(path, length($1) + 1) WHERE starts_with(path, $1 || '/') AND trashed_at IS NULL`,
    [oldPath, newPath],
  );
}

/** People who have an item's old address are led on to it. */
export async function addRedirect(db: Db, path: string, itemId: string): Promise<void> {
  await run(
    db,
    'INSERT INTO redirects (path, item_id) VALUES ($1, $2) ON CONFLICT (path) DO UPDATE SET item_id = $2',
    [path, itemId],
  );
}

/** Deletes redirects from addresses that an item now has. */
export async function dropTakenRedirects(db: Db): Promise<void> {
  await run(db, 'DELETE FROM redirects r USING items i WHERE r.path = i.path AND i.trashed_at IS NULL');
}

/** Moves items to the trash, where they have no address and are not published. @returns how many */
export async function trashItems(db: Db, ids: string[], at: Instant): Promise<number> {
  return run(
    db,
    `UPDATE items SET trashed_at = $2, was_published_at = coalesce(published_at, was_published_at), published_at = NULL,
       version = version + 1, updated_at = now()
     WHERE id = ANY ($1) AND trashed_at IS NULL`,
    [ids, at],
  );
}

/** Brings an item back from the trash, to an address. */
export async function restoreItem(db: Db, id: string, path: string, parentId: string | null): Promise<void> {
  await run(
    db,
    `UPDATE items SET trashed_at = NULL, path = $2, parent_id = $3, version = version + 1, updated_at = now() WHERE id = $1`,
    [id, path, parentId],
  );
}

/** Deletes items of the trash for good. Pages below them that are not deleted are at the top then. @returns how many */
export async function deleteTrashed(db: Db, which: { ids: string[] } | { before: Instant }): Promise<number> {
  const ids = 'ids' in which ? which.ids : null;
  const before = 'before' in which ? which.before : null;
  const where =
    'trashed_at IS NOT NULL AND ($1::text[] IS NULL OR id = ANY ($1)) AND ($2::timestamptz IS NULL OR trashed_at < $2)';
  await run(
    db,
    `UPDATE items SET parent_id = NULL WHERE parent_id IN (SELECT id FROM items WHERE ${where})`,
    [ids, before],
  );
  return run(db, `DELETE FROM items WHERE ${where}`, [ids, before]);
}

/** Brings pages of one parent into this order. */
export async function arrangeItems(db: Db, ids: string[]): Promise<void> {
  await run(
    db,
    `UPDATE items SET position = o.position FROM unnest($1::text[]) WITH ORDINALITY AS o (id, position) WHERE items.id = o.id`,
    [ids],
  );
}
