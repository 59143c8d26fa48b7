import { currentActor, refusal } from '@/app/session';
import { findAnything } from '@/desk/services/find-anything';

/** What the Desk's find shows while one types. */
export async function GET(request: Request): Promise<Response> {
  const typed = new URL(request.url).searchParams.get('q') ?? '';
  const hits = await findAnything(await currentActor(), typed.slice(0, 200));
  return hits.ok ? Response.json(hits.value) : refusal(hits);
}
