import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import { config } from './config';

/**
 * Secrets at rest: AES-256-GCM (NIST SP 800-38D) under SEALING_KEY, a fresh 96-bit nonce each, as
 * "v2.key.nonce.tag.text". `key` names the key, so that after a rotation it is known which one opens it.
 */
const VERSION = 'v2';

const keyOf = (hex: string): Buffer => Buffer.from(hex, 'hex');
const nameOf = (hex: string): string =>
  createHash('sha256').update('name of a key').update(keyOf(hex)).digest('base64url').slice(0, 8);

const allKeys = (): string[] => [config().SEALING_KEY, ...config().SEALING_KEYS_OLD];

export function seal(secret: string): string {
  const nonce = randomBytes(12);
  const { SEALING_KEY } = config();
  const cipher = createCipheriv('aes-256-gcm', keyOf(SEALING_KEY), nonce);
  const text = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  const parts = [nonce, cipher.getAuthTag(), text].map((part) => part.toString('base64'));
  return [VERSION, nameOf(SEALING_KEY), ...parts].join('.');
}

/** @throws where the text was changed, or sealed under a key that is no longer known */
export function unseal(sealed: string): string {
  const [version, ...parts] = sealed.split('.');
  if (version === 'v1') return unsealFirstForm(parts);
  const [name, nonce, tag, text] = parts;
  const key = allKeys().find((hex) => nameOf(hex) === name);
  if (version !== VERSION || !nonce || !tag || text === undefined) throw new Error('not a sealed secret');
  if (!key) throw new Error('sealed under a key that is neither SEALING_KEY nor among SEALING_KEYS_OLD');
  return open(key, nonce, tag, text);
}

/** Whether a text is sealed under the key that seals now. */
export const isSealedAnew = (sealed: string): boolean =>
  sealed.startsWith(`${VERSION}.${nameOf(config().SEALING_KEY)}.`);

/** What was sealed before keys had names: any of them may open it. */
function unsealFirstForm([nonce, tag, text]: string[]): string {
  if (!nonce || !tag || text === undefined) throw new Error('not a sealed secret');
  for (const hex of allKeys()) {
    try {
      return open(hex, nonce, tag, text);
    } catch {
      // Not this one.
    }
  }
  throw new Error('sealed under a key that is no longer known');
}

function open(hex: string, nonce: string, tag: string, text: string): string {
  const decipher = createDecipheriv('aes-256-gcm', keyOf(hex), Buffer.from(nonce, 'base64'));
  decipher.setAuthTag(Buffer.from(tag, 'base64'));
  return Buffer.concat([decipher.update(Buffer.from(text, 'base64')), decipher.final()]).toString('utf8');
}
