import sharp from 'sharp';
import { pool } from '@/platform/store/db';
import { findPicture, insertPicture } from '@/content/store/pictures';
import { done, found, refused, refusedField, type Result } from '@/platform/result';
import { z } from 'zod';
import { publicUse, staffUse } from '@/platform/use';
import { nothing, uuid } from '@/platform/inputs';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';
import { problem } from '@/words/problems';

const MAX_PIXELS = 40_000_000;
/** What a camera or a painter writes. Drawings that could carry a script or lead elsewhere are not among them. */
const FORMATS = new Set<string | undefined>(['jpeg', 'png', 'webp', 'heif', 'gif']);
/** What a card shows at twice its size. */
const BOX = { width: 1280, height: 960 };

/**
 * Keeps a picture: whatever was uploaded is decoded and written anew as WebP, so that nothing but a picture is ever
 * served, without what a camera hides in it. Refuses what cannot be read as one.
 */
export const savePicture = staffUse('set tiers')(
  'save-picture',
  z.instanceof(Uint8Array),
  async (_, bytes): Promise<Result<{ id: string }>> => {
    if (bytes.byteLength > MOST_PICTURE_BYTES)
      return refused({ picture: problem('picture.too-large') }, 'too-large');
    try {
      const { format } = await sharp(bytes, { limitInputPixels: MAX_PIXELS }).metadata();
      if (!FORMATS.has(format)) return refusedField('picture', 'picture.unreadable');
      const { data, info } = await sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
        .rotate()
        .resize({ ...BOX, fit: 'inside', withoutEnlargement: true })
        .webp({ quality: 82 })
        .toBuffer({ resolveWithObject: true });
      return done({
        id: await insertPicture(pool(), { width: info.width, height: info.height, bytes: data }),
      });
    } catch {
      return refusedField('picture', 'picture.unreadable');
    }
  },
);

/** An uploaded picture. Anyone may see it, because it appears on public pages. */
export const pictureById = publicUse('picture-by-id', uuid, async (_, id) =>
  found(await findPicture(pool(), id)),
);

/** Whether the caller may upload a picture, checked before the upload. */
export const maySavePicture = staffUse('set tiers')('may-save-picture', nothing, async () =>
  Promise.resolve(done(null)),
);
