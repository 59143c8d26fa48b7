import { maybeOne, one, run, type Db } from '@/platform/store/db';

/** A picture as WebP; width and height in pixels. */
export type Picture = { id: string; width: number; height: number; bytes: Buffer };

export async function insertPicture(db: Db, p: Omit<Picture, 'id'>): Promise<string> {
  const { id } = await one<{ id: string }>(
    db,
    'INSERT INTO pictures (width, height, bytes) VALUES ($1, $2, $3) RETURNING id',
    [p.width, p.height, p.bytes],
  );
  return id;
}

export async function findPicture(db: Db, id: string): Promise<Picture | undefined> {
  return maybeOne(db, 'SELECT * FROM pictures WHERE id = $1', [id]);
}

/** Deletes all pictures but those that are shown. One that was just chosen in a form may still be saved with it. */
export async function deleteUnusedPictures(db: Db, shown: string[]): Promise<void> {
  await run(
    db,
    `DELETE FROM pictures WHERE created_at < now() - interval '1 day' AND NOT id = ANY ($1::uuid[])`,
    [shown],
  );
}
