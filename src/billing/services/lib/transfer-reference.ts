import { randomInt } from 'node:crypto';

/** Letters and digits that nobody takes for one another. */
const LETTERS = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const LENGTH = 8;
const IS_REFERENCE = new RegExp(`^[${LETTERS}]+$`);

/** What a payer writes on a transfer, like "LM7K-3QXR": made anew for each charge. */
export function newReference(): string {
  const all = Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  return `${all.slice(0, 4)}-${all.slice(4)}`;
}

/** The references that words of a bank statement may hold, whatever a bank has made of case, spaces and dashes. */
export function referencesIn(words: string): string[] {
  const bare = words.toUpperCase().replace(/[^A-Z0-9]/g, '');
  const found = new Set<string>();
  for (let at = 0; at + LENGTH <= bare.length; at++) {
    const part = bare.slice(at, at + LENGTH);
    if (IS_REFERENCE.test(part)) found.add(`${part.slice(0, 4)}-${part.slice(4)}`);
  }
  return [...found];
}
