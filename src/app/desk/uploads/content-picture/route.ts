import { currentActor, refusal } from '@/app/session';
import { upload } from '@/app/uploads';
import { mayUpload, saveContentPicture } from '@/content/services/save-picture';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';

/** Keeps a picture for an item as soon as it is chosen; the form, or the text, then names it by its id. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  const allowed = await mayUpload(actor);
  if (!allowed.ok) return refusal(allowed);
  return upload(request, MOST_PICTURE_BYTES, (bytes) => saveContentPicture(actor, bytes));
}
