import { z } from 'zod';
import type { Actor } from '@/platform/actor';
import { realNow } from '@/platform/clock';
import { emailAddress, nothing } from '@/platform/inputs';
import { passwordMatches } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { pool, transaction } from '@/platform/store/db';
import { forgetPoints, spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken } from '@/platform/tokens';
import { oncePerRequest } from '@/platform/request';
import { noteVersion } from '@/platform/shelf';
import { alikeUse, publicUse } from '@/platform/use';
import { findMemberByEmail } from '@/people/store/members';
import { deleteSession, findSessionMember } from '@/people/store/sessions';
import { isKnownDevice } from './lib/known-device';
import { againstAskingForCode, mailCode } from './lib/mail-code';
import { openSession, type Opened } from './lib/open-session';
import { waitMinutes } from './lib/wait-minutes';
import { say } from '@/words/problems';
import type { MemberId } from '@/core/ids';

const WINDOW = 15 * 60;
/** A browser that signed in to this account before has a counter of its own, which strangers do not spend. */
const PER_DEVICE: Limit = { name: 'sign-in:device', points: 8, seconds: WINDOW };
const PER_CALLER_AND_ADDRESS: Limit = { name: 'sign-in:caller-address', points: 8, seconds: WINDOW };
const PER_CALLER: Limit = { name: 'sign-in:caller', points: 60, seconds: WINDOW };
/** What strangers everywhere may try at one account before it is for browsers that know it, and for codes. */
const PER_ADDRESS: Limit = { name: 'sign-in:address', points: 100, seconds: 3600 };

const inputSchema = z.object({
  email: z.string().trim().toLowerCase().min(1, say('email.missing')).max(254),
  password: z.string().min(1, say('password.missing')).max(1000),
  to: z.string().max(500).default('/account'),
});

/** Signs in by password. The same answer for an unknown address and a wrong password. */
export const signIn = publicUse(
  'sign-in',
  inputSchema,
  async (actor, { email, password, to }): Promise<Result<Opened & { to: string }>> => {
    const device = await isKnownDevice(actor, email);
    const wait = await spend(actor, email, device);
    if (wait > 0) return refusedField('', 'sign-in.too-many', { minutes: waitMinutes(wait) });
    const member = await findMemberByEmail(pool(), email);
    if (!(await passwordMatches(member?.passwordHash, password)) || !member) {
      await recordFailure(actor, member?.id);
      return refusedField('', 'sign-in.wrong');
    }
    if (member.blockedAt) return refusedField('', 'sign-in.blocked');
    if (device) await forgetPoints(PER_DEVICE, device);
    else await forgetPoints(PER_CALLER_AND_ADDRESS, `${actor.address ?? 'unknown'} ${email}`);
    const opened = await transaction((db) => openSession(db, actor, member, 'password'));
    return done({ ...opened, to: safeReturn(to) });
  },
);

async function spend(actor: Actor, email: string, device: string | null): Promise<number> {
  if (device) return spendPoint(PER_DEVICE, device);
  const caller = actor.address ?? 'unknown';
  return Math.max(
    await spendPoint(PER_CALLER, caller),
    await spendPoint(PER_CALLER_AND_ADDRESS, `${caller} ${email}`),
    await spendPoint(PER_ADDRESS, email),
  );
}

/** Without the address that was typed where nobody has it: people type passwords into the wrong field. */
async function recordFailure(actor: Actor, memberId: MemberId | undefined): Promise<void> {
  await record(pool(), actor, realNow(), 'sign-in failed', memberId ? `member:${memberId}` : 'site', {
    from: actor.address ?? '',
  });
}

const codeSchema = z.object({ email: emailAddress, to: z.string().max(500).default('/account') });

/** Mails a code that signs in. The answer does not say whether the address has an account; the mail does. */
export const askForCode = publicUse(
  'ask-for-code',
  codeSchema,
  async (actor, { email, to }): Promise<Result<{ browser: string }>> => {
    const against = await againstAskingForCode(actor, email);
    if (against) return against;
    const member = await findMemberByEmail(pool(), email);
    const asked = { purpose: 'sign-in' as const, email, memberId: null, returnTo: safeReturn(to) };
    return done(await mailCode(asked, member !== undefined));
  },
);

/** Ends the session that the browser carries. */
export const signOut = publicUse('sign-out', nothing, async ({ browser }): Promise<Result<null>> => {
  if (browser?.session) await deleteSession(pool(), hashToken(browser.session));
  return done(null);
});

/** Whose session the browser carries; null for a visitor. */
export const whoIsThere = alikeUse('who-is-there', nothing, async ({ browser }) => {
  const token = browser?.session;
  if (!token) return done(null);
  const found = await oncePerRequest(`session ${token}`, () => findSessionMember(pool(), hashToken(token)));
  if (found) noteVersion(found.siteVersion);
  return done(found?.member ?? null);
});
