import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { config } from '@/config';

/** Secrets at rest: AES-256-GCM (NIST SP 800-38D) under SECRET_KEY, a fresh 96-bit nonce each, as "v1.nonce.tag.text". */
const VERSION = 'v1';

function key(): Buffer {
  return Buffer.from(config().SECRET_KEY, 'hex');
}

export function seal(secret: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', key(), nonce);
  const text = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  return [
    VERSION,
    nonce.toString('base64'),
    cipher.getAuthTag().toString('base64'),
    text.toString('base64'),
  ].join('.');
}

/** @throws where the text was changed, or sealed under another key */
export function unseal(sealed: string): string {
  const [version, nonce, tag, text] = sealed.split('.');
  if (version !== VERSION || !nonce || !tag || text === undefined) throw new Error('not a sealed secret');
  const decipher = createDecipheriv('aes-256-gcm', key(), Buffer.from(nonce, 'base64'));
  decipher.setAuthTag(Buffer.from(tag, 'base64'));
  return Buffer.concat([decipher.update(Buffer.from(text, 'base64')), decipher.final()]).toString('utf8');
}
