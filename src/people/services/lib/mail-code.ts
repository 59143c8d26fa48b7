import { randomUUID } from 'node:crypto';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { refusedField, type Refusal } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashCode, hashToken, newCode, newToken } from '@/platform/tokens';
import { saveEmailCode, type EmailCode } from '@/people/store/email-codes';
import { isKnownDevice } from './known-device';
import { waitMinutes } from './wait-minutes';
import { writeMail } from '@/mail/services/lib/write-mail';

export const CODE_MINUTES = 10;
/** Wrong codes after which a code is dead. */
export const CODE_TRIES = 5;

const WINDOW = 30 * 60;
/** Codes that one caller may request, for any address. */
const PER_CALLER: Limit = { name: 'code:caller', points: 30, seconds: WINDOW };
/** For one address by one caller; a browser that signed in to the account before counts for itself. */
const PER_CALLER_AND_ADDRESS: Limit = { name: 'code:caller-address', points: 10, seconds: WINDOW };
/** Codes for one address from all callers, so that no mailbox is flooded. A known browser is exempt. */
const PER_ADDRESS: Limit = { name: 'code:address', points: 30, seconds: WINDOW };

/** Why no code can be mailed to an address now; null where it can. Asking counts. */
export async function againstAskingForCode(actor: Actor, email: string): Promise<Refusal | null> {
  const caller = actor.address ?? 'unknown';
  const device = await isKnownDevice(actor, email);
  const wait = device
    ? await spendPoint(PER_CALLER_AND_ADDRESS, `device:${device}`)
    : Math.max(
        await spendPoint(PER_CALLER, caller),
        await spendPoint(PER_CALLER_AND_ADDRESS, `${caller} ${email}`),
        await spendPoint(PER_ADDRESS, email),
      );
  return wait > 0 ? refusedField('', 'code.too-many', { minutes: waitMinutes(wait) }) : null;
}

export type AskedCode = Pick<EmailCode, 'purpose' | 'email' | 'memberId' | 'returnTo'>;

/**
 * Mails a six-digit code to an address, with a link for the same browser, and answers with the secret by which that
 * browser is known again. `known`: whether the address can be signed in to at all; where it cannot, the mail says so,
 * and the answer is the same.
 */
export async function mailCode(asked: AskedCode, known: boolean): Promise<{ browser: string }> {
  const site = await currentSite();
  const [browser, link, code, id] = [newToken(), newToken(), newCode(), randomUUID()];
  await transaction(async (db) => {
    await saveEmailCode(
      db,
      browser.hash,
      { id, ...asked, codeHash: hashCode(id, code), linkHash: hashToken(link.token) },
      CODE_MINUTES,
    );
    const content = known
      ? ({
          template: 'code',
          why: asked.purpose,
          secret: { code, path: `/sign-in/code/${link.token}` },
          minutes: CODE_MINUTES,
        } as const)
      : ({ template: 'no-account' } as const);
    // No name: whose address it is, is only being found out.
    const reader = { id: null, email: asked.email, name: '' };
    await writeMail(db, site, { to: reader, content, key: `code:${id}`, at: siteNow(site) });
  });
  return { browser: browser.token };
}
