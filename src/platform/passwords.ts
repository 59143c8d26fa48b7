import { MIN_PASSWORD } from '@/core/people/password';
import type { Problem } from '@/core/problem';
import { problem, type ProblemCode } from '@/words/problems';
import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import * as english from '@zxcvbn-ts/language-en';

/** argon2id, 19 MiB, two passes, one lane: OWASP Password Storage Cheat Sheet, minimum configuration. */
const OPTIONS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const MAX_PASSWORD = 200;
/** Of 0 to 4: at least about a hundred million guesses. */
const LEAST_SCORE = 3;

let estimator: ZxcvbnFactory | undefined;

/**
 * Why a password is too weak; null where it will do. `own`: words that those who know the person try first, such as their
 * name, their address and the site's name.
 */
export function passwordProblem(password: string, own: string[] = []): Problem<ProblemCode> | null {
  if (password.length < MIN_PASSWORD) return problem('text.too-short', { least: MIN_PASSWORD });
  if (password.length > MAX_PASSWORD) return problem('text.too-long', { most: MAX_PASSWORD });
  // The dictionaries are large, and are read when the first password is judged.
  estimator ??= new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
    translations: english.translations,
    maxLength: 40,
  });
  const words = own
    .flatMap((text) => [text, ...text.split(/[\s@.-]+/)])
    .map((word) => word.toLowerCase())
    .filter((word) => word.length > 2);
  const { score, feedback } = estimator.check(password, words);
  if (score >= LEAST_SCORE && !isOwnWords(password, words)) return null;
  return feedback.warning
    ? problem('password.weak-because', { why: feedback.warning })
    : problem('password.weak');
}

/** Whether little is left of a password without its owner’s own words. */
function isOwnWords(password: string, words: string[]): boolean {
  const rest = words.reduce((left, word) => left.replaceAll(word, ''), password.toLowerCase());
  return rest.length < password.length && rest.replace(/[^\p{L}]/gu, '').length < 4;
}

export function hashPassword(password: string): Promise<string> {
  return hash(password, OPTIONS);
}

let decoy: Promise<string> | undefined;

/** Takes the same time whether or not there is a hash to compare with. */
export async function passwordMatches(stored: string | null | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('no account has this password');
  const right = await verify(stored ?? (await decoy), password);
  return right && Boolean(stored);
}
