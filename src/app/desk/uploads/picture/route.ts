import { currentActor, refusal } from '@/app/session';
import { upload } from '@/app/uploads';
import { maySavePicture, savePicture } from '@/content/services/save-picture';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';

/** Keeps a picture as soon as it is chosen; the form then names it by its id. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  // Asked before anything is read: nobody sends 8 MB to be told that they may not.
  const allowed = await maySavePicture(actor);
  if (!allowed.ok) return refusal(allowed);
  return upload(request, MOST_PICTURE_BYTES, (bytes) => savePicture(actor, bytes));
}
