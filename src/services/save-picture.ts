import sharp from 'sharp';
import { pool } from '@/store/db';
import { findPicture, insertPicture, type Picture } from '@/store/pictures';
import { requireRight, type Actor } from './actor';
import { done, refusedField, type Result } from './result';

const MAX_BYTES = 8_000_000;
const MAX_PIXELS = 40_000_000;
/** What a camera or a painter writes. Drawings that could carry a script or lead elsewhere are not among them. */
const FORMATS = new Set<string | undefined>(['jpeg', 'png', 'webp', 'heif', 'gif']);
const UNREADABLE = 'This cannot be read as a picture. Choose a JPEG, PNG, WebP or AVIF file.';
/** What a card shows at twice its size. */
const BOX = { width: 1280, height: 960 };

/**
 * Keeps a picture: whatever was uploaded is decoded and written anew as WebP, so that nothing but a picture is ever
 * served, without what a camera hides in it. Refuses, at `field`, what cannot be read as one.
 */
export async function savePicture(
  actor: Actor,
  bytes: Uint8Array,
  field: string,
): Promise<Result<{ id: string }>> {
  requireRight(actor, 'set tiers');
  if (bytes.byteLength > MAX_BYTES)
    return refusedField(field, 'This picture is larger than 8 MB. Save it smaller, then choose it again.');
  try {
    const { format } = await sharp(bytes, { limitInputPixels: MAX_PIXELS }).metadata();
    if (!FORMATS.has(format)) return refusedField(field, UNREADABLE);
    const { data, info } = await sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
      .rotate()
      .resize({ ...BOX, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    return done({ id: await insertPicture(pool(), { width: info.width, height: info.height, bytes: data }) });
  } catch {
    return refusedField(field, UNREADABLE);
  }
}

export const pictureById = (id: string): Promise<Picture | undefined> => findPicture(pool(), id);
