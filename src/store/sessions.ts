import type { Member } from './members';
import { maybeOne, run, type Db } from './db';

/** Stores a session by the hash of its token; `days` of real time. */
export async function insertSession(
  db: Db,
  tokenHash: Buffer,
  memberId: string,
  days: number,
): Promise<void> {
  await run(
    db,
    `INSERT INTO sessions (token_hash, member_id, expires_at) VALUES ($1, $2, now() + make_interval(days => $3))`,
    [tokenHash, memberId, days],
  );
}

/** The member whose session this is, unless it has expired. */
export async function findSessionMember(db: Db, tokenHash: Buffer): Promise<Member | undefined> {
  return maybeOne(
    db,
    `SELECT m.* FROM sessions s JOIN members m ON m.id = s.member_id WHERE s.token_hash = $1 AND s.expires_at > now()`,
    [tokenHash],
  );
}

export async function deleteSession(db: Db, tokenHash: Buffer): Promise<void> {
  await run(db, 'DELETE FROM sessions WHERE token_hash = $1', [tokenHash]);
}

/** Ends every session of a member, and every link that could begin one. */
export async function deleteSessionsOf(db: Db, memberId: string): Promise<void> {
  await run(db, 'DELETE FROM sessions WHERE member_id = $1', [memberId]);
  await run(db, 'DELETE FROM sign_in_links WHERE member_id = $1', [memberId]);
}

export async function deleteExpiredSessions(db: Db): Promise<number> {
  return run(db, 'DELETE FROM sessions WHERE expires_at <= now()');
}
