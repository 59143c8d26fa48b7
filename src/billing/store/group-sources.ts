import type { MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import type { Coming } from '@/people/store/groups';
import { many, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { heldAt, inGroupAt } from './holdings';

/** Into which groups a member comes by tiers that they have got. */
export async function groupsByTiers(db: Db, memberId: MemberId, tiers: string[]): Promise<Coming[]> {
  return many(
    db,
    `SELECT DISTINCT ON (s.group_id) s.group_id, $1::uuid AS member_id, CASE WHEN s.takes_out THEN s.source END AS while_tier, NULL::uuid AS while_subscription
     FROM group_sources s WHERE s.kind = 'tier' AND s.source = ANY ($2) ORDER BY s.group_id, s.takes_out`,
    [memberId, tiers],
  );
}

/** Into which groups a member comes by the offer, the code and the answers with which a subscription began. */
export async function groupsByJoining(db: Db, memberId: MemberId, subscriptionId: string): Promise<Coming[]> {
  return many(
    db,
    `SELECT DISTINCT ON (g.group_id) g.group_id, $1::uuid AS member_id, NULL AS while_tier, CASE WHEN g.takes_out THEN $2::uuid END AS while_subscription
     FROM group_sources g
     LEFT JOIN checkouts k ON k.subscription_id = $2 AND k.member_id = $1 LEFT JOIN codes c ON c.id = k.code_id
     WHERE (g.kind = 'offer' AND g.source = (SELECT v.offer_id FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id WHERE s.id = $2))
       OR (g.kind = 'code' AND g.source = c.batch_id::text)
       OR (g.kind = 'answer' AND k.answers @> jsonb_build_array(jsonb_build_object('fieldId', g.source, 'value', g.value)))
     ORDER BY g.group_id, g.takes_out`,
    [memberId, subscriptionId],
  );
}

/** Into which groups a code brings who uses it without joining: to stay. */
export async function groupsByCode(db: Db, memberId: MemberId, batchId: string): Promise<Coming[]> {
  return many(
    db,
    `SELECT DISTINCT group_id, $1::uuid AS member_id, NULL AS while_tier, NULL::uuid AS while_subscription
     FROM group_sources WHERE kind = 'code' AND source = $2`,
    [memberId, batchId],
  );
}

/** All who hold a tier at an instant, as those who come into a group by it. */
export async function holdersComing(
  db: Db,
  { groupId, source, takesOut }: { groupId: string; source: string; takesOut: boolean },
  mode: Mode,
  at: Instant,
): Promise<Coming[]> {
  return many(
    db,
    `SELECT DISTINCT $1 AS group_id, h.member_id, CASE WHEN $3 THEN $2 END AS while_tier, NULL::uuid AS while_subscription
     FROM holdings h JOIN members m ON m.id = h.member_id AND m.deleted_at IS NULL WHERE h.tier_id = $2 AND ${heldAt('h', '$4', '$5')}`,
    [groupId, source, takesOut, mode, at],
  );
}

/** Memberships of groups whose tier has ended, some at a time. */
export async function listOutOfGroups(
  db: Db,
  mode: Mode,
  at: Instant,
  limit: number,
): Promise<{ groupId: string; memberId: MemberId }[]> {
  return many(
    db,
    `SELECT g.group_id, g.member_id FROM group_members g WHERE g.while_tier IS NOT NULL AND NOT ${inGroupAt('g', '$1', '$2')} LIMIT $3`,
    [mode, at, limit],
  );
}
