import type { MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import type { StaffRole } from '@/core/staff';
import { many, maybeOne, run, type Db, type Transaction } from '@/platform/store/db';

export type StaffMember = {
  id: MemberId;
  name: string;
  email: string;
  role: StaffRole;
  /** Real time; null: never. */
  seenAt: Instant | null;
  /** Whether they sign in with one-time codes. */
  hasCodes: boolean;
  passkeys: number;
};

/** All staff, owners first. */
export async function listStaff(db: Db): Promise<StaffMember[]> {
  return many(
    db,
    `SELECT id, name, email, staff_role AS role, seen_at,
       EXISTS (SELECT 1 FROM one_time_codes o WHERE o.member_id = members.id AND o.confirmed_at IS NOT NULL) AS has_codes,
       (SELECT count(*)::int FROM passkeys p WHERE p.member_id = members.id) AS passkeys FROM members
     WHERE staff_role IS NOT NULL AND deleted_at IS NULL ORDER BY staff_role, lower(name), id`,
  );
}

/** The ids of all owners, whose rows are locked until the transaction ends: nobody else changes who they are. */
export async function lockOwners(db: Transaction): Promise<MemberId[]> {
  const rows = await many<{ id: MemberId }>(
    db,
    `SELECT id FROM members WHERE staff_role = 'owner' AND deleted_at IS NULL ORDER BY id FOR UPDATE`,
  );
  return rows.map(({ id }) => id);
}

/** Sets a member's staff role, or, with null, takes it away. */
export async function setStaffRole(db: Db, id: MemberId, role: StaffRole | null): Promise<void> {
  await run(db, 'UPDATE members SET staff_role = $2 WHERE id = $1', [id, role]);
}

export type StaffInvite = {
  id: string;
  email: string;
  role: StaffRole;
  at: Instant;
  expiresAt: Instant;
};
const INVITE = 'id, email, role, at, expires_at';

export async function listInvites(db: Db): Promise<StaffInvite[]> {
  return many(db, `SELECT ${INVITE} FROM staff_invites WHERE expires_at > now() ORDER BY at DESC, id`);
}

/** Keeps an invitation for days of real time; another one to the same address is void. */
export async function saveInvite(
  db: Db,
  invite: { email: string; role: StaffRole; hash: Buffer; by: MemberId | null; days: number },
): Promise<void> {
  await run(
    db,
    `INSERT INTO staff_invites (email, role, hash, invited_by, expires_at) VALUES ($1, $2, $3, $4, now() + make_interval(days => $5))
     ON CONFLICT (email) DO UPDATE SET role = $2, hash = $3, invited_by = $4, at = now(), expires_at = now() + make_interval(days => $5)`,
    [invite.email, invite.role, invite.hash, invite.by, invite.days],
  );
}

export async function findInvite(db: Db, hash: Buffer): Promise<StaffInvite | undefined> {
  return maybeOne(db, `SELECT ${INVITE} FROM staff_invites WHERE hash = $1 AND expires_at > now()`, [hash]);
}

/** Uses an invitation up. Undefined: it was used, withdrawn, is too old, or never was. */
export async function takeInvite(db: Db, hash: Buffer): Promise<StaffInvite | undefined> {
  return maybeOne(
    db,
    `DELETE FROM staff_invites WHERE hash = $1 AND expires_at > now() RETURNING ${INVITE}`,
    [hash],
  );
}

/** @returns the address that was invited; undefined where there is no such invitation */
export async function deleteInvite(db: Db, id: string): Promise<string | undefined> {
  const row = await maybeOne<{ email: string }>(
    db,
    'DELETE FROM staff_invites WHERE id = $1 RETURNING email',
    [id],
  );
  return row?.email;
}

export async function deleteOldInvites(db: Db): Promise<number> {
  return run(db, 'DELETE FROM staff_invites WHERE expires_at <= now()');
}
