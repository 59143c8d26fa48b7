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

/** Puts members with an account into a group. @returns the ids of those who were not in it yet */
export async function addToGroup(
  db: Db,
  groupId: string,
  memberIds: MemberId[],
  at: Instant,
): Promise<MemberId[]> {
  const rows = await many<{ memberId: MemberId }>(
    db,
    `INSERT INTO group_members (group_id, member_id, added_at)
     SELECT $1, id, $3 FROM members WHERE id = ANY($2::uuid[]) AND deleted_at IS NULL
     ON CONFLICT DO NOTHING RETURNING member_id`,
    [groupId, memberIds, at],
  );
  return rows.map(({ memberId }) => memberId);
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
