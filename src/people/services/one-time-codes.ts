import { toString as drawn } from 'qrcode';
import { z } from 'zod';
import { findMember } from '@/people/store/members';
import {
  beginOneTime as begin,
  countRecoveryCodes,
  deleteOneTime,
  findOneTime,
  findWaitingSession,
} from '@/people/store/one-time-codes';
import { deletePasskeysOf } from '@/people/store/passkeys';
import { deleteSessionsOf, proveSession } from '@/people/store/sessions';
import type { SignedIn } from '@/platform/actor';
import { realNow } from '@/platform/clock';
import { nothing, passwordAgain, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { currentSite } from '@/platform/site';
import { pool, transaction, transactionUnlessRefused } from '@/platform/store/db';
import { forgetPoints, spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken } from '@/platform/tokens';
import { memberUse, publicUse, staffUse } from '@/platform/use';
import { confirmPassword, confirmStaff } from './lib/confirm-password';
import { newRecoveryCodes, newSecret, shownSecret, takeAppCode, takeRecovery } from './lib/one-time';
import { againstAdding, againstRemoving } from './lib/proofs';
import { waitMinutes } from './lib/wait-minutes';

/** Programs can guess six digits, so tries are counted for each account, from any browser. */
const TRIES: Limit = { name: 'one-time:try', points: 8, seconds: 15 * 60 };
const code = z.string().trim().min(1).max(40);

async function againstTrying(memberId: string) {
  const wait = await spendPoint(TRIES, memberId);
  return wait > 0 ? refusedField('code', 'tries.too-many', { minutes: waitMinutes(wait) }) : null;
}

/** Staff alone have them: there is more to be got by their accounts. */
async function staffMember(actor: SignedIn) {
  const member = await findMember(pool(), actor.memberId);
  return member?.staffRole ? member : undefined;
}

type MyOneTime = { isOn: boolean; left: number; pending: { typed: string; picture: string } | null };

/** How one's one-time codes are set; null for members who are not staff. `pending`: what an app has to read next. */
export const myOneTime = memberUse(
  'my-one-time',
  nothing,
  async (actor): Promise<Result<MyOneTime | null>> => {
    const member = await staffMember(actor);
    if (!member) return done(null);
    const kept = await findOneTime(pool(), member.id);
    if (!kept || kept.isConfirmed)
      return done({
        isOn: kept !== undefined,
        left: kept ? await countRecoveryCodes(pool(), member.id) : 0,
        pending: null,
      });
    const { uri, typed } = shownSecret(kept.secretSealed, member.email, (await currentSite()).name);
    const picture = await drawn(uri, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' });
    return done({ isOn: false, left: 0, pending: { typed, picture } });
  },
);

/** Begins to set one-time codes up: makes a secret, which counts for nothing until a code was typed. */
export const beginOneTime = memberUse('begin-one-time', nothing, async (actor): Promise<Result<null>> => {
  const member = await staffMember(actor);
  if (!member) return missing();
  const against = await againstAdding(pool(), actor, member);
  if (against) return against;
  return (await begin(pool(), member.id, newSecret())) ? done(null) : refusedField('', 'one-time.on-already');
});

/** Turns one-time codes on, by the first code of the app. The answer holds the recovery codes, which are shown this once. */
export const confirmOneTime = memberUse(
  'confirm-one-time',
  z.object({ code, password: passwordAgain }),
  async (actor, { code: typed, password }): Promise<Result<{ codes: string[] }>> => {
    const member = await staffMember(actor);
    if (!member) return missing();
    const confirmed = await confirmPassword(member, password);
    if (!confirmed.ok) return confirmed;
    const wait = await againstTrying(member.id);
    if (wait) return wait;
    return transactionUnlessRefused(async (db): Promise<Result<{ codes: string[] }>> => {
      const against = await againstAdding(db, actor, member);
      if (against) return against;
      const kept = await findOneTime(db, member.id);
      if (!kept || kept.isConfirmed)
        return refusedField('', kept ? 'one-time.on-already' : 'one-time.not-begun');
      if (!(await takeAppCode(db, member.id, typed, Date.now())))
        return refusedField('code', 'one-time.wrong');
      const codes = await newRecoveryCodes(db, member.id);
      await proveSession(db, hashToken(actor.browser?.session ?? ''));
      await record(db, actor, realNow(), 'one-time codes turned on', `member:${member.id}`);
      return done({ codes });
    });
  },
);

const withPassword = z.object({ password: passwordAgain });

/** Makes new recovery codes; those before are void. */
export const renewRecoveryCodes = memberUse(
  'renew-recovery-codes',
  withPassword,
  async (actor, { password }): Promise<Result<{ codes: string[] }>> => {
    const member = await staffMember(actor);
    if (!member) return missing();
    const confirmed = await confirmPassword(member, password);
    if (!confirmed.ok) return confirmed;
    return transactionUnlessRefused(async (db): Promise<Result<{ codes: string[] }>> => {
      if (!(await findOneTime(db, member.id))?.isConfirmed) return refusedField('', 'one-time.not-begun');
      const codes = await newRecoveryCodes(db, member.id);
      await record(db, actor, realNow(), 'recovery codes renewed', `member:${member.id}`);
      return done({ codes });
    });
  },
);

/** Turns one's own one-time codes off. */
export const endOneTime = memberUse(
  'end-one-time',
  withPassword,
  async (actor, { password }): Promise<Result<null>> => {
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    const confirmed = await confirmPassword(member, password);
    if (!confirmed.ok) return confirmed;
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      const against = await againstRemoving(db, member);
      if (against) return against;
      if (!(await deleteOneTime(db, member.id))) return refusedField('', 'one-time.off-already');
      await record(db, actor, realNow(), 'one-time codes turned off', `member:${member.id}`);
      return done(null);
    });
  },
);

/** Removes the one-time codes and the passkeys of one of the staff who has lost what shows them. */
export const resetProofs = staffUse('set up the site')(
  'reset-proofs',
  withPassword.extend({ memberId: uuid }),
  async (actor, { memberId, password }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const member = await findMember(pool(), memberId);
    if (!member?.staffRole) return missing();
    return transaction(async (db): Promise<Result<null>> => {
      const codes = await deleteOneTime(db, member.id);
      const passkeys = await deletePasskeysOf(db, member.id);
      if (!codes && passkeys === 0) return refusedField('', 'proof.none');
      await deleteSessionsOf(db, member.id);
      await record(db, actor, realNow(), 'sign-in reset', `member:${member.id}`, { codes, passkeys });
      return done(null);
    });
  },
);

/** Whether the browser has signed in as far as its one-time code. */
export const oneTimeAsked = publicUse('one-time-asked', nothing, async ({ browser }) =>
  done(
    browser?.session !== undefined &&
      (await findWaitingSession(pool(), hashToken(browser.session))) !== undefined,
  ),
);

/** Takes a one-time code or a recovery code, and completes the sign-in that waits for it. */
export const enterOneTime = publicUse(
  'enter-one-time',
  z.object({ code, to: z.string().max(500).default('/desk') }),
  async (actor, { code: typed, to }): Promise<Result<{ to: string; left: number | null }>> => {
    const token = actor.browser?.session;
    const memberId = token && (await findWaitingSession(pool(), hashToken(token)));
    if (!token || !memberId) return refusedField('', 'sign-in.old-page');
    const wait = await againstTrying(memberId);
    if (wait) return wait;
    const entered = await transactionUnlessRefused(
      async (db): Promise<Result<{ to: string; left: number | null }>> => {
        const isApp = await takeAppCode(db, memberId, typed, Date.now());
        if (!isApp && !(await takeRecovery(db, memberId, typed)))
          return refusedField('code', 'one-time.wrong');
        await proveSession(db, hashToken(token));
        const how = isApp ? 'one-time code' : 'recovery code';
        await record(
          db,
          { ...actor, kind: 'staff', memberId },
          realNow(),
          'signed in',
          `member:${memberId}`,
          {
            how,
          },
        );
        return done({ to: safeReturn(to), left: isApp ? null : await countRecoveryCodes(db, memberId) });
      },
    );
    if (entered.ok) await forgetPoints(TRIES, memberId);
    return entered;
  },
);
