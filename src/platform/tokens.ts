import { createHash, createHmac, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import { config } from './config';

/** A token that nobody can guess, for a link or a session. Only its hash is stored. */
export function newToken(): { token: string; hash: Buffer } {
  const token = randomBytes(32).toString('base64url');
  return { token, hash: hashToken(token) };
}

export const hashToken = (token: string): Buffer => createHash('sha256').update(token).digest();

/** A code that people type: six digits, each as likely as any other. */
export const newCode = (): string => String(randomInt(1_000_000)).padStart(6, '0');

/** The hash of a code, which is short enough to be guessed from a plain one: keyed, and bound to what it is for. */
export const hashCode = (id: string, code: string): Buffer => mac(config().SIGNING_KEY, `code:${id}:${code}`);

/** Whether a typed code is the one of a stored hash, in the same time either way. */
export const isCode = (id: string, typed: string, stored: Buffer): boolean =>
  signingKeys().some((key) => timingSafeEqual(mac(key, `code:${id}:${typed}`), stored));

/** A text with our signature, so that it can travel through a form and be known again. */
export function sign(text: string): string {
  return `${text}.${signature(config().SIGNING_KEY, text)}`;
}

/** The text, where the signature is ours; else null. */
export function readSigned(signed: string): string | null {
  const dot = signed.lastIndexOf('.');
  if (dot <= 0) return null;
  const text = signed.slice(0, dot);
  const given = Buffer.from(signed.slice(dot + 1));
  const isOurs = signingKeys().some((key) => {
    const ours = Buffer.from(signature(key, text));
    return given.length === ours.length && timingSafeEqual(given, ours);
  });
  return isOurs ? text : null;
}

const signingKeys = (): string[] => [config().SIGNING_KEY, ...config().SIGNING_KEYS_OLD];
const mac = (key: string, text: string): Buffer =>
  createHmac('sha256', Buffer.from(key, 'hex')).update(text).digest();
const signature = (key: string, text: string): string => mac(key, `form:${text}`).toString('base64url');
