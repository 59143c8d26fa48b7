import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';

/**
 * A small proof of work (hashcash): a number that, after the text it is for, gives a SHA-256 that begins with so many zero
 * bits. Finding it takes a browser some tenths of a second; checking it takes one hash.
 */
export const WORK_BITS = 14;

export function hasWork(text: string, answer: string): boolean {
  if (!/^\d{1,9}$/.test(answer)) return false;
  const hash = sha256(utf8ToBytes(`${text}:${answer}`));
  let bits = 0;
  for (const byte of hash) {
    if (byte !== 0) return bits + Math.clz32(byte) - 24 >= WORK_BITS;
    bits += 8;
  }
  return true;
}

/** The answer among `count` numbers from `from` on; null where none of them is one. */
export function findWork(text: string, from: number, count: number): string | null {
  for (let n = from; n < from + count; n++) if (hasWork(text, String(n))) return String(n);
  return null;
}
