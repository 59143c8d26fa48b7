import type { Instant } from '@/core/instants';
import type { MemberId, PurchaseId } from '@/core/ids';
import { many, maybeOne, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { passHeldAt } from './holdings';

/** Why a pass is held. `email`: the address that was proved. */
export type Why =
  | { why: 'password' | 'given' | 'code' }
  | { why: 'address'; email: string }
  | { why: 'purchase'; purchaseId: PurchaseId };
/** In whose hands: a member's, or those of a visitor's browser, by the hash of what its cookie holds. */
export type Hands = { memberId: MemberId | null; browser: Buffer | null };

export type Giving = Hands &
  Why & { id: string; passId: string; mode: Mode; since: Instant; until: Instant | null };

export async function giveHeldPass(db: Db, given: Giving): Promise<void> {
  const { id, passId, memberId, browser, why, mode, since, until } = given;
  const email = given.why === 'address' ? given.email : null;
  const purchaseId = given.why === 'purchase' ? given.purchaseId : null;
  await run(
    db,
    `INSERT INTO held_passes (id, pass_id, member_id, browser, why, email, mode, since_at, until_at, purchase_id)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [id, passId, memberId, browser, why, email, mode, since, until, purchaseId],
  );
}

/** Whether someone holds a pass at an instant, in a mode. */
export async function holdsPass(
  db: Db,
  passId: string,
  { memberId, browser }: Hands,
  mode: Mode,
  at: Instant,
): Promise<boolean> {
  const found = await maybeOne(
    db,
    `SELECT 1 FROM held_passes p WHERE p.pass_id = $1 AND (p.member_id = $2::uuid OR p.browser = $3::bytea) AND ${passHeldAt('p', '$4', '$5')} LIMIT 1`,
    [passId, memberId, browser, mode, at],
  );
  return found !== undefined;
}

/** When an address was first proved for a pass, and whether the pass was ever revoked from it; undefined where it never was. */
export async function findProvedBefore(
  db: Db,
  passId: string,
  email: string,
  mode: Mode,
): Promise<{ since: Instant; isRevoked: boolean } | undefined> {
  return maybeOne(
    db,
    `SELECT min(since_at) AS since, bool_or(is_revoked) AS is_revoked FROM held_passes
     WHERE pass_id = $1 AND email = $2 AND mode = $3 HAVING count(*) > 0`,
    [passId, email, mode],
  );
}

/**
 * Makes the passes of a visitor's browser those of the member who signed in with it; what another proved an address for stays
 * theirs, and so does what is a member's already.
 */
export async function claimHeldPasses(db: Db, browser: Buffer, memberId: MemberId): Promise<void> {
  await run(
    db,
    `UPDATE held_passes SET member_id = $2 WHERE browser = $1 AND member_id IS NULL
       AND (why IN ('password', 'purchase') OR email = (SELECT email FROM members WHERE id = $2))`,
    [browser, memberId],
  );
}

/** Ends a pass that is held at an instant. `ofMember`: by that member alone. Undefined: it was not. */
export async function endHeldPass(
  db: Db,
  passId: string,
  id: string,
  at: Instant,
  ofMember: string | null = null,
): Promise<{ memberId: MemberId | null; mode: Mode } | undefined> {
  return maybeOne(
    db,
    `UPDATE held_passes SET until_at = greatest(since_at, $3), is_revoked = true WHERE pass_id = $1 AND id = $2 AND (until_at IS NULL OR until_at > $3)
       AND ($4::uuid IS NULL OR member_id = $4)
     RETURNING member_id, mode`,
    [passId, id, at, ofMember],
  );
}

/** Sets when a held pass ends; null: never. */
export async function setPassEnd(db: Db, id: string, until: Instant | null): Promise<void> {
  await run(db, 'UPDATE held_passes SET until_at = $2 WHERE id = $1', [id, until]);
}

/** Ends, in both modes, a pass of all who hold it by its password. @returns how many there were */
export async function endHeldByPassword(db: Db, passId: string, at: Instant): Promise<number> {
  return run(
    db,
    `UPDATE held_passes SET until_at = greatest(since_at, $2), is_revoked = true WHERE pass_id = $1 AND why = 'password' AND (until_at IS NULL OR until_at > $2)`,
    [passId, at],
  );
}

/** Who holds a pass. `name` is '' and `memberId` null for a visitor's browser. */
export type PassHolder = {
  id: string;
  memberId: MemberId | null;
  name: string;
  email: string | null;
  why: Why['why'];
  since: Instant;
  until: Instant | null;
};

/** Who holds a pass at an instant, the latest first, some at a time. */
export async function listPassHolders(
  db: Db,
  passId: string,
  { mode, at, limit, offset }: { mode: Mode; at: Instant; limit: number; offset: number },
): Promise<PassHolder[]> {
  return many(
    db,
    `SELECT p.id, p.member_id, coalesce(m.name, '') AS name, coalesce(p.email, m.email) AS email, p.why, p.since_at AS since, p.until_at AS until
     FROM held_passes p LEFT JOIN members m ON m.id = p.member_id
     WHERE p.pass_id = $1 AND ${passHeldAt('p', '$2', '$3')} ORDER BY p.since_at DESC, p.id LIMIT $4 OFFSET $5`,
    [passId, mode, at, limit, offset],
  );
}

/** How many hold each pass at an instant. */
export async function countPassHolders(db: Db, mode: Mode, at: Instant): Promise<Map<string, number>> {
  const rows = await many<{ passId: string; holders: bigint }>(
    db,
    `SELECT p.pass_id, count(*) AS holders FROM held_passes p WHERE ${passHeldAt('p', '$1', '$2')} GROUP BY p.pass_id`,
    [mode, at],
  );
  return new Map(rows.map(({ passId, holders }) => [passId, Number(holders)]));
}

export type HeldByMember = {
  id: string;
  passId: string;
  mode: Mode;
  /** What the pass is called. */
  pass: string;
  why: Why['why'];
  email: string | null;
  since: Instant;
  until: Instant | null;
};

/** A member's passes in both modes, for their own data and their file. */
export async function listPassesOf(db: Db, memberId: string): Promise<HeldByMember[]> {
  return many(
    db,
    `SELECT p.id, p.pass_id, p.mode, s.name AS pass, p.why, p.email, p.since_at AS since, p.until_at AS until
     FROM held_passes p JOIN passes s ON s.id = p.pass_id WHERE p.member_id = $1 ORDER BY p.since_at, p.id`,
    [memberId],
  );
}

export async function deletePassesOf(db: Db, memberId: string): Promise<void> {
  await run(db, 'DELETE FROM held_passes WHERE member_id = $1', [memberId]);
}

/** Where a bought pass is used besides by its buyer: in browsers, and by members who typed its code. */
export type PassDevice = { id: string; memberName: string | null; since: Instant };

/** The devices on which the code of a purchase is used at an instant, the first first; not its buyer's own. */
export async function listDevicesOf(
  db: Db,
  { id, memberId, mode }: { id: PurchaseId; memberId: MemberId; mode: Mode },
  at: Instant,
): Promise<PassDevice[]> {
  return many(
    db,
    `SELECT p.id, coalesce(nullif(m.name, ''), m.email) AS member_name, p.since_at AS since FROM held_passes p LEFT JOIN members m ON m.id = p.member_id
     WHERE p.purchase_id = $1 AND p.member_id IS DISTINCT FROM $2 AND NOT p.is_revoked AND ${passHeldAt('p', '$3', '$4')} ORDER BY p.since_at, p.id`,
    [id, memberId, mode, at],
  );
}

/** When a bought pass ends in its buyer's hands; undefined where it is held no more. */
export async function findBoughtPass(
  db: Db,
  { id, memberId, mode }: { id: PurchaseId; memberId: MemberId; mode: Mode },
  at: Instant,
): Promise<{ until: Instant | null } | undefined> {
  return maybeOne(
    db,
    `SELECT p.until_at AS until FROM held_passes p WHERE p.purchase_id = $1 AND p.member_id = $2 AND NOT p.is_revoked
       AND ${passHeldAt('p', '$3', '$4')} LIMIT 1`,
    [id, memberId, mode, at],
  );
}

/** Signs one device out of a bought pass. @returns whether it was signed in */
export async function endDevice(db: Db, purchaseId: PurchaseId, id: string, at: Instant): Promise<boolean> {
  return (
    (await run(
      db,
      `UPDATE held_passes SET until_at = greatest(since_at, $3), is_revoked = true
       WHERE id = $2 AND purchase_id = $1 AND (until_at IS NULL OR until_at > $3)`,
      [purchaseId, id, at],
    )) === 1
  );
}
