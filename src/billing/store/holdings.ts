import type { HeldPass, HeldTier } from '@/core/access/facts';
import type { Instant } from '@/core/instants';
import { readInstant } from '@/core/calendar';
import type { StaffRole } from '@/core/staff';
import { many, maybeOne, one, prepared, type Db } from '@/platform/store/db';
import { z } from 'zod';
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

const LIST_HOLDINGS = prepared(
  'list-holdings',
  `SELECT id, tier_id, why, subscription_id, is_paid, from_at, until_at FROM holdings
   WHERE member_id = $1 AND mode = $2 AND (until_at IS NULL OR until_at > from_at) ORDER BY from_at DESC`,
);

export async function listHoldings(db: Db, memberId: MemberId, mode: Mode): Promise<Holding[]> {
  return many(db, LIST_HOLDINGS, [memberId, mode]);
}

/** What is held at an instant, as a condition on holdings under a name; the values are placeholders. Disputes end what is held. */
export const heldAt = (holdings: string, mode: string, at: string): string =>
  `${holdings}.mode = ${mode} AND ${holdings}.from_at <= ${at} AND (${holdings}.until_at IS NULL OR ${holdings}.until_at > ${at})`;

/** Whether a membership of a group under a name counts at an instant: it stays, or what brought it in is held. Placeholders. */
export const inGroupAt = (member: string, mode: string, at: string): string =>
  `(${member}.while_tier IS NULL OR EXISTS (SELECT 1 FROM holdings h WHERE h.member_id = ${member}.member_id AND h.tier_id = ${member}.while_tier AND ${heldAt('h', mode, at)}))`;

/** The same for passes. */
export const passHeldAt = (held: string, mode: string, at: string): string =>
  `${held}.mode = ${mode} AND ${held}.since_at <= ${at} AND (${held}.until_at IS NULL OR ${held}.until_at > ${at})`;

/** The passes held by those whom a condition on `held_passes p` is for, each since it was first got; the values are placeholders. */
const passesOf = (whose: string, mode: string, at: string): string =>
  `SELECT pass_id AS pass, min(since_at) AS since FROM held_passes p
     WHERE ${whose} AND ${passHeldAt('p', mode, at)} GROUP BY pass_id ORDER BY pass_id`;

/** As PostgreSQL writes instants into JSON, with its own offset. */
const heldTiersSchema = z.array(
  z.object({ tier: z.string(), since: z.string().transform(readInstant), paid: z.boolean() }),
);

const heldPassesSchema = z.array(z.object({ pass: z.string(), since: z.string().transform(readInstant) }));

const HELD = `SELECT tier_id AS tier, min(since_at) AS since, bool_or(is_paid) AS paid FROM holdings h
     WHERE h.member_id = m.id AND ${heldAt('h', '$2', '$3')} GROUP BY tier_id ORDER BY tier_id`;

/** `tiers`, `passes`: what they hold at an instant, each since its unbroken holding began. `groups`: the ids of those they are in. */
export type Holder = {
  id: MemberId;
  joinedAt: Instant;
  staffRole: StaffRole | null;
  tiers: HeldTier[];
  passes: HeldPass[];
  groups: string[];
};

const FIND_HOLDER = prepared(
  'find-holder',
  `SELECT m.id, m.joined_at, m.staff_role, coalesce((SELECT jsonb_agg(held) FROM (${HELD}) held), '[]') AS tiers,
     coalesce((SELECT jsonb_agg(held) FROM (${passesOf('p.member_id = m.id', '$2', '$3')}) held), '[]') AS passes,
     coalesce((SELECT array_agg(g.group_id ORDER BY g.group_id) FROM group_members g WHERE g.member_id = m.id AND ${inGroupAt('g', '$2', '$3')}), '{}') AS groups
   FROM members m WHERE m.id = $1 AND m.deleted_at IS NULL`,
);

/** A member with the tiers and passes they hold at an instant, in a mode. */
export async function findHolder(
  db: Db,
  memberId: string,
  mode: Mode,
  at: Instant,
): Promise<Holder | undefined> {
  return maybeOne(db, FIND_HOLDER, [memberId, mode, at], {
    tiers: heldTiersSchema,
    passes: heldPassesSchema,
  });
}

/** The passes that a visitor's browser holds at an instant, in a mode. */
export async function listPassesOfBrowser(
  db: Db,
  browser: Buffer,
  mode: Mode,
  at: Instant,
): Promise<HeldPass[]> {
  return many(db, passesOf('p.browser = $1', '$2', '$3'), [browser, mode, at]);
}

/**
 * The tiers that a member no longer holds at an instant, and those of subscriptions that a payment is missing for. A
 * subscription that waits for its first payment is neither.
 */
export async function findHad(
  db: Db,
  memberId: string,
  mode: Mode,
  at: Instant,
): Promise<{ lapsed: string[]; unpaid: string[] }> {
  return one(
    db,
    `SELECT coalesce((SELECT array_agg(DISTINCT h.tier_id) FROM holdings h WHERE h.member_id = $1 AND h.mode = $2 AND h.until_at <= $3
         AND h.until_at > h.from_at AND NOT EXISTS (SELECT 1 FROM holdings o WHERE o.member_id = $1 AND o.tier_id = h.tier_id AND ${heldAt('o', '$2', '$3')})), '{}') AS lapsed,
       coalesce((SELECT array_agg(DISTINCT o.tier_id) FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id JOIN offers o ON o.id = v.offer_id
         WHERE s.member_id = $1 AND s.mode = $2 AND s.state = 'overdue'), '{}') AS unpaid`,
    [memberId, mode, at],
  );
}
