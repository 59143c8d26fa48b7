import { redirect } from 'next/navigation';
import { currentActor, refusal } from '@/app/session';
import { askedHere } from '@/access/services/why';

/** Leads from a page of the site that staff look at as someone else to why they see of it what they do: ?path=/posts/frost-note */
export async function GET(request: Request): Promise<Response> {
  const path = new URL(request.url).searchParams.get('path') ?? '/';
  const asked = await askedHere(await currentActor(), path.slice(0, 2_000));
  if (!asked.ok) return refusal(asked);
  redirect(`/desk/access?${new URLSearchParams(asked.value).toString()}`);
}
