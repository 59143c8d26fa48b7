import { redirect } from 'next/navigation';
import { text } from '@/app/form-state';
import { isSameOrigin } from '@/app/same-origin';
import { currentActor, setLook } from '@/app/session';
import { boundedForm } from '@/app/bounded-body';
import { chooseViewpoint } from '@/access/services/who-is-looking';

/** Chooses the eyes through which staff see the site: "visitor", "signed-in", "tier:ID", or "self" to stop. */
export async function POST(request: Request): Promise<Response> {
  if (!isSameOrigin(request))
    return new Response('Refused: the request came from another site.', { status: 403 });
  const form = await boundedForm(request, 10_000);
  if (form instanceof Response) return form;
  const chosen = await chooseViewpoint(await currentActor(), text(form, 'as'));
  const viewpoint = chosen.ok ? chosen.value : null;
  await setLook(viewpoint);
  redirect(viewpoint === null ? '/desk' : '/');
}
