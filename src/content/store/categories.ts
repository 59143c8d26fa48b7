import type { Instant } from '@/core/instants';
import { many, run, type Db } from '@/platform/store/db';

export type Category = { id: string; name: string; parentId: string | null; position: number };

/** In their order. */
export async function listCategories(db: Db): Promise<Category[]> {
  return many(db, 'SELECT id, name, parent_id, position FROM categories ORDER BY position, name, id');
}

/** Makes a category, the last of its siblings, or changes one. */
export async function saveCategory(
  db: Db,
  { id, name, parentId }: Omit<Category, 'position'>,
): Promise<void> {
  await run(
    db,
    `INSERT INTO categories (id, name, parent_id, position)
     VALUES ($1, $2, $3, (SELECT coalesce(max(position), 0) + 1 FROM categories))
     ON CONFLICT (id) DO UPDATE SET name = $2, parent_id = $3`,
    [id, name, parentId],
  );
}

/** Brings categories into this order. */
export async function arrangeCategories(db: Db, ids: string[]): Promise<void> {
  await run(
    db,
    `UPDATE categories SET position = o.position FROM unnest($1::text[]) WITH ORDINALITY AS o (id, position) WHERE categories.id = o.id`,
    [ids],
  );
}

/** Deletes a category; what was in it is in `into` then, where that is given. Those below it move up to its parent. */
export async function removeCategory(db: Db, id: string, into: string | null): Promise<void> {
  if (into !== null)
    await run(
      db,
      `INSERT INTO item_categories (item_id, category_id) SELECT item_id, $2 FROM item_categories WHERE category_id = $1
       ON CONFLICT DO NOTHING`,
      [id, into],
    );
  await run(db, 'DELETE FROM item_categories WHERE category_id = $1', [id]);
  await run(
    db,
    'UPDATE categories SET parent_id = (SELECT parent_id FROM categories WHERE id = $1) WHERE parent_id = $1',
    [id],
  );
  await run(db, 'DELETE FROM categories WHERE id = $1', [id]);
}

/** How many items are in each category itself, those in the trash left out. */
export async function countByCategory(db: Db): Promise<Map<string, number>> {
  const rows = await many<{ id: string; items: bigint }>(
    db,
    `SELECT c.category_id AS id, count(*) AS items FROM item_categories c JOIN items i ON i.id = c.item_id
     WHERE i.trashed_at IS NULL GROUP BY 1`,
  );
  return new Map(rows.map(({ id, items }) => [id, Number(items)]));
}

/** The categories in which something is published by the site's clock, or in one below them. */
export async function usedCategories(db: Db, at: Instant, hidden: string[] = []): Promise<Set<string>> {
  const rows = await many<{ id: string }>(
    db,
    `WITH RECURSIVE up AS (
       SELECT c.id, c.parent_id FROM categories c WHERE EXISTS (
         SELECT FROM item_categories ic JOIN items i ON i.id = ic.item_id
         WHERE ic.category_id = c.id AND i.trashed_at IS NULL AND i.published_at <= $1 AND NOT i.id = ANY ($2))
       UNION SELECT c.id, c.parent_id FROM categories c JOIN up ON c.id = up.parent_id
     ) SELECT id FROM up`,
    [at, hidden],
  );
  return new Set(rows.map(({ id }) => id));
}
