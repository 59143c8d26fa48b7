import { currentMember } from '@/app/session';
import { findAnything } from '@/services/find-anything';

/** What the Desk's find shows while one types. */
export async function GET(request: Request): Promise<Response> {
  const member = await currentMember();
  if (!member?.staffRole) return Response.json([], { status: 403 });
  return Response.json(await findAnything(new URL(request.url).searchParams.get('q') ?? ''));
}
