import type { Instant } from '@/core/instants';
import type { StaffRole } from '@/core/staff';
import { many, maybeOne, one, run, type Db, prepared } from '@/platform/store/db';
import type { MemberId } from '@/core/ids';

export type Member = {
  id: MemberId;
  email: string;
  name: string;
  passwordHash: string | null;
  /** When the address was last confirmed; null: never. Real time. */
  emailConfirmedAt: Instant | null;
  staffRole: StaffRole | null;
  joinedAt: Instant;
  /** When staff blocked the account; null: it is not blocked. Real time. */
  blockedAt: Instant | null;
  /** When the account was deleted; the row stays for the books. */
  deletedAt: Instant | null;
  /** The account that it went into. */
  mergedInto: MemberId | null;
  /** ISO 3166-1 alpha-2, or ''. */
  country: string;
  /** What their invoices say besides their name. */
  invoiceWords: string;
};

export async function findMemberByEmail(db: Db, email: string): Promise<Member | undefined> {
  return maybeOne(db, 'SELECT * FROM members WHERE email = $1', [email]);
}

const FIND_MEMBER = prepared(
  'find-member',
  'SELECT id, email, name, password_hash, email_confirmed_at, staff_role, joined_at, blocked_at, deleted_at, merged_into, country, invoice_words FROM members WHERE id = $1',
);

export async function findMember(db: Db, id: string): Promise<Member | undefined> {
  return maybeOne(db, FIND_MEMBER, [id]);
}

export async function listMembersById(db: Db, ids: string[]): Promise<Member[]> {
  return many(db, 'SELECT * FROM members WHERE id = ANY ($1)', [ids]);
}

/** @throws a conflict where the address is taken */
export async function insertMember(
  db: Db,
  member: Omit<Member, 'id' | 'country' | 'invoiceWords' | 'blockedAt' | 'deletedAt' | 'mergedInto'>,
): Promise<Member> {
  return one(
    db,
    `INSERT INTO members (email, name, password_hash, staff_role, joined_at, email_confirmed_at) VALUES ($1, $2, $3, $4, $5, $6) RETURNING *`,
    [
      member.email,
      member.name,
      member.passwordHash,
      member.staffRole,
      member.joinedAt,
      member.emailConfirmedAt,
    ],
  );
}

/** Adds members who have no password and whose address is not confirmed. @returns the addresses that nobody had before */
export async function insertMembers(
  db: Db,
  members: Pick<Member, 'email' | 'name' | 'joinedAt'>[],
): Promise<string[]> {
  const rows = await many<{ email: string }>(
    db,
    `INSERT INTO members (email, name, joined_at)
     SELECT * FROM unnest($1::text[], $2::text[], $3::timestamptz[]) ON CONFLICT (email) DO NOTHING RETURNING email`,
    [
      members.map(({ email }) => email),
      members.map(({ name }) => name),
      members.map(({ joinedAt }) => joinedAt),
    ],
  );
  return rows.map(({ email }) => email);
}

/** The members who have these addresses, in lower case; their rows are locked until the transaction ends. */
export async function lockMembersByEmails(db: Db, emails: string[]): Promise<Member[]> {
  return many(db, 'SELECT * FROM members WHERE email = ANY ($1) ORDER BY id FOR UPDATE', [emails]);
}

/** Locks a member's row until the transaction ends. */
export async function lockMember(db: Db, id: string): Promise<Member | undefined> {
  return maybeOne(db, 'SELECT * FROM members WHERE id = $1 FOR UPDATE', [id]);
}

/** Confirms an address and makes it the member's. @throws a conflict where it is taken */
export async function setConfirmedEmail(db: Db, id: string, email: string, at: Instant): Promise<void> {
  await run(db, 'UPDATE members SET email = $2, email_confirmed_at = $3 WHERE id = $1', [id, email, at]);
}

export async function setName(db: Db, id: string, name: string): Promise<void> {
  await run(db, 'UPDATE members SET name = $2 WHERE id = $1', [id, name]);
}

/** Sets a password, or, with null, takes it away. */
export async function setPassword(db: Db, id: string, passwordHash: string | null): Promise<void> {
  await run(db, 'UPDATE members SET password_hash = $2 WHERE id = $1', [id, passwordHash]);
}

export async function setDetails(
  db: Db,
  id: string,
  d: Pick<Member, 'name' | 'invoiceWords'>,
): Promise<void> {
  await run(db, 'UPDATE members SET name = $2, invoice_words = $3 WHERE id = $1', [
    id,
    d.name,
    d.invoiceWords,
  ]);
}

/** Blocks an account since an instant of real time, or, with null, opens it again. */
export async function setBlocked(db: Db, id: string, since: Instant | null): Promise<void> {
  await run(db, 'UPDATE members SET blocked_at = $2 WHERE id = $1', [id, since]);
}

/** Where the member is. ISO 3166-1 alpha-2, or ''. */
export async function setCountry(db: Db, id: string, country: string): Promise<void> {
  await run(db, 'UPDATE members SET country = $2 WHERE id = $1', [id, country]);
}

/** Forgets who a member was, and every way for them to sign in. The row stays for the books, without a name. */
export async function forgetMember(db: Db, id: string, email: string, at: Instant): Promise<void> {
  await run(
    db,
    `UPDATE members SET name = 'Deleted member', email = 'left-' || id || '@left.invalid', password_hash = NULL, email_confirmed_at = NULL, country = '', invoice_words = '', deleted_at = $2 WHERE id = $1`,
    [id, at],
  );
  await run(db, 'DELETE FROM sessions WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM sign_in_links WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM group_members WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM devices WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM passkeys WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM one_time_codes WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM email_codes WHERE member_id = $1 OR email = $2', [id, email]);
}

/** What members are called, by their ids: their name, or their address where they gave none. */
export async function listMemberNames(db: Db, ids: string[]): Promise<{ id: MemberId; name: string }[]> {
  return many(
    db,
    `SELECT id, coalesce(nullif(name, ''), email) AS name FROM members WHERE id::text = ANY ($1)`,
    [ids],
  );
}

/** Notes into which account another went, and since when the one that is kept is a member. */
export async function noteMerged(
  db: Db,
  { from, to, joinedAt }: { from: MemberId; to: MemberId; joinedAt: Instant },
): Promise<void> {
  await run(db, 'UPDATE members SET merged_into = $2 WHERE id = $1 OR merged_into = $1', [from, to]);
  await run(db, 'UPDATE members SET joined_at = $2 WHERE id = $1', [to, joinedAt]);
}

/** The accounts that went into a member's. */
export async function listMergedInto(db: Db, id: MemberId): Promise<MemberId[]> {
  const rows = await many<{ id: MemberId }>(db, 'SELECT id FROM members WHERE merged_into = $1', [id]);
  return rows.map((row) => row.id);
}
