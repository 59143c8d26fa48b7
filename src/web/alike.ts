import type { IncomingMessage } from 'node:http';
import { hasMyComments } from '@/access/services/item-comments';
import { alikeNameOf } from '@/access/services/share-with-alike';
import { whoIsThere } from '@/people/services/sign-in';
import { VISITOR_ACTOR } from '@/platform/actor';
import { cookieName } from '@/platform/cookies';
import type { InHand } from '@/platform/request';

/** Values of a cookie that a request carries: a browser may have several of one name. */
const cookiesNamed = (cookies: string, name: string): string[] =>
  cookies
    .split(';')
    .map((one) => one.trim())
    .filter((one) => one.startsWith(`${cookieName(name)}=`))
    .map((one) => one.slice(one.indexOf('=') + 1));

/**
 * The name of all who are answered alike if they ask for the page that is asked for: visitors who carry nothing of ours, or
 * members to whom rules say the same. Null where the one who asks is answered alone. What the framework asks for by script is
 * not shared at all. Inside of the request, in which who asks is looked up once.
 */
export async function alikeWith(
  { method, headers }: IncomingMessage,
  inHand: InHand,
): Promise<string | null> {
  if (method !== 'GET' || headers.authorization || headers.rsc || headers['next-action']) return null;
  const { cookie } = headers;
  if (!cookie) return '';
  const [session, another] = cookiesNamed(cookie, 'session');
  if (!session || another !== undefined || cookiesNamed(cookie, 'look').length > 0) return null;
  const actor = { ...VISITOR_ACTOR, browser: { session: session.slice(0, 200) } };
  const there = await whoIsThere(actor);
  const member = there.ok ? there.value : null;
  if (!member || member.staffRole !== null) return null;
  const found = await alikeNameOf({ ...actor, kind: 'member', memberId: member.id });
  const name = found.ok ? found.value : null;
  if (name === null) return null;
  inHand.alike = { memberId: member.id, name };
  return [...cookiesNamed(cookie, 'theme'), name].join(' ');
}

/** Whether the member who asks has written a comment on an item. */
export async function hasWritten({ alike }: InHand, itemId: string): Promise<boolean> {
  if (!alike) return false;
  const found = await hasMyComments({ kind: 'member', memberId: alike.memberId, staffRole: null }, itemId);
  return !found.ok || found.value;
}
