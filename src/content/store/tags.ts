import { many, run, type Db } from '@/platform/store/db';

export type Tag = { id: string; name: string };

/** In their order. */
export async function listTags(db: Db): Promise<Tag[]> {
  return many(db, 'SELECT id, name FROM tags ORDER BY position, lower(name), id');
}

/** Adds the tags that are not there yet; a tag that is keeps its name. */
export async function addTags(db: Db, tags: Tag[]): Promise<void> {
  await run(
    db,
    `INSERT INTO tags (id, name) SELECT * FROM unnest($1::text[], $2::text[]) ON CONFLICT DO NOTHING`,
    [tags.map(({ id }) => id), tags.map(({ name }) => name)],
  );
}

export async function renameTag(db: Db, { id, name }: Tag): Promise<void> {
  await run(db, 'UPDATE tags SET name = $2 WHERE id = $1', [id, name]);
}

/** Brings tags into this order. */
export async function arrangeTags(db: Db, ids: string[]): Promise<void> {
  await run(
    db,
    `UPDATE tags SET position = o.position FROM unnest($1::text[]) WITH ORDINALITY AS o (id, position) WHERE tags.id = o.id`,
    [ids],
  );
}

/** Deletes a tag; what had it has `into` then, where that is given. */
export async function removeTag(db: Db, id: string, into: string | null): Promise<void> {
  if (into !== null)
    await run(
      db,
      `UPDATE items SET tags = tags || $2::text WHERE tags @> ARRAY[$1::text] AND NOT tags @> ARRAY[$2::text]`,
      [id, into],
    );
  await run(db, 'UPDATE items SET tags = array_remove(tags, $1) WHERE tags @> ARRAY[$1::text]', [id]);
  await run(db, 'DELETE FROM tags WHERE id = $1', [id]);
}

/** How many items have each tag, those in the trash left out. */
export async function countByTag(db: Db): Promise<Map<string, number>> {
  const rows = await many<{ id: string; items: bigint }>(
    db,
    'SELECT tag AS id, count(*) AS items FROM items, unnest(tags) AS tag WHERE trashed_at IS NULL GROUP BY 1',
  );
  return new Map(rows.map(({ id, items }) => [id, Number(items)]));
}
