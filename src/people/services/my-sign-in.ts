import { z } from 'zod';
import { siteNow } from '@/platform/clock';
import { nothing, uuid } from '@/platform/inputs';
import { hashPassword, passwordProblem } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result, refusedWith } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';
import { memberUse } from '@/platform/use';
import { listCountries } from '@/platform/countries';
import { findMember, setPassword } from '@/people/store/members';
import { findOneTime } from '@/people/store/one-time-codes';
import {
  deleteDevicesOf,
  deleteSessionById,
  deleteSessionsOf,
  isProvenSession,
  listSessions,
} from '@/people/store/sessions';
import { confirmPassword } from './lib/confirm-password';
import { openSession, type Opened } from './lib/open-session';

/** Who the member is to the site, and how they sign in: what their settings show. */
export const mySettings = memberUse('my-settings', nothing, async ({ memberId, browser }) => {
  const member = await findMember(pool(), memberId);
  if (!member) return missing();
  const { name, email, country, invoiceWords, passwordHash, staffRole } = member;
  const site = await currentSite();
  return done({
    name,
    email,
    invoiceWords,
    hasPassword: passwordHash !== null,
    country: site.tax.way === 'none' ? null : { code: country, all: listCountries(site.language) },
    mayDelete: site.mayDeleteAccount && !staffRole,
    sessions: await listSessions(pool(), memberId, hashToken(browser?.session ?? '')),
    zone: site.zone,
  });
});

const passwordSchema = z.object({ current: z.string().max(1000).default(''), next: z.string().max(1000) });

/** A member sets a password, or another. Every session and every known browser is forgotten; the caller gets a new one. */
export const changePassword = memberUse(
  'change-password',
  passwordSchema,
  async (actor, { current, next }): Promise<Result<Opened>> => {
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    const checked = await confirmPassword(member, current, 'current');
    if (!checked.ok) return checked;
    const site = await currentSite();
    const weak = passwordProblem(next, [member.name, member.email, site.name]);
    if (weak) return refusedWith(weak, 'next');
    const passwordHash = await hashPassword(next);
    return transaction(async (db) => {
      // A member with one-time codes showed one to sign in.
      const isProven =
        ((await findOneTime(db, member.id))?.isConfirmed ?? false) ||
        (await isProvenSession(db, hashToken(actor.browser?.session ?? '')));
      await setPassword(db, member.id, passwordHash);
      await deleteSessionsOf(db, member.id);
      await deleteDevicesOf(db, member.id);
      await record(db, actor, siteNow(site), 'password changed', `member:${member.id}`);
      return done(await openSession(db, actor, member, 'password change', isProven));
    });
  },
);

/** Ends every session of a member, on every device. */
export const signOutEverywhere = memberUse(
  'sign-out-everywhere',
  nothing,
  async (actor): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      await deleteSessionsOf(db, actor.memberId);
      await record(db, actor, siteNow(site), 'signed out everywhere', `member:${actor.memberId}`);
      return done(null);
    });
  },
);

/** Ends one of the member's own sessions. */
export const endMySession = memberUse('end-my-session', uuid, async (actor, id): Promise<Result<null>> => {
  const site = await currentSite();
  return transaction(async (db) => {
    if (!(await deleteSessionById(db, id, actor.memberId))) return refusedField('', 'session.over');
    await record(db, actor, siteNow(site), 'session ended', `member:${actor.memberId}`);
    return done(null);
  });
});
