import type { Instant } from '@/core/calendar';
import type { StaffRole } from '@/core/staff';
import { containing, where } from '@/platform/store/conditions';
import { many, maybeOne, one, run, type Db, prepared } from '@/platform/store/db';
import { heldAt } from '@/billing/store/holdings';

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

/** The subscription that a list names beside a member: one that still runs before one that has ended, then the newest. */
const THEIRS = `SELECT s.* FROM subscriptions s WHERE s.member_id = m.id AND s.mode = ?
  ORDER BY (s.state <> 'ended') DESC, s.began_at DESC LIMIT 1`;
/** Members whose subscription beside them is in a state: none of theirs comes before it in that order. */
const THEIRS_IN_STATE = `SELECT s.member_id FROM subscriptions s WHERE s.mode = ? AND s.state = ? AND NOT EXISTS (
  SELECT 1 FROM subscriptions o WHERE o.member_id = s.member_id AND o.mode = s.mode
    AND (o.state <> 'ended', o.began_at) > (s.state <> 'ended', s.began_at))`;
const HELD = heldAt('h', '?', '?');
const HAS_SUBSCRIPTION = `SELECT 1 FROM subscriptions s WHERE s.member_id = m.id AND s.mode = ?`;

/** Staff are listed only where they are members too. */
const narrowedBy = (mode: string, at: Instant, { search, tier, state }: MemberFilter) =>
  where([
    [
      `m.staff_role IS NULL OR m.id IN (SELECT m.id FROM members m WHERE m.staff_role IS NOT NULL AND EXISTS (${HAS_SUBSCRIPTION}))`,
      mode,
    ],
    search && ['m.search_text LIKE ?', containing(search)],
    tier && [
      `m.id IN (SELECT h.member_id FROM holdings h WHERE h.tier_id = ? AND ${HELD})`,
      tier,
      mode,
      at,
      at,
    ],
    state === 'none' && [`NOT EXISTS (${HAS_SUBSCRIPTION})`, mode],
    state && state !== 'none' && [`m.id IN (${THEIRS_IN_STATE})`, mode, state],
  ]);

/** Members with what they hold at an instant, newest first; `limit` rows from `offset`. */
export async function listMembers(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  limit: number,
  offset: number,
): Promise<MemberRow[]> {
  const narrowed = narrowedBy(mode, at, filter);
  const [most, from] = [narrowed.add(limit), narrowed.add(offset)];
  const [inMode, now] = [narrowed.add(mode), narrowed.add(at)];
  // The page is selected first, so that the other columns are looked up for its members only.
  return many(
    db,
    `SELECT m.id, m.name, m.email, m.joined_at, held.tiers, s.state, s.id AS subscription_id
     FROM (SELECT m.* FROM members m ${narrowed.sql} ORDER BY m.joined_at DESC, m.id LIMIT ${most} OFFSET ${from}) m
     LEFT JOIN LATERAL (${THEIRS.replace('?', inMode)}) s ON true
     LEFT JOIN LATERAL (
       SELECT coalesce(array_agg(DISTINCT h.tier_id), '{}') AS tiers FROM holdings h
       WHERE h.member_id = m.id AND ${HELD.replace('?', inMode).replaceAll('?', now)}
     ) held ON true
     ORDER BY m.joined_at DESC, m.id`,
    narrowed.values,
  );
}

export async function countMembers(db: Db, mode: string, at: Instant, filter: MemberFilter): Promise<number> {
  const { sql, values } = narrowedBy(mode, at, filter);
  const { count } = await one<{ count: bigint }>(db, `SELECT count(*) FROM members m ${sql}`, values);
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
       AND EXISTS (SELECT 1 FROM subscriptions s WHERE s.member_id = m.id AND s.began_at IS NOT NULL)`,
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
  await run(db, 'DELETE FROM member_notes WHERE member_id = $1', [id]);
  await run(
    db,
    `UPDATE mails SET to_address = 'left@left.invalid', subject = '', text_body = '', html_body = '', sealed = NULL, state = CASE state WHEN 'queued' THEN 'failed' ELSE state END
     WHERE member_id = $1 OR to_address = $2`,
    [id, email],
  );
  await run(
    db,
    `UPDATE checkouts SET email = 'left@left.invalid', name = '', answers = '[]',
       state = CASE state WHEN 'done' THEN 'done' ELSE 'expired' END WHERE member_id = $1 OR email = $2`,
    [id, email],
  );
}
