import type { Instant } from '@/core/calendar';
import type { StaffRole } from '@/core/staff';
import { many, maybeOne, one, run, type Db, prepared } from '@/platform/store/db';

export type Member = {
  id: string;
  email: string;
  name: string;
  passwordHash: string | null;
  /** When the address was last confirmed; null: never. Real time. */
  emailConfirmedAt: Instant | null;
  staffRole: StaffRole | null;
  joinedAt: Instant;
  /** ISO 3166-1 alpha-2, or ''. */
  country: string;
  /** What stands on their invoices besides their name. */
  invoiceWords: string;
};

export async function findMemberByEmail(db: Db, email: string): Promise<Member | undefined> {
  return maybeOne(db, 'SELECT * FROM members WHERE email = $1', [email]);
}

const FIND_MEMBER = prepared(
  'find-member',
  'SELECT id, email, name, password_hash, email_confirmed_at, staff_role, joined_at, country, invoice_words FROM members WHERE id = $1',
);

export async function findMember(db: Db, id: string): Promise<Member | undefined> {
  return maybeOne(db, FIND_MEMBER, [id]);
}

/** @throws a conflict where the address is taken */
export async function insertMember(
  db: Db,
  member: Omit<Member, 'id' | 'country' | 'invoiceWords'>,
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

export type MemberRow = {
  id: string;
  name: string;
  email: string;
  joinedAt: Instant;
  tiers: string[];
  state: string | null;
  subscriptionId: string | null;
};

export type MemberFilter = { search?: string; tier?: string; state?: string };

const FILTERED = `
  FROM members m
  LEFT JOIN LATERAL (
    SELECT s.* FROM subscriptions s WHERE s.member_id = m.id AND s.mode = $1
    ORDER BY (s.state <> 'ended') DESC, s.started_at DESC LIMIT 1
  ) s ON true
  LEFT JOIN LATERAL (
    SELECT coalesce(array_agg(DISTINCT h.tier_id), '{}') AS tiers FROM holdings h
    WHERE h.member_id = m.id AND h.mode = $1 AND h.from_at <= $2 AND (h.until_at IS NULL OR h.until_at > $2)
  ) held ON true
  WHERE (m.staff_role IS NULL OR s.id IS NOT NULL)
    AND ($3 = '' OR m.name ILIKE '%' || $3 || '%' OR m.email ILIKE '%' || $3 || '%')
    AND ($4 = '' OR $4 = ANY (held.tiers))
    AND ($5 = '' OR s.state = $5 OR ($5 = 'none' AND s.id IS NULL))`;

const filterValues = (mode: string, at: Instant, filter: MemberFilter) => [
  mode,
  at,
  (filter.search ?? '').replace(/[\\%_]/g, '\\$&'),
  filter.tier ?? '',
  filter.state ?? '',
];

/** Members with what they hold at an instant, newest first; `limit` rows from `offset`. */
export async function listMembers(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  limit: number,
  offset: number,
): Promise<MemberRow[]> {
  return many(
    db,
    `SELECT m.id, m.name, m.email, m.joined_at, held.tiers, s.state, s.id AS subscription_id ${FILTERED}
     ORDER BY m.joined_at DESC, m.id LIMIT $6 OFFSET $7`,
    [...filterValues(mode, at, filter), limit, offset],
  );
}

export async function countMembers(db: Db, mode: string, at: Instant, filter: MemberFilter): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) ${FILTERED}`,
    filterValues(mode, at, filter),
  );
  return Number(count);
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

/** Members, not staff, who first joined by some offer between two instants of the site's clock. */
export async function countJoined(db: Db, from: Instant, to: Instant): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM members m WHERE staff_role IS NULL AND joined_at >= $1 AND joined_at <= $2
       AND EXISTS (SELECT 1 FROM subscriptions s WHERE s.member_id = m.id AND s.state <> 'pending')`,
    [from, to],
  );
  return Number(count);
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

/** Where the member is, for the tax of what they are charged from now on. */
export async function setCountry(db: Db, id: string, country: string): Promise<void> {
  await run(db, 'UPDATE members SET country = $2 WHERE id = $1', [id, country]);
  await run(db, `UPDATE subscriptions SET tax_country = $2 WHERE member_id = $1 AND state <> 'ended'`, [
    id,
    country,
  ]);
}

/** Forgets who somebody was: nothing with their name or address stays; what the books must keep stays without them. */
export async function forgetMember(db: Db, id: string, email: string, at: Instant): Promise<void> {
  await run(
    db,
    `UPDATE members SET name = 'Somebody who left', email = 'left-' || id || '@left.invalid', password_hash = NULL, email_confirmed_at = NULL, country = '', invoice_words = '', deleted_at = $2 WHERE id = $1`,
    [id, at],
  );
  await run(db, 'DELETE FROM sessions WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM sign_in_links WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM devices WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM email_codes WHERE member_id = $1 OR email = $2', [id, email]);
  await run(db, 'DELETE FROM join_answers WHERE member_id = $1', [id]);
  await run(db, 'DELETE FROM member_notes WHERE member_id = $1', [id]);
  await run(
    db,
    `UPDATE mails SET to_address = 'left@left.invalid', subject = '', text_body = '', html_body = '', sealed = NULL, state = CASE state WHEN 'queued' THEN 'failed' ELSE state END
     WHERE member_id = $1 OR to_address = $2`,
    [id, email],
  );
  await run(
    db,
    `UPDATE joinings SET email = 'left@left.invalid', name = '', answers = '[]',
       state = CASE state WHEN 'done' THEN 'done' ELSE 'expired' END WHERE member_id = $1 OR email = $2`,
    [id, email],
  );
}
