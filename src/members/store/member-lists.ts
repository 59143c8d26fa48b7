import type { Instant } from '@/core/instants';
import { heldAt } from '@/billing/store/holdings';
import { containing, where } from '@/platform/store/conditions';
import { many, one, type Db } from '@/platform/store/db';
import type { SubscriptionId } from '@/core/ids';

export type MemberRow = {
  id: string;
  name: string;
  email: string;
  joinedAt: Instant;
  tiers: string[];
  state: string | null;
  subscriptionId: SubscriptionId | null;
  /** Whether any of their subscriptions is suspended by a dispute. */
  isDisputed: boolean;
};

/** `state`: of the subscription that is listed, or `none` or `disputed`. */
export type MemberFilter = { search?: string; tier?: string; state?: string };

/** The subscription that a list names beside a member: one that still runs before one that has ended, then the newest. */
const THEIRS = `SELECT s.* FROM subscriptions s WHERE s.member_id = m.id AND s.mode = ?
  ORDER BY (s.state <> 'ended') DESC, s.began_at DESC LIMIT 1`;

/** Members whose subscription beside them is in a state: none of theirs comes before it in that order. */
const THEIRS_IN_STATE = `SELECT s.member_id FROM subscriptions s WHERE s.mode = ? AND s.state = ? AND NOT EXISTS (
  SELECT 1 FROM subscriptions o WHERE o.member_id = s.member_id AND o.mode = s.mode
    AND (o.state <> 'ended', o.began_at) > (s.state <> 'ended', s.began_at))`;

const HELD = heldAt('h', '?', '?');

const DISPUTED = `SELECT s.member_id FROM subscriptions s WHERE s.mode = ? AND s.disputes <> '{}'`;

const HAS_SUBSCRIPTION = `SELECT 1 FROM subscriptions s WHERE s.member_id = m.id AND s.mode = ?`;

/** Staff are listed only where they are members too; deleted accounts are not. */
const narrowedBy = (mode: string, at: Instant, { search, tier, state }: MemberFilter) =>
  where([
    [
      `m.deleted_at IS NULL AND (m.staff_role IS NULL OR m.id IN (SELECT m.id FROM members m WHERE m.staff_role IS NOT NULL AND EXISTS (${HAS_SUBSCRIPTION})))`,
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
    state === 'disputed' && [`m.id IN (${DISPUTED})`, mode],
    state && state !== 'none' && state !== 'disputed' && [`m.id IN (${THEIRS_IN_STATE})`, mode, state],
  ]);

/** Members with what they hold at an instant, newest first; `limit` rows from `offset`. */
export async function listMembers(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  { limit, offset = 0 }: { limit: number; offset?: number },
): Promise<MemberRow[]> {
  const narrowed = narrowedBy(mode, at, filter);
  const [most, from] = [narrowed.add(limit), narrowed.add(offset)];
  const [inMode, now] = [narrowed.add(mode), narrowed.add(at)];
  // The page is selected first, so that the other columns are looked up for its members only.
  return many(
    db,
    `SELECT m.id, m.name, m.email, m.joined_at, held.tiers, s.state, s.id AS subscription_id,
       m.id IN (${DISPUTED.replace('?', inMode)}) AS is_disputed
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

/** Members, not staff, who first joined by some offer between two instants of the site's clock. */
export async function countJoined(db: Db, from: Instant, to: Instant): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM members m WHERE staff_role IS NULL AND deleted_at IS NULL AND joined_at >= $1 AND joined_at <= $2
       AND EXISTS (SELECT 1 FROM subscriptions s WHERE s.member_id = m.id AND s.began_at IS NOT NULL)`,
    [from, to],
  );
  return Number(count);
}
