import { createHash, randomBytes } from 'node:crypto';
import { codeWord } from '@/core/tiers/codes';
import { seal, unseal } from '@/platform/seal';

/** Letters of a personal code: 31 of them in 17 places are more than 80 bits. */
const LETTERS = 17;

/** The hash by which a personal code is found. Capitals, spaces and hyphens do not count. */
export const hashPurchaseCode = (typed: string): Buffer =>
  createHash('sha256')
    .update(typed.toLowerCase().replace(/[^a-z0-9]/g, ''))
    .digest();

/** A personal code for what was bought, sealed, and its hash. */
export function newPurchaseCode(): { sealed: string; hash: Buffer } {
  const word = codeWord(randomBytes(LETTERS));
  return { sealed: seal(word), hash: hashPurchaseCode(word) };
}

export const purchaseCode = ({ codeSealed }: { codeSealed: string | null }): string =>
  codeSealed ? unseal(codeSealed) : '';
