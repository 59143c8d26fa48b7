import { hash, verify } from '@node-rs/argon2';

/** argon2id, 19 MiB, two passes, one lane: OWASP Password Storage Cheat Sheet, minimum configuration. */
const OPTIONS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const MIN_PASSWORD = 10;
export const MAX_PASSWORD = 200;

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
