import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { config } from '@/config';

/** A token that nobody can guess, for a link or a session. Only its hash is stored. */
export function newToken(): { token: string; hash: Buffer } {
  const token = randomBytes(32).toString('base64url');
  return { token, hash: hashToken(token) };
}

export const hashToken = (token: string): Buffer => createHash('sha256').update(token).digest();

/** A text with our signature, so that it can travel through a form and be known again. */
export function sign(text: string): string {
  return `${text}.${signature(text)}`;
}

/** The text, where the signature is ours; else null. */
export function readSigned(signed: string): string | null {
  const dot = signed.lastIndexOf('.');
  const text = signed.slice(0, dot);
  const [given, ours] = [Buffer.from(signed.slice(dot + 1)), Buffer.from(signature(text))];
  return dot > 0 && given.length === ours.length && timingSafeEqual(given, ours) ? text : null;
}

const signature = (text: string): string =>
  createHmac('sha256', Buffer.from(config().SECRET_KEY, 'hex')).update(`form:${text}`).digest('base64url');
