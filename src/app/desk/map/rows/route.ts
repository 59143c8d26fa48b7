import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { moreRows } from '@/access/services/map';
import { MOST_DRAFT_BYTES } from '@/core/upload-bounds';

/** More rows of a group of the map. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, (input) => moreRows(actor, input), MOST_DRAFT_BYTES);
}
