import { maybeOne, run, type Db } from '@/platform/store/db';
import type { MemberId } from '@/core/ids';

/** Keeps a mailed link by the hash of its token, for days of real time. */
export async function insertSignInLink(
  db: Db,
  tokenHash: Buffer,
  memberId: MemberId,
  returnTo: string,
  days: number,
): Promise<void> {
  await run(
    db,
    `INSERT INTO sign_in_links (token_hash, member_id, return_to, expires_at) VALUES ($1, $2, $3, now() + make_interval(days => $4))`,
    [tokenHash, memberId, returnTo, days],
  );
}

export async function peekSignInLink(db: Db, tokenHash: Buffer): Promise<boolean> {
  const found = await maybeOne(
    db,
    'SELECT 1 FROM sign_in_links WHERE token_hash = $1 AND expires_at > now()',
    [tokenHash],
  );
  return found !== undefined;
}

/** Uses a link up. Undefined: it was used, is too old, or never was. */
export async function takeSignInLink(
  db: Db,
  tokenHash: Buffer,
): Promise<{ memberId: MemberId; returnTo: string } | undefined> {
  return maybeOne(
    db,
    'DELETE FROM sign_in_links WHERE token_hash = $1 AND expires_at > now() RETURNING member_id, return_to',
    [tokenHash],
  );
}

export async function deleteOldLinks(db: Db): Promise<number> {
  return run(db, 'DELETE FROM sign_in_links WHERE expires_at <= now()');
}
