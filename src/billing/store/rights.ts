import type { HeldPass, HeldTier } from '@/core/access/facts';
import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import type { StaffRole } from '@/core/staff';
import { many, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { heldAt, inGroupAt, passHeldAt } from './holdings';

/**
 * What some members have in common that access rules can ask for. Instants are those of one who began between the same two
 * turning points, of which there are only as many as the rules have waits.
 */
export type Rights = {
  /** These rights in one text, the same for all who have them. */
  key: string;
  members: number;
  /** Where the rules name this one member. */
  memberId: MemberId | null;
  joinedAt: Instant;
  tiers: HeldTier[];
  passes: HeldPass[];
  groups: string[];
  staffRole: StaffRole | null;
};

/** Each member's rights at $2 in mode $1; instants by the turning points $3; members named in $4 by themselves. */
const RIGHTS = `
  held AS (
    SELECT h.member_id, h.tier_id, bool_or(h.is_paid) AS paid, width_bucket(min(h.since_at), $3::timestamptz[]) AS since
    FROM holdings h WHERE ${heldAt('h', '$1', '$2')} GROUP BY 1, 2),
  tiers AS (
    SELECT member_id, jsonb_agg(jsonb_build_array(tier_id, paid, since) ORDER BY tier_id) AS tiers FROM held GROUP BY 1),
  passed AS (
    SELECT member_id, jsonb_agg(jsonb_build_array(pass_id, since) ORDER BY pass_id) AS passes FROM (
      SELECT p.member_id, p.pass_id, width_bucket(min(p.since_at), $3::timestamptz[]) AS since
      FROM held_passes p WHERE p.member_id IS NOT NULL AND ${passHeldAt('p', '$1', '$2')} GROUP BY 1, 2) held GROUP BY 1),
  grouped AS (SELECT member_id, jsonb_agg(group_id ORDER BY group_id) AS groups FROM group_members g WHERE ${inGroupAt('g', '$1', '$2')} GROUP BY 1),
  rights AS (
    SELECT m.id, m.name, m.email, jsonb_build_array(coalesce(t.tiers, '[]'), coalesce(p.passes, '[]'), coalesce(g.groups, '[]'), m.staff_role,
        width_bucket(m.joined_at, $3::timestamptz[]), CASE WHEN m.id = ANY ($4::uuid[]) THEN m.id END)::text AS key
    FROM members m LEFT JOIN tiers t ON t.member_id = m.id LEFT JOIN passed p ON p.member_id = m.id LEFT JOIN grouped g ON g.member_id = m.id
    WHERE m.deleted_at IS NULL)`;

type Asked = { mode: Mode; at: Instant; points: Instant[]; named: string[] };
const valuesOf = ({ mode, at, points, named }: Asked): unknown[] => [mode, at, points, named];

/** The distinct rights of all members, with how many have each. */
export async function listRights(db: Db, asked: Asked): Promise<Rights[]> {
  const rows = await many<{ key: string; members: bigint }>(
    db,
    `WITH ${RIGHTS} SELECT key, count(*) AS members FROM rights GROUP BY key ORDER BY members DESC, key`,
    valuesOf(asked),
  );
  return rows.map(({ key, members }) => ({ ...rightsIn(key, asked.points), key, members: Number(members) }));
}

/** Some of the members who have any of these rights, by name. */
export async function listMembersWith(
  db: Db,
  asked: Asked,
  keys: string[],
  limit: number,
): Promise<{ id: MemberId; name: string; email: string }[]> {
  return many(
    db,
    `WITH ${RIGHTS} SELECT id, name, email FROM rights WHERE key = ANY ($5) ORDER BY name, email, id LIMIT $6`,
    [...valuesOf(asked), keys, limit],
  );
}

const LONG_AGO = '1970-01-01T00:00:00Z';

function rightsIn(key: string, points: Instant[]): Omit<Rights, 'key' | 'members'> {
  const [tiers, passes, groups, staffRole, joined, memberId] = JSON.parse(key) as [
    [string, boolean, number][],
    [string, number][],
    string[],
    StaffRole | null,
    number,
    MemberId | null,
  ];
  const from = (bucket: number): Instant => points[bucket - 1] ?? LONG_AGO;
  return {
    memberId,
    joinedAt: from(joined),
    tiers: tiers.map(([tier, paid, since]) => ({ tier, paid, since: from(since) })),
    passes: passes.map(([pass, since]) => ({ pass, since: from(since) })),
    groups,
    staffRole,
  };
}
