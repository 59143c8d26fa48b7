import { cookies } from 'next/headers';
import { askGate } from '@/access/services/gate';
import { currentActor } from '@/app/session';
import { OUTSIDE_COOKIES, SECRET_HEADER } from './headers';

/** Answers nginx's auth_request: 204 open, 401 led to sign in, 403 led to a doorstep; `X-Nest-To` says where that is. */
export async function GET(request: Request): Promise<Response> {
  const head = (name: string): string => request.headers.get(name) ?? '';
  const jar = await cookies();
  const cookie = OUTSIDE_COOKIES.map((name) => jar.get(name)?.value).find((value) => value !== undefined);
  const asked = await askGate(await currentActor(), {
    secret: head(SECRET_HEADER),
    raw: head('x-nest-raw'),
    served: head('x-nest-served'),
    cookie: cookie?.slice(0, 200),
  });
  if (!asked.ok) return new Response(null, { status: 403 });
  const answer = asked.value;
  if (answer.state === 'open') return new Response(null, { status: 204 });
  return new Response(null, {
    status: answer.state === 'sign-in' ? 401 : 403,
    headers: { 'x-nest-to': answer.to },
  });
}
