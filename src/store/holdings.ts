import type { HeldTier } from '@/core/access/facts';
import type { Instant } from '@/core/calendar';
import { many, run, type Db, prepared } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

export type Holding = {
  id: string;
  tierId: string;
  why: 'subscription' | 'gift' | 'import';
  subscriptionId: string | null;
  isPaid: boolean;
  fromAt: Instant;
  untilAt: Instant | null;
};

const EXTEND_HOLDING = prepared(
  'extend-holding',
  `UPDATE holdings SET until_at = $3, is_paid = $4
     WHERE subscription_id = $1 AND tier_id = $2 AND from_at <= $5 AND (until_at IS NULL OR until_at >= $5)`,
);

/**
 * Makes a subscription hold a tier from an instant until another (null: no end is known). Where it holds that
 * tier already the end moves; where it holds another, that one ends as the new one begins.
 */
export async function holdTier(
  db: Db,
  h: {
    memberId: string;
    mode: Mode;
    subscriptionId: string;
    tierId: string;
    isPaid: boolean;
    from: Instant;
    until: Instant | null;
  },
): Promise<void> {
  // Where it holds that tier at that instant it holds no other: holdings of one subscription do not overlap.
  const extended = await run(db, EXTEND_HOLDING, [h.subscriptionId, h.tierId, h.until, h.isPaid, h.from]);
  if (extended > 0) return;
  await run(
    db,
    `UPDATE holdings SET until_at = $3 WHERE subscription_id = $1 AND tier_id <> $2 AND (until_at IS NULL OR until_at > $3)`,
    [h.subscriptionId, h.tierId, h.from],
  );
  await run(
    db,
    `INSERT INTO holdings (member_id, tier_id, mode, why, subscription_id, is_paid, from_at, until_at)
     VALUES ($1, $2, $3, 'subscription', $4, $5, $6, $7)`,
    [h.memberId, h.tierId, h.mode, h.subscriptionId, h.isPaid, h.from, h.until],
  );
}

/** Moves the end of what a subscription holds now. */
export async function holdUntil(db: Db, subscriptionId: string, until: Instant | null): Promise<void> {
  await run(
    db,
    `UPDATE holdings SET until_at = CASE WHEN $2::timestamptz IS NULL THEN NULL ELSE greatest(from_at, $2::timestamptz) END
     WHERE id = (SELECT id FROM holdings WHERE subscription_id = $1 ORDER BY from_at DESC LIMIT 1)`,
    [subscriptionId, until],
  );
}

/** Nothing of a subscription is held any longer than this; what ended earlier stays as it was. */
export async function releaseHoldings(db: Db, subscriptionId: string, at: Instant): Promise<void> {
  await run(
    db,
    `UPDATE holdings SET until_at = greatest(from_at, $2::timestamptz)
     WHERE subscription_id = $1 AND (until_at IS NULL OR until_at > $2)`,
    [subscriptionId, at],
  );
}

export async function listHoldings(db: Db, memberId: string, mode: Mode): Promise<Holding[]> {
  return many(
    db,
    `SELECT id, tier_id, why, subscription_id, is_paid, from_at, until_at FROM holdings
     WHERE member_id = $1 AND mode = $2 AND (until_at IS NULL OR until_at > from_at) ORDER BY from_at DESC`,
    [memberId, mode],
  );
}

/** The tiers a member holds at an instant, each since the earliest holding of it that is running. A dispute suspends its own. */
export async function heldTiers(db: Db, memberId: string, mode: Mode, at: Instant): Promise<HeldTier[]> {
  return many(
    db,
    `SELECT h.tier_id AS tier, min(h.from_at) AS since, bool_or(h.is_paid) AS paid
     FROM holdings h LEFT JOIN subscriptions s ON s.id = h.subscription_id
     WHERE h.member_id = $1 AND h.mode = $2 AND h.from_at <= $3 AND (h.until_at IS NULL OR h.until_at > $3) AND s.disputed_at IS NULL
     GROUP BY h.tier_id ORDER BY h.tier_id`,
    [memberId, mode, at],
  );
}
