import 'server-only';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { may, type Right } from '@/core/staff';
import { config } from '@/config';
import type { Actor } from '@/services/actor';
import { viewerOf } from '@/services/viewer';
import { actorFor, endSession, memberOfSession, SESSION_DAYS, startSession } from '@/services/sessions';

const COOKIE = 'nest_session';

/** The member who is signed in with this request; looked up once a request. */
export const currentMember = cache(async () => memberOfSession((await cookies()).get(COOKIE)?.value));

export async function currentActor(): Promise<Actor> {
  return actorFor(await currentMember());
}

/** For pages of the Desk: the staff member who looks; others are led to sign in, or told that their role does not. */
export async function requireStaff(right: Right = 'look') {
  const member = await currentMember();
  if (member?.staffRole && !may(member.staffRole, right)) redirect('/desk/refused');
  if (!member?.staffRole) {
    const path = (await headers()).get('x-path') ?? '/desk';
    redirect(`/desk/sign-in?to=${encodeURIComponent(path)}`);
  }
  return member;
}

/** Signs a member in with a session of its own; an older session of this browser ends. */
export async function signInSession(memberId: string): Promise<void> {
  const jar = await cookies();
  const old = jar.get(COOKIE)?.value;
  if (old) await endSession(old);
  jar.set(COOKIE, await startSession(memberId), {
    httpOnly: true,
    sameSite: 'lax',
    secure: config().SITE_URL.startsWith('https:'),
    path: '/',
    maxAge: SESSION_DAYS * 86_400,
  });
}

export async function signOutSession(): Promise<void> {
  const jar = await cookies();
  const token = jar.get(COOKIE)?.value;
  if (token) await endSession(token);
  jar.delete(COOKIE);
}

/** Names the joining that this browser began and that goes on at a wallet: who comes back from there is signed in by it. */
const JOINING_COOKIE = 'nest_joining';

export async function rememberJoining(joiningId: string): Promise<void> {
  (await cookies()).set(JOINING_COOKIE, joiningId, {
    httpOnly: true,
    sameSite: 'lax',
    secure: config().SITE_URL.startsWith('https:'),
    path: '/join',
    maxAge: 3600,
  });
}

/** Whether this browser began the joining; asked once. */
export async function takeJoining(joiningId: string): Promise<boolean> {
  const jar = await cookies();
  if (jar.get(JOINING_COOKIE)?.value !== joiningId) return false;
  jar.delete({ name: JOINING_COOKIE, path: '/join' });
  return true;
}

/** The address that a request comes from, for rate limits. */
export async function callerAddress(): Promise<string> {
  const forwarded = (await headers()).get('x-forwarded-for');
  return forwarded?.split(',').at(-1)?.trim() || 'unknown';
}

export const LOOK_COOKIE = 'nest_look';

/** Through whose eyes this request sees the site; looked up once a request. */
export const currentViewer = cache(async () =>
  viewerOf(await currentMember(), (await cookies()).get(LOOK_COOKIE)?.value),
);
