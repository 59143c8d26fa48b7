import { createHash } from 'node:crypto';
import type { Mode } from '@/platform/store/site';
import type { KeyField, KeyProblem, Keys } from '@/billing/gateways/contract';

/**
 * Keys of Curlew Cards: "curlew_test_secret_" or "curlew_live_site_", 24 letters and digits, and 4 more that
 * are computed from all before them, so that a slip in copying shows before anybody is asked.
 */
const BODY = 24;
const CHECK = 4;
const KINDS = { siteKey: 'site', secretKey: 'secret' } as const;
const NAMES = { siteKey: 'site key', secretKey: 'secret key' } as const;

export function checkLetters(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, CHECK);
}

export function inspectKey(field: KeyField, pasted: string, mode: Mode): KeyProblem | null {
  const key = pasted.trim();
  const name = NAMES[field];
  const start = `curlew_${mode}_${KINDS[field]}_`;
  const problem = (message: string): KeyProblem => ({ field, message });

  if (key === '') return problem(`Paste the ${name}. It begins with ${start}`);
  const match = /^curlew_(test|live)_(site|secret)_(.*)$/.exec(key);
  if (!match) return problem(`This is not a key of Curlew Cards: a ${name} begins with ${start}`);
  const [, keyMode, kind, rest = ''] = match;
  if (kind !== KINDS[field]) {
    return problem(
      `This is the ${kind === 'site' ? 'site' : 'secret'} key. The ${name} belongs here; it begins with ${start}`,
    );
  }
  if (keyMode !== mode) {
    return problem(
      mode === 'test'
        ? `This is a live-mode key: with it, real cards would be charged. The site is in test mode; paste the key that begins with ${start}`
        : `This is a test-mode key: with it, no real money moves. The site is live; paste the key that begins with ${start}`,
    );
  }
  const missing = BODY + CHECK - rest.length;
  if (missing > 0) {
    return problem(
      `This key is cut off: ${missing} ${missing === 1 ? 'character is' : 'characters are'} missing at the end. Copy all of it.`,
    );
  }
  if (missing < 0)
    return problem(`This key is ${-missing} characters too long. Copy the key alone, with nothing after it.`);
  if (rest.slice(BODY) !== checkLetters(key.slice(0, -CHECK))) {
    return problem('One character or more of this key is wrong. Copy it again instead of typing it.');
  }
  return null;
}

export function inspectKeys(keys: Keys, mode: Mode): KeyProblem | null {
  return inspectKey('siteKey', keys.siteKey, mode) ?? inspectKey('secretKey', keys.secretKey, mode);
}
