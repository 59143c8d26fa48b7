import { many, maybeOne, one, run, type Db } from '@/platform/store/db';
import type { ItemId } from '@/core/ids';

/** A file as it was uploaded; `size` in bytes. Its item is null while it is on its way. */
export type StoredFile = {
  id: string;
  itemId: ItemId | null;
  name: string;
  mediaType: string;
  size: number;
  sha256: string;
};
type Row = Omit<StoredFile, 'size'> & { size: bigint };

const COLUMNS = 'id, item_id, name, media_type, size, sha256';
const fromRow = (row: Row): StoredFile => ({ ...row, size: Number(row.size) });

/** A file that is about to be uploaded. @returns its id */
export async function beginFile(db: Db, name: string): Promise<string> {
  const { id } = await one<{ id: string }>(
    db,
    `INSERT INTO files (name, media_type, size, sha256) VALUES ($1, '', 0, '') RETURNING id`,
    [name],
  );
  return id;
}

/** A file that no item has yet. */
export async function findUpload(db: Db, id: string): Promise<StoredFile | undefined> {
  const row = await maybeOne<Row>(
    db,
    `SELECT ${COLUMNS} FROM files WHERE id = $1 AND item_id IS NULL FOR UPDATE`,
    [id],
  );
  return row && fromRow(row);
}

/** Writes a piece, over the same piece where it is sent again. */
export async function putPiece(db: Db, fileId: string, number: number, bytes: Uint8Array): Promise<void> {
  await run(
    db,
    `INSERT INTO file_pieces (file_id, number, bytes) VALUES ($1, $2, $3)
     ON CONFLICT (file_id, number) DO UPDATE SET bytes = excluded.bytes`,
    [fileId, number, bytes],
  );
}

/** How many bytes each piece of a file has, in order. */
export async function pieceSizes(db: Db, fileId: string): Promise<{ number: number; size: number }[]> {
  return many(
    db,
    'SELECT number, octet_length(bytes) AS size FROM file_pieces WHERE file_id = $1 ORDER BY number',
    [fileId],
  );
}

export async function readPiece(db: Db, fileId: string, number: number): Promise<Buffer | undefined> {
  const row = await maybeOne<{ bytes: Buffer }>(
    db,
    'SELECT bytes FROM file_pieces WHERE file_id = $1 AND number = $2',
    [fileId, number],
  );
  return row?.bytes;
}

/** Gives an upload to an item, in place of what that had. */
export async function giveFile(
  db: Db,
  file: { id: string; itemId: ItemId; name: string; mediaType: string; size: number; sha256: string },
): Promise<void> {
  await run(db, 'DELETE FROM files WHERE item_id = $1 AND id <> $2', [file.itemId, file.id]);
  await run(
    db,
    'UPDATE files SET item_id = $2, name = $3, media_type = $4, size = $5, sha256 = $6 WHERE id = $1',
    [file.id, file.itemId, file.name, file.mediaType, file.size, file.sha256],
  );
}

export async function findFileOf(db: Db, itemId: ItemId): Promise<StoredFile | undefined> {
  const row = await maybeOne<Row>(db, `SELECT ${COLUMNS} FROM files WHERE item_id = $1`, [itemId]);
  return row && fromRow(row);
}

export async function listFilesOf(db: Db, itemIds: ItemId[]): Promise<Map<string, StoredFile>> {
  const rows = await many<Row>(db, `SELECT ${COLUMNS} FROM files WHERE item_id = ANY ($1)`, [itemIds]);
  return new Map(rows.map((row) => [row.itemId ?? '', fromRow(row)]));
}

/** Which items offer which of these files in their text. */
export async function itemsOffering(
  db: Db,
  fileItemIds: ItemId[],
): Promise<{ itemId: ItemId; fileItemId: ItemId }[]> {
  return many(
    db,
    `SELECT f.item_id, f.file_item_id FROM item_files f JOIN items i ON i.id = f.item_id
     WHERE f.file_item_id = ANY ($1) AND i.trashed_at IS NULL`,
    [fileItemIds],
  );
}

/** Deletes uploads that were begun a day ago and never finished. @returns how many */
export async function deleteOldUploads(db: Db): Promise<number> {
  return run(db, `DELETE FROM files WHERE item_id IS NULL AND created_at < now() - interval '1 day'`);
}
