import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { keepReadingPlace } from '@/access/services/reading-place';

/** Saves how far a member has read: `{ itemId, place }`. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, (input) => keepReadingPlace(actor, input));
}
