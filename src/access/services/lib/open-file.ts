import { byteRange, type ByteRange } from '@/core/content/media';
import { PIECE_BYTES } from '@/core/upload-bounds';
import { findFileOf, readPiece, type StoredFile } from '@/content/store/files';
import { findHead } from '@/content/store/items';
import { done, missing, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { isLetIn, isOut, judge, type Reader } from './reader';

/** A file that was asked for: what it is, the part that was meant, and its bytes, a piece at a time. */
export type OpenFile = {
  file: Pick<StoredFile, 'name' | 'mediaType' | 'size' | 'sha256'>;
  /** Undefined: all of it. Null: there is no such part. */
  range: ByteRange | null | undefined;
  bytes: () => AsyncGenerator<Uint8Array>;
};

/** The bytes of a file, for a reader whom the rules let in now; there is nothing for others. */
export async function openTo(
  reader: Reader,
  { id, range: asked }: { id: string; range: string | null },
): Promise<Result<OpenFile>> {
  const item = await findHead(pool(), id);
  if (!item || item.trashedAt || (!isOut(reader, item) && !reader.person.readsAll)) return missing();
  const file = await findFileOf(pool(), id);
  if (!file || !isLetIn((await judge(reader, [item]))(id))) return missing();
  const range = byteRange(asked, file.size);
  const { first, last } = range ?? { first: 0, last: file.size - 1 };
  return done({ file, range, bytes: () => piecesOf(file.id, first, last) });
}

async function* piecesOf(fileId: string, first: number, last: number): AsyncGenerator<Uint8Array> {
  for (let number = Math.floor(first / PIECE_BYTES); number * PIECE_BYTES <= last; number++) {
    const bytes = await readPiece(pool(), fileId, number);
    if (!bytes) return;
    const start = number * PIECE_BYTES;
    yield bytes.subarray(Math.max(0, first - start), Math.min(bytes.byteLength, last - start + 1));
  }
}
