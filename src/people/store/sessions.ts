import type { Instant } from '@/core/instants';
import type { StaffRole } from '@/core/staff';
import { many, maybeOne, prepared, run, type Db } from '@/platform/store/db';
import type { MemberId } from '@/core/ids';

/** The signed-in member, as far as every page needs to know them. */
export type SignedInMember = {
  id: string;
  name: string;
  email: string;
  /** Null for members, and for staff while `lacksProof`. */
  staffRole: StaffRole | null;
  /** One of the staff, who has not shown what the site asks its staff for beyond a password: they are a member until then. */
  lacksProof: boolean;
};

export type NewSession = {
  tokenHash: Buffer;
  memberId: MemberId;
  /** Of real time. */
  days: number;
  /** As it names itself. */
  browser: string;
  /** Nobody is signed in by it yet. */
  needsCode: boolean;
  /** More than a password or a mailed code was shown. */
  isProven: boolean;
};

/** Stores a session by the hash of its token. */
export async function insertSession(db: Db, session: NewSession): Promise<void> {
  const { tokenHash, memberId, days, browser, needsCode, isProven } = session;
  await run(
    db,
    `WITH begun AS (INSERT INTO sessions (token_hash, member_id, expires_at, browser, needs_code, is_proven) VALUES ($1, $2, now() + make_interval(days => $3), $4, $5, $6))
     UPDATE members SET seen_at = now() WHERE id = $2`,
    [tokenHash, memberId, days, browser, needsCode, isProven],
  );
}

/** The session to the minute; the member, whose row is written more dearly, to the hour. */
const NOTE_SEEN = `WITH seen AS (UPDATE sessions SET last_seen_at = now() WHERE token_hash = $1 RETURNING member_id)
  UPDATE members m SET seen_at = now() FROM seen
  WHERE m.id = seen.member_id AND (m.seen_at IS NULL OR m.seen_at < now() - interval '1 hour')`;

const FIND_SESSION_MEMBER = prepared(
  'find-session-member',
  `SELECT m.id, m.name, m.email, CASE WHEN s.is_proven OR NOT site.asks_staff_proof THEN m.staff_role END AS staff_role,
       m.staff_role IS NOT NULL AND site.asks_staff_proof AND NOT s.is_proven AS lacks_proof, s.last_seen_at < now() - interval '1 minute' AS is_stale,
       (SELECT n FROM site_version) AS site_version
     FROM sessions s JOIN members m ON m.id = s.member_id CROSS JOIN site
     WHERE s.token_hash = $1 AND s.expires_at > now() AND NOT s.needs_code AND m.blocked_at IS NULL
       AND (m.staff_role IS NULL OR s.last_seen_at > now() - make_interval(mins => site.staff_idle_minutes))`,
);

/**
 * The member whose session this is, unless it has expired, or is of staff and was idle for too long. Notes that it was seen.
 * `siteVersion`: as findVersion answers it; it comes along, for every page needs both.
 */
export async function findSessionMember(
  db: Db,
  tokenHash: Buffer,
): Promise<{ member: SignedInMember; siteVersion: bigint } | undefined> {
  const found = await maybeOne<SignedInMember & { isStale: boolean; siteVersion: bigint }>(
    db,
    FIND_SESSION_MEMBER,
    [tokenHash],
  );
  if (!found) return undefined;
  const { isStale, siteVersion, ...member } = found;
  if (isStale) await run(db, NOTE_SEEN, [tokenHash]);
  return { member, siteVersion };
}

/** Marks a session as proven by a one-time code or a passkey, and ends its wait for a code. */
export async function proveSession(db: Db, tokenHash: Buffer): Promise<void> {
  await run(db, 'UPDATE sessions SET needs_code = false, is_proven = true WHERE token_hash = $1', [
    tokenHash,
  ]);
}

export async function isProvenSession(db: Db, tokenHash: Buffer): Promise<boolean> {
  return (
    (await maybeOne(db, 'SELECT 1 FROM sessions WHERE token_hash = $1 AND is_proven', [tokenHash])) !==
    undefined
  );
}

export type SessionRow = {
  id: string;
  browser: string;
  createdAt: Instant;
  lastSeenAt: Instant;
  isThis: boolean;
};

/** A member's sessions, the one seen last first; real time. `thisHash`: of the caller’s token. */
export async function listSessions(db: Db, memberId: MemberId, thisHash: Buffer): Promise<SessionRow[]> {
  return many(
    db,
    `SELECT id, browser, created_at, last_seen_at, token_hash = $2 AS is_this FROM sessions
     WHERE member_id = $1 AND expires_at > now() AND NOT needs_code ORDER BY last_seen_at DESC, id`,
    [memberId, thisHash],
  );
}

export async function deleteSession(db: Db, tokenHash: Buffer): Promise<void> {
  await run(db, 'DELETE FROM sessions WHERE token_hash = $1', [tokenHash]);
}

/** Ends one of a member's own sessions. False: there is none of this id, or it belongs to someone else. */
export async function deleteSessionById(db: Db, id: string, memberId: MemberId): Promise<boolean> {
  return (await run(db, 'DELETE FROM sessions WHERE id = $1 AND member_id = $2', [id, memberId])) === 1;
}

/** Ends every session of a member, and every link and code that could begin one. */
export async function deleteSessionsOf(db: Db, memberId: MemberId): Promise<void> {
  await run(db, 'DELETE FROM sessions WHERE member_id = $1', [memberId]);
  await run(db, 'DELETE FROM sign_in_links WHERE member_id = $1', [memberId]);
  await run(
    db,
    'DELETE FROM email_codes WHERE member_id = $1 OR email = (SELECT email FROM members WHERE id = $1)',
    [memberId],
  );
}

export async function deleteExpiredSessions(db: Db): Promise<number> {
  return run(
    db,
    `DELETE FROM sessions WHERE expires_at <= now() OR (needs_code AND created_at < now() - interval '1 hour')`,
  );
}

/** Notes, by the hash of a token, a browser that signed in to an account; `days` of real time. */
export async function insertDevice(
  db: Db,
  tokenHash: Buffer,
  memberId: MemberId,
  days: number,
): Promise<void> {
  await run(
    db,
    `INSERT INTO devices (token_hash, member_id, expires_at) VALUES ($1, $2, now() + make_interval(days => $3))
     ON CONFLICT (token_hash) DO UPDATE SET member_id = $2, expires_at = now() + make_interval(days => $3)`,
    [tokenHash, memberId, days],
  );
}

/** Whether a browser has signed in to an account before. */
export async function isDeviceOf(db: Db, tokenHash: Buffer, memberId: MemberId): Promise<boolean> {
  return (
    (await maybeOne(
      db,
      'SELECT 1 FROM devices WHERE token_hash = $1 AND member_id = $2 AND expires_at > now()',
      [tokenHash, memberId],
    )) !== undefined
  );
}

export async function deleteDevicesOf(db: Db, memberId: MemberId): Promise<void> {
  await run(db, 'DELETE FROM devices WHERE member_id = $1', [memberId]);
}

export async function deleteOldDevices(db: Db): Promise<number> {
  return run(db, 'DELETE FROM devices WHERE expires_at <= now()');
}
