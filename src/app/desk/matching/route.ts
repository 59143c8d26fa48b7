import { currentActor, refusal } from '@/app/session';
import { matchingItems } from '@/access/services/access-map';

/** What an address with stars covers: ?pattern=/library/* */
export async function GET(request: Request): Promise<Response> {
  const pattern = new URL(request.url).searchParams.get('pattern') ?? '';
  const found = await matchingItems(await currentActor(), pattern.slice(0, 500));
  return found.ok ? Response.json(found.value) : refusal(found);
}
