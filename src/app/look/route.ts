import { cookies } from 'next/headers';
import { config } from '@/config';
import { currentMember, LOOK_COOKIE } from '@/app/session';
import { text } from '@/app/form-state';
import { isSameOrigin } from '@/app/same-origin';
import { readsEverything } from '@/services/sessions';

/** Chooses the eyes through which staff see the site: "visitor", "signed-in", "tier:ID", or "self" to stop. */
export async function POST(request: Request): Promise<Response> {
  if (!isSameOrigin(request))
    return new Response('Refused: the request came from another site.', { status: 403 });
  const member = await currentMember();
  const as = text(await request.formData(), 'as');
  const jar = await cookies();
  if (as === 'self' || !member || !readsEverything(member)) {
    jar.delete(LOOK_COOKIE);
    return Response.redirect(`${config().SITE_URL}/desk`, 303);
  }
  jar.set(LOOK_COOKIE, as.slice(0, 100), { httpOnly: true, sameSite: 'lax', path: '/', maxAge: 3600 });
  return Response.redirect(`${config().SITE_URL}/`, 303);
}
