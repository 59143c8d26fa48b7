import type { MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import { many, maybeOne, run, type Db } from '@/platform/store/db';

export type Group = { id: string; name: string };

export async function listGroups(db: Db): Promise<Group[]> {
  return many(db, 'SELECT id, name FROM groups ORDER BY lower(name), id');
}

/** Groups with how many members are in each. */
export async function listGroupsWithCounts(db: Db): Promise<(Group & { members: number })[]> {
  const rows = await many<Group & { members: bigint }>(
    db,
    `SELECT g.id, g.name, (SELECT count(*) FROM group_members m WHERE m.group_id = g.id) AS members
     FROM groups g ORDER BY lower(g.name), g.id`,
  );
  return rows.map((row) => ({ ...row, members: Number(row.members) }));
}

export async function findGroup(db: Db, id: string): Promise<Group | undefined> {
  return maybeOne(db, 'SELECT id, name FROM groups WHERE id = $1', [id]);
}

/** Makes a group, or renames it. */
export async function saveGroup(db: Db, { id, name }: Group): Promise<void> {
  await run(db, 'INSERT INTO groups (id, name) VALUES ($1, $2) ON CONFLICT (id) DO UPDATE SET name = $2', [
    id,
    name,
  ]);
}

export async function deleteGroup(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM groups WHERE id = $1', [id])) === 1;
}

/** Puts members with an account into a group, to stay. @returns the ids of those who were not in it yet */
export async function addToGroup(
  db: Db,
  groupId: string,
  memberIds: MemberId[],
  at: Instant,
): Promise<MemberId[]> {
  const rows = await many<{ memberId: MemberId; isNew: boolean }>(
    db,
    // A member who came in automatically stays for good once staff add them.
    `INSERT INTO group_members (group_id, member_id, added_at)
     SELECT $1, id, $3 FROM members WHERE id = ANY($2::uuid[]) AND deleted_at IS NULL
     ON CONFLICT (group_id, member_id) DO UPDATE SET while_tier = NULL, while_subscription = NULL
     RETURNING member_id, xmax = 0 AS is_new`,
    [groupId, memberIds, at],
  );
  return rows.flatMap(({ memberId, isNew }) => (isNew ? [memberId] : []));
}

/** What brings members into a group by themselves. `value`: of a question, the answer. */
export type GroupSource = {
  id: string;
  groupId: string;
  kind: 'tier' | 'offer' | 'code' | 'answer';
  source: string;
  value: string;
  takesOut: boolean;
};

export async function listGroupSources(db: Db, groupId: string): Promise<GroupSource[]> {
  return many(
    db,
    'SELECT id, group_id, kind, source, value, takes_out FROM group_sources WHERE group_id = $1 ORDER BY kind, source, value',
    [groupId],
  );
}

/** Adds what brings members in, or changes whether they leave with it. */
export async function saveGroupSource(db: Db, s: GroupSource): Promise<void> {
  await run(
    db,
    `INSERT INTO group_sources (id, group_id, kind, source, value, takes_out) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (group_id, kind, source, value) DO UPDATE SET takes_out = $6`,
    [s.id, s.groupId, s.kind, s.source, s.value, s.takesOut],
  );
}

/** Members whom it brought in stay. Undefined: this group has no such source. */
export async function deleteGroupSource(
  db: Db,
  groupId: string,
  id: string,
): Promise<GroupSource | undefined> {
  const source = await maybeOne<GroupSource>(
    db,
    'DELETE FROM group_sources WHERE id = $2 AND group_id = $1 RETURNING id, group_id, kind, source, value, takes_out',
    [groupId, id],
  );
  if (source?.kind === 'tier')
    await run(db, 'UPDATE group_members SET while_tier = NULL WHERE group_id = $1 AND while_tier = $2', [
      groupId,
      source.source,
    ]);
  return source;
}

/** A member who comes into a group by themselves: to stay, or for as long as they hold a tier or a subscription runs. */
export type Coming = {
  groupId: string;
  memberId: MemberId;
  whileTier: string | null;
  whileSubscription: string | null;
};

/** Those who are in the group already stay as they are. @returns those who came in */
export async function comeIntoGroups(db: Db, coming: Coming[], at: Instant): Promise<Coming[]> {
  return many(
    db,
    `INSERT INTO group_members (group_id, member_id, while_tier, while_subscription, added_at)
     SELECT c.*, $5 FROM unnest($1::text[], $2::uuid[], $3::text[], $4::uuid[]) AS c
     ON CONFLICT DO NOTHING RETURNING group_id, member_id, while_tier, while_subscription`,
    [
      coming.map(({ groupId }) => groupId),
      coming.map(({ memberId }) => memberId),
      coming.map(({ whileTier }) => whileTier),
      coming.map(({ whileSubscription }) => whileSubscription),
      at,
    ],
  );
}

/** Takes out whom a subscription brought in; or, with another that takes its place, lets them stay for that. @returns the groups */
export async function leaveWithSubscription(db: Db, id: string, next: string | null): Promise<string[]> {
  const rows = await many<{ groupId: string }>(
    db,
    next === null
      ? 'DELETE FROM group_members WHERE while_subscription = $1 RETURNING group_id'
      : 'UPDATE group_members SET while_subscription = $2 WHERE while_subscription = $1 RETURNING group_id',
    next === null ? [id] : [id, next],
  );
  return rows.map(({ groupId }) => groupId);
}

export async function removeFromGroup(db: Db, groupId: string, memberId: MemberId): Promise<boolean> {
  return (
    (await run(db, 'DELETE FROM group_members WHERE group_id = $1 AND member_id = $2', [
      groupId,
      memberId,
    ])) === 1
  );
}

export type GroupMember = { id: MemberId; name: string; email: string; addedAt: Instant };

/** The members of a group by their names, some at a time. */
export async function listGroupMembers(
  db: Db,
  groupId: string,
  { limit, offset }: { limit: number; offset: number },
): Promise<GroupMember[]> {
  return many(
    db,
    `SELECT m.id, m.name, m.email, g.added_at FROM group_members g JOIN members m ON m.id = g.member_id
     WHERE g.group_id = $1 ORDER BY lower(m.name), m.id LIMIT $2 OFFSET $3`,
    [groupId, limit, offset],
  );
}

export async function listGroupsOf(db: Db, memberId: MemberId): Promise<Group[]> {
  return many(
    db,
    `SELECT g.id, g.name FROM groups g JOIN group_members m ON m.group_id = g.id
     WHERE m.member_id = $1 ORDER BY lower(g.name), g.id`,
    [memberId],
  );
}

/** Members with an account by their addresses, in lower case. */
export async function findMembersByEmails(
  db: Db,
  emails: string[],
): Promise<{ id: MemberId; email: string }[]> {
  return many(
    db,
    'SELECT id, email FROM members WHERE lower(email) = ANY($1::text[]) AND deleted_at IS NULL',
    [emails],
  );
}

/** Puts a member into the groups that another is in. */
export async function copyGroups(db: Db, from: MemberId, to: MemberId): Promise<void> {
  await run(
    db,
    'INSERT INTO group_members (group_id, member_id, added_at) SELECT group_id, $2, added_at FROM group_members WHERE member_id = $1 ON CONFLICT DO NOTHING',
    [from, to],
  );
}
