import { createHash } from 'node:crypto';
import type { Mode } from '@/platform/store/site';
import type { KeyField, KeyProblem, Keys } from '@/billing/gateways/contract';
import type { Problem } from '@/core/problem';
import { problem, type ProblemCode } from '@/words/problems';

/**
 * Keys of Curlew Cards: "curlew_test_secret_" or "curlew_live_site_", 24 letters and digits, and 4 more that
 * are computed from all before them, so that a copying mistake shows before the gateway is asked.
 */
export const NAME = 'Curlew Cards';
const BODY = 24;
const CHECK = 4;
const KINDS = { siteKey: 'site', secretKey: 'secret' } as const;

export function checkLetters(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, CHECK);
}

export function inspectKey(field: KeyField, pasted: string, mode: Mode): KeyProblem | null {
  const key = pasted.trim();
  const start = `curlew_${mode}_${KINDS[field]}_`;
  const wrong = (found: Problem<ProblemCode>): KeyProblem => ({ field, problem: found });

  if (key === '') return wrong(problem('key.missing', { name: field, start }));
  const match = /^curlew_(test|live)_(site|secret)_(.*)$/.exec(key);
  if (!match) return wrong(problem('key.not-ours', { gateway: NAME, name: field, start }));
  const [, keyMode, kind, rest = ''] = match;
  const pastedField = kind === 'site' ? 'siteKey' : 'secretKey';
  if (pastedField !== field)
    return wrong(problem('key.other-kind', { pasted: pastedField, name: field, start }));
  if (keyMode !== mode) return wrong(problem(mode === 'test' ? 'key.live' : 'key.test', { start }));
  const missing = BODY + CHECK - rest.length;
  if (missing > 0) return wrong(problem('key.cut-off', { missing }));
  if (missing < 0) return wrong(problem('key.too-long', { extra: -missing }));
  if (rest.slice(BODY) !== checkLetters(key.slice(0, -CHECK))) return wrong(problem('key.wrong'));
  return null;
}

export function inspectKeys(keys: Keys, mode: Mode): KeyProblem | null {
  return inspectKey('siteKey', keys.siteKey, mode) ?? inspectKey('secretKey', keys.secretKey, mode);
}
