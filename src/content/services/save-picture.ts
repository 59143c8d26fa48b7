import sharp from 'sharp';
import { pool } from '@/platform/store/db';
import { insertPicture, type PictureUse } from '@/content/store/pictures';
import { done, refused, refusedField, type Result } from '@/platform/result';
import { z } from 'zod';
import { staffUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';
import { problem } from '@/words/problems';

const MAX_PIXELS = 40_000_000;
/** What a camera or a painter writes. Drawings that could carry a script or lead elsewhere are not among them. */
const FORMATS = new Set<string | undefined>(['jpeg', 'png', 'webp', 'heif', 'gif']);
/** What a card shows at twice its size, and what fills a wide screen. */
const BOXES = { tier: { width: 1280, height: 960 }, content: { width: 2000, height: 2000 } };
/** Where a picture is shown small. */
const SMALL = { width: 720, height: 720 };

/**
 * Keeps a picture: whatever was uploaded is decoded and written anew as WebP, so that nothing but a picture is ever
 * served, without what a camera hides in it. Refuses what cannot be read as one.
 */
async function keep(of: PictureUse, bytes: Uint8Array): Promise<Result<{ id: string }>> {
  if (bytes.byteLength > MOST_PICTURE_BYTES)
    return refused({ picture: problem('picture.too-large') }, 'too-large');
  try {
    const { format } = await sharp(bytes, { limitInputPixels: MAX_PIXELS }).metadata();
    if (!FORMATS.has(format)) return refusedField('picture', 'picture.unreadable');
    const whole = await resized(bytes, BOXES[of]);
    const small = of === 'content' ? (await resized(whole.data, SMALL)).data : null;
    const { width, height } = whole.info;
    return done({
      id: await insertPicture(pool(), { width, height, bytes: whole.data, small, of, name: '' }),
    });
  } catch {
    return refusedField('picture', 'picture.unreadable');
  }
}

const resized = (bytes: Uint8Array, box: { width: number; height: number }) =>
  sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
    .rotate()
    .resize({ ...box, fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 82 })
    .toBuffer({ resolveWithObject: true });

const bytesSchema = z.instanceof(Uint8Array);

/** A picture for the card of a tier. */
export const savePicture = staffUse('set tiers')('save-picture', bytesSchema, async (_, bytes) =>
  keep('tier', bytes),
);

/** A picture for an item: beside its title or in its text. */
export const saveContentPicture = staffUse('write content')(
  'save-content-picture',
  bytesSchema,
  async (_, bytes) => keep('content', bytes),
);

/** Whether the caller may upload a picture for a tier, or for an item; checked before the upload. */
export const maySavePicture = staffUse('set tiers')('may-save-picture', nothing, async () =>
  Promise.resolve(done(null)),
);
export const mayUpload = staffUse('write content')('may-upload', nothing, async () =>
  Promise.resolve(done(null)),
);
