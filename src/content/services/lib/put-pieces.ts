import { PIECE_BYTES } from '@/core/upload-bounds';
import { pieceSizes, putPiece, readPiece } from '@/content/store/files';
import { pool } from '@/platform/store/db';

/** Writes bytes as pieces of one size, one after the other. */
export async function putPieces(uploadId: string, bytes: AsyncIterable<Uint8Array>): Promise<void> {
  let [held, number] = [Buffer.alloc(0), 0];
  for await (const part of bytes) {
    held = Buffer.concat([held, part]);
    while (held.length >= PIECE_BYTES) {
      await putPiece(pool(), uploadId, number++, held.subarray(0, PIECE_BYTES));
      held = held.subarray(PIECE_BYTES);
    }
  }
  if (held.length > 0) await putPiece(pool(), uploadId, number, held);
}

/** The bytes of an upload, a piece at a time. */
export async function* piecesOf(fileId: string): AsyncGenerator<Uint8Array> {
  for (const { number } of await pieceSizes(pool(), fileId)) {
    const piece = await readPiece(pool(), fileId, number);
    if (piece) yield piece;
  }
}
