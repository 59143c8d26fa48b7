import 'server-only';
import { cookies, headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { cache } from 'react';
import { cookieName, isHttps } from '@/platform/cookies';
import { may, type Right } from '@/core/staff';
import { powersOf } from '@/platform/site';
import { VISITOR_ACTOR, type Actor, type Browser } from '@/platform/actor';
import type { RefusalCode, Result } from '@/platform/result';
import { claimReads } from '@/access/services/claim-reads';
import { claimPasses } from '@/access/services/get-pass';
import { signOut, whoIsThere } from '@/people/services/sign-in';
import { siteFacts } from '@/desk/services/site-settings';
import { setCookie, shareNot, takeUp } from '@/platform/request';
import { deskWordsOf } from '@/words/desk';
import { problem } from '@/words/problems';
import { wordsOf, type Words } from '@/words/words';

const DAY = 86_400;

type Secret = 'session' | 'device' | 'code' | 'reads' | 'passes';
const LASTS: Record<Secret, number> = {
  session: 30 * DAY,
  device: 90 * DAY,
  code: 3600,
  reads: 400 * DAY,
  passes: 400 * DAY,
};

export async function setSecrets(secrets: Partial<Record<Secret, string>>): Promise<void> {
  const jar = await cookies();
  for (const [name, value] of Object.entries(secrets) as [Secret, string][])
    jar.set(cookieName(name), value, {
      httpOnly: true,
      sameSite: 'lax',
      secure: isHttps(),
      path: '/',
      maxAge: LASTS[name],
    });
  const { session } = secrets;
  if (session) {
    const [reads, passes] = [jar.get(cookieName('reads'))?.value, jar.get(cookieName('passes'))?.value];
    const browser = { session, reads, passes };
    await claimReads({ ...VISITOR_ACTOR, browser });
    await claimPasses({ ...VISITOR_ACTOR, browser });
  }
}

/** Sets the cookie that counts a visitor's free reads. Pages can't set cookies through the framework while they render. */
export const giveReads = (value: string): void =>
  setCookie(
    `${cookieName('reads')}=${value}; Path=/; Max-Age=${LASTS.reads}; HttpOnly; SameSite=Lax${isHttps() ? '; Secure' : ''}`,
  );

export async function dropSecrets(...names: (Secret | 'look')[]): Promise<void> {
  const jar = await cookies();
  for (const name of names) jar.delete({ name: cookieName(name), path: '/', secure: isHttps() });
}

/** The viewpoint that staff chose; null to see with their own eyes. */
export async function setLook(viewpoint: string | null): Promise<void> {
  if (viewpoint === null) return dropSecrets('look');
  (await cookies()).set(cookieName('look'), viewpoint, {
    httpOnly: true,
    sameSite: 'lax',
    secure: isHttps(),
    path: '/',
    maxAge: 3600,
  });
}

export const THEMES = ['light', 'dark'] as const;
export async function currentTheme(): Promise<(typeof THEMES)[number] | undefined> {
  const theme = (await cookies()).get(cookieName('theme'))?.value;
  return THEMES.find((known) => known === theme);
}
export async function setTheme(theme: (typeof THEMES)[number] | undefined): Promise<void> {
  const jar = await cookies();
  if (!theme) jar.delete({ name: cookieName('theme'), path: '/', secure: isHttps() });
  else
    jar.set(cookieName('theme'), theme, {
      httpOnly: true,
      path: '/',
      sameSite: 'lax',
      secure: isHttps(),
      maxAge: 365 * DAY,
    });
}

/** Where the request comes from, as our own server tells; what a browser says of itself there is replaced by it. */
export const CALLER_HEADER = 'x-nest-caller';

/** Whether a person opens a page with the request, as our own server tells. */
export const VIEW_HEADER = 'x-nest-view';

/** Who calls, with what the browser carries of ours; looked up once a request. */
export const currentActor = cache(async (): Promise<Actor> => {
  takeUp();
  const [jar, head] = [await cookies(), await headers()];
  const read = (name: Secret | 'look'): string | undefined => jar.get(cookieName(name))?.value.slice(0, 200);
  const browser: Browser = {
    session: read('session'),
    device: read('device'),
    code: read('code'),
    reads: read('reads'),
    passes: read('passes'),
    embeds: jar
      .getAll()
      .filter(({ name }) => name.startsWith(cookieName('embed_')))
      .slice(0, 20)
      .map(({ value }) => value.slice(0, 200)),
    isView: head.get(VIEW_HEADER) === 'yes',
    agent: head.get('user-agent')?.slice(0, 300),
  };
  const visitor: Actor = { ...VISITOR_ACTOR, browser, address: head.get(CALLER_HEADER) ?? 'unknown' };
  const member = browser.session ? await shown(whoIsThere(visitor)) : null;
  if (!member) return visitor;
  return {
    ...visitor,
    kind: member.staffRole ? 'staff' : 'member',
    memberId: member.id,
    staffRole: member.staffRole,
    look: read('look'),
  };
});

/** The member who is signed in with this request; what shows them is for them alone. */
export const currentMember = cache(async () => {
  const actor = await currentActor();
  if (!actor.memberId) return null;
  shareNot();
  return shown(whoIsThere(actor));
});

export const currentSite = cache(async () => {
  // The site's version comes along with the session, so that is asked for first.
  await currentActor();
  return shown(siteFacts(VISITOR_ACTOR));
});

/** How the site speaks to members and visitors. */
export const siteWords = cache(async (): Promise<Words> => wordsOf(await currentSite()));
/** How the Desk speaks. */
export const deskWords = cache(async (): Promise<Words> => deskWordsOf(await currentSite()));
/** The language in which this request is answered, by the part of the product that was asked. */
export const currentWords = async (): Promise<Words> => ((await isInDesk()) ? deskWords() : siteWords());

/** Whether the Desk is asked, and not the site. */
export const isInDesk = async (): Promise<boolean> =>
  /^\/desk(\/|$)/.test((await headers()).get('x-path') ?? '');

/** For pages: what a use case answers; where it refuses, the page that says so. */
export async function shown<T>(answer: Promise<Result<T>>): Promise<T> {
  const result = await answer;
  if (result.ok) return result.value;
  if (result.code === 'sign-in') {
    const path = (await headers()).get('x-path') ?? '/account';
    redirect(`${path.startsWith('/desk') ? '/desk' : ''}/sign-in?to=${encodeURIComponent(path)}`);
  }
  if (result.code === 'forbidden') redirect('/desk/refused');
  notFound();
}

/**
 * For pages of the Desk: the staff member who looks, with what they may; others are led to sign in, or told that their role may
 * not, where they have none of the rights.
 */
export async function requireStaff(...rights: Right[]) {
  const member = await currentMember();
  const powers = await powersOf({ staffRole: member?.staffRole ?? null });
  const isMissing = rights.length > 0 && !rights.some((right) => may(powers, right));
  if (member?.staffRole && isMissing) redirect('/desk/refused');
  if (!member?.staffRole) {
    const path = (await headers()).get('x-path') ?? '/desk';
    redirect(`/desk/sign-in?to=${encodeURIComponent(path)}`);
  }
  return { ...member, powers, may: (right: Right): boolean => may(powers, right) };
}

/** The status under which a refusal is answered. */
export const STATUS: Record<RefusalCode, number> = {
  'sign-in': 401,
  forbidden: 403,
  missing: 404,
  'too-large': 413,
  invalid: 400,
};

/** For route handlers: a refusal as an answer with its status. */
export async function refusal(result: Extract<Result<unknown>, { ok: false }>): Promise<Response> {
  const t = await currentWords();
  const words = t.problem(Object.values(result.problems)[0] ?? problem('form.unknown'));
  return new Response(words, { status: STATUS[result.code ?? 'invalid'] });
}

export async function signOutBrowser(): Promise<void> {
  await signOut(await currentActor());
  await dropSecrets('session', 'code', 'look');
}
