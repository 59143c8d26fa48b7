import type { HeldTier } from '@/core/access/facts';
import type { Instant } from '@/core/instants';
import { many, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { HoldingId, MemberId, SubscriptionId, TierId } from '@/core/ids';

export type Holding = {
  id: HoldingId;
  tierId: TierId;
  why: 'subscription' | 'gift' | 'import';
  subscriptionId: SubscriptionId | null;
  isPaid: boolean;
  fromAt: Instant;
  untilAt: Instant | null;
};

export async function listHoldings(db: Db, memberId: MemberId, mode: Mode): Promise<Holding[]> {
  return many(
    db,
    `SELECT id, tier_id, why, subscription_id, is_paid, from_at, until_at FROM holdings
     WHERE member_id = $1 AND mode = $2 AND (until_at IS NULL OR until_at > from_at) ORDER BY from_at DESC`,
    [memberId, mode],
  );
}

/** What is held at an instant, as a condition on holdings under a name; the values are placeholders. Disputes end what is held. */
export const heldAt = (holdings: string, mode: string, at: string): string =>
  `${holdings}.mode = ${mode} AND ${holdings}.from_at <= ${at} AND (${holdings}.until_at IS NULL OR ${holdings}.until_at > ${at})`;

/** The tiers a member holds at an instant, each since its unbroken holding began. */
export async function heldTiers(db: Db, memberId: MemberId, mode: Mode, at: Instant): Promise<HeldTier[]> {
  return many(
    db,
    `SELECT tier_id AS tier, min(since_at) AS since, bool_or(is_paid) AS paid FROM holdings h
     WHERE member_id = $1 AND ${heldAt('h', '$2', '$3')} GROUP BY tier_id ORDER BY tier_id`,
    [memberId, mode, at],
  );
}
