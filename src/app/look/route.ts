import { redirect } from 'next/navigation';
import { text } from '@/app/form-state';
import { isSameOrigin } from '@/app/same-origin';
import { currentActor, currentWords, setLook } from '@/app/session';
import { boundedForm } from '@/app/bounded-body';
import { addressOfItem } from '@/access/services/access-map';
import { chooseViewpoint } from '@/access/services/who-is-looking';
import { safeReturn } from '@/platform/safe-return';

/**
 * Chooses the eyes through which staff see the site: a viewpoint, on a day or now, or "self" to stop. `to`: where to begin, an
 * address of the site, of an item's page in the Desk, or "here" for where the form was.
 */
export async function POST(request: Request): Promise<Response> {
  if (!isSameOrigin(request))
    return new Response('Refused: the request came from another site.', { status: 403 });
  const form = await boundedForm(request, 10_000);
  if (form instanceof Response) return form;
  const actor = await currentActor();
  const chosen = await chooseViewpoint(actor, { as: text(form, 'as'), on: text(form, 'on') });
  if (!chosen.ok) {
    const t = await currentWords();
    return new Response(Object.values(t.problems(chosen.problems))[0] ?? '', { status: 400 });
  }
  await setLook(chosen.value);
  redirect(chosen.value === null ? '/desk' : await startOf(text(form, 'to'), request));
}

async function startOf(to: string, request: Request): Promise<string> {
  if (to === 'here') return safeReturn(pathOf(request.headers.get('referer') ?? ''));
  const [, id] = /^\/desk\/content\/items\/([^/?]+)/.exec(to) ?? [];
  if (id) {
    const found = await addressOfItem(await currentActor(), decodeURIComponent(id));
    if (found.ok) return found.value;
  }
  return /^\/desk(\/|$)/.test(to) ? '/' : safeReturn(to || '/');
}

const pathOf = (url: string): string => {
  try {
    const { pathname, search } = new URL(url);
    return pathname + search;
  } catch {
    return '/';
  }
};
