import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { isBefore } from '@/core/instants';
import { findPass, findPassPassword } from '@/tiers/store/passes';
import { findPassLink, insertPassLink, takePassLink } from '@/access/store/pass-links';
import { claimHeldPasses, findProvedBefore } from '@/billing/store/held-passes';
import { writeMail } from '@/mail/services/lib/write-mail';
import { confirmMailAddress } from '@/mail/store/mail-addresses';
import { findMemberByEmail } from '@/people/store/members';
import { findSessionMember } from '@/people/store/sessions';
import { againstAskingForCode } from '@/people/services/lib/mail-code';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { givePassTo, untilOf } from './lib/give-pass';
import { siteNow } from '@/platform/clock';
import { emailAddress, nothing, slug } from '@/platform/inputs';
import { passwordMatches } from '@/platform/passwords';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken, newToken } from '@/platform/tokens';
import { publicUse } from '@/platform/use';
import { say } from '@/words/problems';

const LINK_HOURS = 24;
const TRIES_OF_CALLER: Limit = { name: 'pass:caller', points: 20, seconds: 15 * 60 };
/** Of everyone together, so that a password is not found by many callers; an audience that comes at once is let in. */
const TRIES_AT_PASS: Limit = { name: 'pass:tries', points: 3_000, seconds: 3600 };

/** `browser`: what a visitor's browser is to carry from now on; null where it need carry nothing new. `to`: where to read on. */
export type GotPass = { browser: string | null; to: string };

const to = z.string().max(500).default('/');
const passwordSchema = z.object({
  pass: slug,
  password: z.string().min(1, say('password.missing')).max(200),
  to,
});

/** Gets a pass by its shared password, for the member who is signed in or for the visitor's browser. */
export const enterSharedPassword = publicUse(
  'enter-shared-password',
  passwordSchema,
  async (actor, { pass: id, password, to: returnTo }): Promise<Result<GotPass>> => {
    if (actor.look) return refusedField('', 'pass.looking');
    const caller = await spendPoint(TRIES_OF_CALLER, actor.address ?? 'unknown');
    const wait = caller || (await spendPoint(TRIES_AT_PASS, id));
    if (wait > 0) return refusedField('', 'tries.too-many', { minutes: waitMinutes(wait) });
    const hash = await findPassPassword(pool(), id);
    if (!(await passwordMatches(hash, password)) || hash === null)
      return refusedField('password', 'pass.wrong-password');
    return transaction(async (db) => {
      // It may have been changed while it was compared.
      const pass = (await findPassPassword(db, id, 'locked')) === hash ? await findPass(db, id) : undefined;
      if (!pass) return refusedField('password', 'pass.wrong-password');
      const site = await currentSite(db);
      const browser = await givePassTo(db, actor, site, {
        pass: id,
        why: { why: 'password' },
        since: siteNow(site),
        until: untilOf(pass, siteNow(site), site),
      });
      return done({ browser, to: safeReturn(returnTo) });
    });
  },
);

const addressSchema = z.object({ pass: slug, email: emailAddress, to });

/** Mails a link that proves an address and gives a pass. The answer says nothing about the address. */
export const leaveAddress = publicUse(
  'leave-address',
  addressSchema,
  async (actor, { pass: id, email, to: returnTo }): Promise<Result<null>> => {
    if (actor.look) return refusedField('', 'pass.looking');
    const pass = await findPass(pool(), id);
    if (!pass?.byAddress) return missing();
    const against = await againstAskingForCode(actor, email);
    if (against) return against;
    const link = newToken();
    return transaction(async (db) => {
      const site = await currentSite(db);
      const about = { passId: id, email, returnTo: safeReturn(returnTo), mode: site.mode };
      await insertPassLink(db, link.hash, about, LINK_HOURS);
      const content = {
        template: 'read-link',
        passName: pass.name,
        secret: { path: `/pass/${link.token}` },
        hours: LINK_HOURS,
      } as const;
      const reader = { id: null, email, name: '' };
      await writeMail(db, site, { to: reader, content, key: `pass:${randomUUID()}`, at: siteNow(site) });
      return done(null);
    });
  },
);

const token = z.string().max(100);

/** Whether a mailed link is still good; looking at it does not use it up. */
export const isPassLinkGood = publicUse('is-pass-link-good', token, async (_, link) =>
  done((await findPassLink(pool(), hashToken(link))) !== undefined),
);

/** Uses a mailed link, once: its reader has the pass from now on, in this browser. */
export const takeReadLink = publicUse(
  'take-read-link',
  token,
  async (actor, link): Promise<Result<GotPass>> => {
    if (actor.look) return refusedField('', 'pass.looking');
    return transaction(async (db) => {
      const taken = await takePassLink(db, hashToken(link));
      const pass = taken && (await findPass(db, taken.passId));
      const site = await currentSite(db);
      if (!taken || !pass?.byAddress || taken.mode !== site.mode) return refusedField('', 'pass.link-used');
      const { email, returnTo } = taken;
      await lock(db, 'passes', email);
      const before = await findProvedBefore(db, pass.id, email, site.mode);
      const since = before?.since ?? siteNow(site);
      const until = untilOf(pass, since, site);
      if (before?.isRevoked) return refusedField('', 'pass.revoked');
      if (until && !isBefore(siteNow(site), until)) return refusedField('', 'pass.had');
      if (!(await findMemberByEmail(db, email)))
        await confirmMailAddress(db, { email, how: 'pass', topics: [], at: siteNow(site) });
      const browser = await givePassTo(db, actor, site, {
        pass: pass.id,
        why: { why: 'address', email },
        since,
        until,
      });
      return done({ browser, to: returnTo });
    });
  },
);

/** What a visitor's browser holds is the member's who has just signed in with it. */
export const claimPasses = publicUse('claim-passes', nothing, async ({ browser }) => {
  if (!browser?.passes || !browser.session) return done(null);
  const found = await findSessionMember(pool(), hashToken(browser.session));
  if (found) await claimHeldPasses(pool(), hashToken(browser.passes), found.member.id);
  return done(null);
});
