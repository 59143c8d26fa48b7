import { WRITES } from '@/core/staff';
import { pool } from '@/platform/store/db';
import { insertPicture, type PictureUse } from '@/content/store/pictures';
import { done, refused, refusedField, type Result } from '@/platform/result';
import { z } from 'zod';
import { staffUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';
import { problem } from '@/words/problems';
import { pictureBytes } from './lib/picture-bytes';

async function keep(of: PictureUse, bytes: Uint8Array): Promise<Result<{ id: string }>> {
  if (bytes.byteLength > MOST_PICTURE_BYTES)
    return refused({ picture: problem('picture.too-large') }, 'too-large');
  const picture = await pictureBytes(of, bytes);
  if (!picture) return refusedField('picture', 'picture.unreadable');
  return done({ id: await insertPicture(pool(), { ...picture, of, name: '' }) });
}

const bytesSchema = z.instanceof(Uint8Array);

/** A picture for the card of a tier. */
export const savePicture = staffUse('set tiers')('save-picture', bytesSchema, async (_, bytes) =>
  keep('tier', bytes),
);

/** A picture for an item: beside its title or in its text. */
export const saveContentPicture = staffUse(...WRITES, 'change settings')(
  'save-content-picture',
  bytesSchema,
  async (_, bytes) => keep('content', bytes),
);

/** Whether the caller may upload a picture for a tier, or for an item; checked before the upload. */
export const maySavePicture = staffUse('set tiers')('may-save-picture', nothing, async () =>
  Promise.resolve(done(null)),
);
export const mayUpload = staffUse(...WRITES, 'change settings')('may-upload', nothing, async () =>
  Promise.resolve(done(null)),
);
