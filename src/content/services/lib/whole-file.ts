import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import { PIECE_BYTES } from '@/core/upload-bounds';
import { pieceSizes, readPiece } from '@/content/store/files';
import type { Db } from '@/platform/store/db';

/** What the pieces make together, read one at a time; null where one is missing or short. */
export async function wholeOf(db: Db, id: string) {
  const pieces = await pieceSizes(db, id);
  const isWhole = pieces.every(
    ({ number, size }, index) => number === index && (size === PIECE_BYTES || index === pieces.length - 1),
  );
  if (pieces.length === 0 || !isWhole) return null;
  const hash = createHash('sha256');
  let [size, found, text]: [number, string | undefined, string | null] = [0, undefined, ''];
  for (const { number } of pieces) {
    const bytes = await readPiece(db, id, number);
    if (!bytes) return null;
    hash.update(bytes);
    size += bytes.byteLength;
    if (number === 0) found = (await fileTypeFromBuffer(bytes))?.ext;
    if (text !== null) text = isText(bytes, number === pieces.length - 1) ? text || textOf(bytes) : null;
  }
  return { size, sha256: hash.digest('hex'), found, text };
}

const textOf = (bytes: Buffer): string => bytes.subarray(0, 1000).toString('utf8');

/** Whether bytes are UTF-8 text. A piece may end within a character; the last one may not. */
function isText(bytes: Buffer, isLast: boolean): boolean {
  if (bytes.includes(0)) return false;
  try {
    // What comes before a piece's first whole character belongs to the piece before.
    let first = 0;
    while (first < 4 && ((bytes[first] ?? 0) & 0xc0) === 0x80) first++;
    new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(first), { stream: !isLast });
    return true;
  } catch {
    return false;
  }
}
