import { z } from 'zod';
import type { Actor } from '@/platform/actor';
import { realNow, siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refused, refusedField, type Result, type Refusal } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction, type Transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken, isCode } from '@/platform/tokens';
import { publicUse } from '@/platform/use';
import { countCodeTry, deleteEmailCode, findEmailCode, type EmailCode } from '@/people/store/email-codes';
import {
  findMemberByEmail,
  insertMember,
  lockMember,
  setConfirmedEmail,
  type Member,
} from '@/people/store/members';
import { againstAskingForCode, CODE_MINUTES, CODE_TRIES, mailCode } from './lib/mail-code';
import { confirmEmail, openSession, type Opened } from './lib/open-session';
import { waitMinutes } from './lib/wait-minutes';
import { writeMail } from '@/mail/services/lib/write-mail';
import { say } from '@/words/problems';
import { problem } from '@/words/problems';

/** Codes are short: a caller cannot go through many of them, whatever addresses they are for. */
const PER_CALLER: Limit = { name: 'code:try', points: 60, seconds: 15 * 60 };

export type Entered = {
  /** Null where a signed-in member confirmed a new address: their session continues. */
  opened: Opened | null;
  to: string;
};

const over = (): Refusal => refusedField('', 'code.expired', { minutes: CODE_MINUTES });

/** What the browser was mailed a code for; nothing where it asked for none, or it is too old. */
export const codeAsked = publicUse('code-asked', nothing, async (actor) => {
  const asked = await askedBy(actor);
  return asked ? done({ email: asked.email, purpose: asked.purpose }) : missing();
});

const inputSchema = z.object({
  code: z
    .string()
    .transform((typed) => typed.replace(/[\s-]/g, ''))
    .pipe(z.string().regex(/^\d{6}$/, say('code.six-digits'))),
});

/** Takes the code that was mailed to the address which this browser typed: their reader is signed in. */
export const enterCode = publicUse(
  'enter-code',
  inputSchema,
  async (actor, { code }): Promise<Result<Entered>> => {
    const wait = await spendPoint(PER_CALLER, actor.address ?? 'unknown');
    if (wait > 0) return refusedField('', 'tries.too-many', { minutes: waitMinutes(wait) });
    const browser = actor.browser?.code;
    const asked = browser ? await countCodeTry(pool(), hashToken(browser), CODE_TRIES) : undefined;
    // In another tab the same code has just signed this browser in.
    if (!asked && actor.memberId && !(await askedBy(actor))) return done({ opened: null, to: '/account' });
    if (!asked) return over();
    if (!isCode(asked.id, code, asked.codeHash)) {
      const left = CODE_TRIES - asked.tries;
      return left > 0 ? refusedField('code', 'code.wrong', { left }) : refusedField('code', 'code.used-up');
    }
    return enter(actor, asked);
  },
);

/** The same by the link of the mail, which works in the browser that asked for it alone. */
export const enterByLink = publicUse(
  'enter-by-link',
  z.string().max(100),
  async (actor, link): Promise<Result<Entered>> => {
    const asked = await askedBy(actor);
    if (!asked?.linkHash.equals(hashToken(link))) return missing();
    return enter(actor, asked);
  },
);

/** Mails the browser another code, for what it asked for before. */
export const sendCodeAgain = publicUse(
  'send-code-again',
  nothing,
  async (actor): Promise<Result<{ browser: string }>> => {
    const asked = await askedBy(actor);
    if (!asked) return refusedField('', 'sign-in.old-page');
    const against = await againstAskingForCode(actor, asked.email);
    if (against) return against;
    const { purpose, email, memberId, returnTo } = asked;
    const isKnown = purpose !== 'sign-in' || (await findMemberByEmail(pool(), email)) !== undefined;
    return done(await mailCode({ purpose, email, memberId, returnTo }, isKnown));
  },
);

const askedBy = async ({ browser }: Actor): Promise<EmailCode | undefined> =>
  browser?.code ? findEmailCode(pool(), hashToken(browser.code)) : undefined;

async function enter(actor: Actor, asked: EmailCode): Promise<Result<Entered>> {
  return transaction(async (db) => {
    if (!(await deleteEmailCode(db, asked.id))) return over();
    if (asked.purpose === 'new-address') return takeAddress(db, actor, asked);
    const member = await memberOf(db, asked);
    if (!member) return over();
    if (member.blockedAt) return refusedField('', 'sign-in.blocked');
    await confirmEmail(db, member);
    return done({ opened: await openSession(db, actor, member, 'code'), to: asked.returnTo });
  });
}

/** The member whose address it is. A new person who is joining gets an account now. */
async function memberOf(db: Transaction, { email, purpose }: EmailCode): Promise<Member | undefined> {
  const known = await findMemberByEmail(db, email);
  if (known) return lockMember(db, known.id);
  if (purpose !== 'join') return undefined;
  const at = realNow();
  return insertMember(db, {
    email,
    name: '',
    passwordHash: null,
    staffRole: null,
    joinedAt: siteNow(await currentSite(db)),
    emailConfirmedAt: at,
  });
}

/** A member has shown that they read the mail of their new address: from now on it is theirs, and the old one is told. */
async function takeAddress(db: Transaction, actor: Actor, asked: EmailCode): Promise<Result<Entered>> {
  if (!asked.memberId || asked.memberId !== actor.memberId)
    return refused({ '': problem('sign-in.code-after-session') }, 'sign-in');
  const member = await lockMember(db, asked.memberId);
  if (!member) return missing();
  if (await findMemberByEmail(db, asked.email)) return refusedField('', 'email.taken');
  const site = await currentSite(db);
  await setConfirmedEmail(db, member.id, asked.email, realNow());
  const at = siteNow(site);
  await record(db, actor, at, 'email address changed', `member:${member.id}`);
  const content = { template: 'address-changed', email: asked.email } as const;
  await writeMail(db, site, { to: member, content, key: `address:${member.id}:${asked.id}`, at });
  return done({ opened: null, to: asked.returnTo });
}
