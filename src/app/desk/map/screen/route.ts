import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { mapScreen } from '@/access/services/map';
import { MOST_DRAFT_BYTES } from '@/core/upload-bounds';

/** The map as it is asked for, with the first rows of the groups that are open. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, (input) => mapScreen(actor, input), MOST_DRAFT_BYTES);
}
