import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { beginUpload } from '@/content/services/upload-file';

/** Begins an upload: `{ name, size }` in, `{ id }` out. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, (input) => beginUpload(actor, input));
}
