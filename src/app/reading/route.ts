import { currentActor, refusal } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { keepReadingPlace, readingPlace } from '@/access/services/reading-place';

/** How far a member has read: `?item=ID`, answered with `{ place }`. */
export async function GET(request: Request): Promise<Response> {
  const found = await readingPlace(
    await currentActor(),
    new URL(request.url).searchParams.get('item')?.slice(0, 300),
  );
  return found.ok ? Response.json(found.value) : refusal(found);
}

/** Saves how far a member has read: `{ itemId, place }`. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, (input) => keepReadingPlace(actor, input));
}
