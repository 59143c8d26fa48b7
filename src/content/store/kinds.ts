import type { CommentSettings } from '@/core/content/comments';
import { commentSettingsSchema } from '@/core/content/comments-schema';
import { many, run, type Db } from '@/platform/store/db';

/** A kind of items. A name that is empty is the product's own word; `path` is null for the tree of pages. */
export type Kind = {
  id: string;
  name: string;
  plural: string;
  path: string | null;
  comments: CommentSettings;
};

/** In their order, those that are there from the start first. */
export async function listKinds(db: Db): Promise<Kind[]> {
  return many(
    db,
    'SELECT id, name, plural, path, comments FROM kinds ORDER BY position, created_at, id',
    [],
    {
      comments: commentSettingsSchema,
    },
  );
}

/** Makes a kind or changes one. @throws a conflict where another kind has the address */
export async function saveKind(db: Db, { id, name, plural, path, comments }: Kind): Promise<void> {
  await run(
    db,
    `INSERT INTO kinds (id, name, plural, path, comments, position)
     VALUES ($1, $2, $3, $4, $5, (SELECT max(position) + 1 FROM kinds))
     ON CONFLICT (id) DO UPDATE SET name = $2, plural = $3, path = $4, comments = $5`,
    [id, name, plural, path, comments],
  );
}

/** @throws a breach where items of the kind are left, in the trash too */
export async function deleteKind(db: Db, id: string): Promise<void> {
  await run(db, 'DELETE FROM kinds WHERE id = $1', [id]);
}

/** How many items of each kind there are: in the trash, and not. */
export async function countByKind(db: Db): Promise<Map<string, { items: number; trashed: number }>> {
  const rows = await many<{ id: string; items: bigint; trashed: bigint }>(
    db,
    `SELECT type AS id, count(*) FILTER (WHERE trashed_at IS NULL) AS items, count(*) FILTER (WHERE trashed_at IS NOT NULL) AS trashed
     FROM items GROUP BY 1`,
  );
  return new Map(
    rows.map(({ id, items, trashed }) => [id, { items: Number(items), trashed: Number(trashed) }]),
  );
}
