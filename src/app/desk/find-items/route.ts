import { currentActor, refusal } from '@/app/session';
import { findItems } from '@/access/services/content-place';

/** Items by a part of their title or address: ?q=atlas, and &kind=file for one kind. */
export async function GET(request: Request): Promise<Response> {
  const { searchParams } = new URL(request.url);
  const found = await findItems(await currentActor(), {
    q: (searchParams.get('q') ?? '').slice(0, 200),
    kind: searchParams.get('kind')?.slice(0, 200) ?? undefined,
  });
  return found.ok ? Response.json(found.value) : refusal(found);
}
