import type { PictureId } from '@/core/ids';
import { many, maybeOne, one, run, type Db } from '@/platform/store/db';

/** What shows a picture: the card of a tier, or an item. */
export type PictureUse = 'tier' | 'content';
/** A picture as WebP; width and height in pixels. `small`: the same, for places where it is shown small. */
export type Picture = {
  id: PictureId;
  width: number;
  height: number;
  bytes: Buffer;
  small: Buffer | null;
  of: PictureUse;
  name: string;
};

/** Adds a picture, under an id that is known from elsewhere, or a new one. @returns its id */
export async function insertPicture(db: Db, p: Omit<Picture, 'id'> & { id?: PictureId }): Promise<PictureId> {
  const { id } = await one<{ id: string }>(
    db,
    `INSERT INTO pictures (id, width, height, bytes, small, of, name)
     VALUES (coalesce($7::uuid, gen_random_uuid()), $1, $2, $3, $4, $5, $6) RETURNING id`,
    [p.width, p.height, p.bytes, p.small, p.of, p.name, p.id ?? null],
  );
  return id;
}

export async function findPicture(db: Db, id: PictureId): Promise<Picture | undefined> {
  return maybeOne(db, 'SELECT id, width, height, bytes, small, of, name FROM pictures WHERE id = $1', [id]);
}

export type PictureSize = { id: PictureId; width: number; height: number };

export async function pictureSizes(db: Db, ids: PictureId[]): Promise<Map<string, PictureSize>> {
  const sizes = await many<PictureSize>(
    db,
    'SELECT id, width, height FROM pictures WHERE id = ANY ($1::uuid[])',
    [ids],
  );
  return new Map(sizes.map((size) => [size.id, size]));
}

/** Which items show a picture: beside their title, and in their text. */
export async function itemsWithPicture(
  db: Db,
  id: PictureId,
): Promise<{ beside: string[]; within: string[] }> {
  const beside = await many<{ id: string }>(
    db,
    'SELECT id FROM items WHERE picture_id = $1 AND trashed_at IS NULL',
    [id],
  );
  const within = await many<{ id: string }>(
    db,
    'SELECT item_id AS id FROM item_pictures WHERE picture_id = $1',
    [id],
  );
  return { beside: beside.map((item) => item.id), within: within.map((item) => item.id) };
}

/** Deletes all pictures of tiers but those that are shown. One that was just chosen in a form may still be saved with it. */
export async function deleteUnusedPictures(db: Db, shown: string[]): Promise<void> {
  await run(
    db,
    `DELETE FROM pictures WHERE of = 'tier' AND created_at < now() - interval '1 day' AND NOT id = ANY ($1::uuid[])`,
    [shown],
  );
}
