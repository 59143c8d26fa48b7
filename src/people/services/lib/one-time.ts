import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import type { MemberId } from '@/core/ids';
import { findOneTime, setRecoveryCodes, takeRecoveryCode, takeStep } from '@/people/store/one-time-codes';
import { seal, unseal } from '@/platform/seal';
import type { Transaction } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';

const PERIOD = 30;
/** So many steps before and after are accepted, for clocks that differ. */
const WINDOW = 1;
const RECOVERY_CODES = 10;

/** By RFC 6238: SHA-1, six digits, 30 seconds, which is what apps take. */
const totpOf = (secret: string, label = '', issuer = ''): TOTP =>
  new TOTP({
    secret: Secret.fromBase32(secret),
    label,
    issuer,
    algorithm: 'SHA1',
    digits: 6,
    period: PERIOD,
  });

/** A new secret of 160 bits, sealed. */
export const newSecret = (): string => seal(new Secret({ size: 20 }).base32);

/** What an app reads from a picture, and what can be typed in its place. */
export function shownSecret(sealed: string, email: string, site: string): { uri: string; typed: string } {
  const secret = unseal(sealed);
  return { uri: totpOf(secret, email, site).toString(), typed: secret.replace(/(.{4})/g, '$1 ').trim() };
}

/** Uses up a code of a member's app, by real time. False: it is wrong, too old, or was used before. */
export async function takeAppCode(
  db: Transaction,
  memberId: MemberId,
  code: string,
  nowMs: number,
): Promise<boolean> {
  const digits = code.replace(/\s/g, '');
  const kept = /^\d{6}$/.test(digits) ? await findOneTime(db, memberId) : undefined;
  if (!kept) return false;
  const delta = totpOf(unseal(kept.secretSealed)).validate({
    token: digits,
    timestamp: nowMs,
    window: WINDOW,
  });
  return delta !== null && takeStep(db, memberId, Math.floor(nowMs / 1000 / PERIOD) + delta);
}

/** Ten codes for when the app is lost, of 80 bits each; those before are void. */
export async function newRecoveryCodes(db: Transaction, memberId: MemberId): Promise<string[]> {
  const codes = Array.from({ length: RECOVERY_CODES }, () =>
    (randomBytes(10).toString('hex').match(/.{5}/g) ?? []).join('-'),
  );
  await setRecoveryCodes(db, memberId, codes.map(hashOf));
  return codes;
}

/** What is typed with spaces, in capitals or without dashes is the same code. */
const hashOf = (code: string): Buffer => hashToken(code.toLowerCase().replace(/[^0-9a-f]/g, ''));

export const takeRecovery = (db: Transaction, memberId: MemberId, code: string): Promise<boolean> =>
  takeRecoveryCode(db, memberId, hashOf(code));
