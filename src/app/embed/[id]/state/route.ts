import { createHash } from 'node:crypto';
import { takeFrameGrant } from '@/access/services/embed';
import { currentActor, STATUS } from '@/app/session';
import { cookieName } from '@/platform/cookies';

type Context = { params: Promise<{ id: string }> };

/**
 * Whether a frame may show its item by now: 204 not yet; 200 with a cookie that is kept for frames of that one site alone, where
 * browsers know of such (Partitioned).
 */
export async function GET(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  const ask = (new URL(request.url).searchParams.get('ask') ?? '').slice(0, 1_000);
  const taken = await takeFrameGrant(await currentActor(), { id, ask });
  if (!taken.ok) return new Response(null, { status: STATUS[taken.code ?? 'invalid'] });
  if (!taken.value) return new Response(null, { status: 204 });
  const { token, hours } = taken.value;
  const name = cookieName(`embed_${createHash('sha256').update(id).digest('hex').slice(0, 12)}`);
  // A frame of another site sends no cookie that is not Secure.
  const cookie = `${name}=${token}; Path=/; Max-Age=${hours * 3600}; HttpOnly; Secure; SameSite=None; Partitioned`;
  return new Response(null, { status: 200, headers: { 'set-cookie': cookie } });
}
