import { enterOutside } from '@/access/services/gate';
import { currentActor } from '@/app/session';
import { outsideCookie, SECRET_HEADER } from '../headers';

/** Reached through the nginx of another host: uses a way in up, gives the browser its cookie there, and leads on. */
export async function GET(request: Request): Promise<Response> {
  const entered = await enterOutside(await currentActor(), {
    secret: request.headers.get(SECRET_HEADER) ?? '',
    token: (new URL(request.url).searchParams.get('token') ?? '').slice(0, 100),
  });
  // Used already, as when someone goes back: the front page of that host asks again.
  if (!entered.ok)
    return entered.code === 'forbidden'
      ? new Response(null, { status: 403 })
      : new Response(null, { status: 302, headers: { location: '/' } });
  const { cookie, to, hours, isHttps } = entered.value;
  const parts = [
    `${outsideCookie(isHttps)}=${cookie}`,
    'Path=/',
    `Max-Age=${hours * 3600}`,
    'HttpOnly',
    'SameSite=Lax',
    ...(isHttps ? ['Secure'] : []),
  ];
  return new Response(null, { status: 302, headers: { location: to, 'set-cookie': parts.join('; ') } });
}
