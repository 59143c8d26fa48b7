import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { differingRows } from '@/access/services/map';
import { MOST_DRAFT_BYTES } from '@/core/upload-bounds';

/** The rows of a group of the map that are not decided as the group is. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, (input) => differingRows(actor, input), MOST_DRAFT_BYTES);
}
