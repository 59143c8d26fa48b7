import type { CommentState } from '@/core/content/comments';
import type { Instant } from '@/core/instants';
import type { ItemId, MemberId } from '@/core/ids';
import { where } from '@/platform/store/conditions';
import { many, maybeOne, one, prepared, run, type Db } from '@/platform/store/db';

/** `threadId`: the comment that began the conversation; null for one that began one. */
export type Comment = {
  id: string;
  itemId: ItemId;
  memberId: MemberId | null;
  threadId: string | null;
  words: string;
  state: CommentState;
  at: Instant;
};
/** With the name of its writer: '' where they gave none, or have deleted their account. */
export type NamedComment = Comment & { name: string; isStaff: boolean };

const COLUMNS = 'c.id, c.item_id, c.member_id, c.thread_id, c.state, c.at';
const WRITER = `coalesce(m.name, '') AS name, m.staff_role IS NOT NULL AS is_staff`;
const FROM = 'comments c LEFT JOIN members m ON m.id = c.member_id AND m.deleted_at IS NULL';
/** What is shown to everyone who reads an item's comments, and what its writer, $2, still waits for. */
const VISIBLE = `(c.state = 'shown' OR (c.state = 'waiting' AND c.member_id = $2))`;

// What an item's page reads is prepared: planned anew for each reader, it takes longer than it is read in.
const LIST_THREADS = prepared(
  'list-comment-threads',
  `SELECT ${COLUMNS}, CASE WHEN ${VISIBLE} THEN c.words ELSE '' END AS words, ${WRITER}, count(*) OVER () AS total
   FROM ${FROM} WHERE c.item_id = $1 AND c.thread_id IS NULL AND (${VISIBLE}
     OR EXISTS (SELECT 1 FROM comments r WHERE r.thread_id = c.id AND r.state = 'shown'))
   ORDER BY c.at DESC, c.id LIMIT $3 OFFSET $4`,
);
const LIST_REPLIES = prepared(
  'list-comment-replies',
  `SELECT ${COLUMNS}, c.words, ${WRITER} FROM ${FROM} WHERE c.thread_id = ANY ($1) AND ${VISIBLE}
   ORDER BY c.at, c.created_at, c.id LIMIT 1000`,
);
const COUNT_SHOWN = prepared(
  'count-shown-comments',
  `SELECT count(*) AS n FROM comments WHERE item_id = $1 AND state = 'shown'`,
);

/**
 * Conversations of an item, last begun first, with how many there are. The words of one that is not shown to the reader
 * are left out; it is there where it has replies.
 */
export async function listThreads(
  db: Db,
  {
    itemId,
    readerId,
    limit,
    offset,
  }: { itemId: string; readerId: string | null; limit: number; offset: number },
): Promise<{ rows: NamedComment[]; total: number }> {
  const rows = await many<NamedComment & { total: bigint }>(db, LIST_THREADS, [
    itemId,
    readerId,
    limit,
    offset,
  ]);
  return { rows, total: Number(rows[0]?.total ?? 0) };
}

/** The replies in conversations, first written first, up to a thousand: those that are shown to a reader. */
export async function listReplies(
  db: Db,
  threadIds: string[],
  readerId: string | null,
): Promise<NamedComment[]> {
  return many(db, LIST_REPLIES, [threadIds, readerId]);
}

/** How many comments of an item are shown. */
export async function countShown(db: Db, itemId: string): Promise<number> {
  const row = await one<{ n: bigint }>(db, COUNT_SHOWN, [itemId]);
  return Number(row.n);
}

const HAS_COMMENTED = prepared(
  'has-commented',
  'SELECT EXISTS (SELECT 1 FROM comments WHERE member_id = $1 AND item_id = $2) AS has',
);

/** Whether a member has written a comment on an item, shown or not. */
export const hasCommented = async (db: Db, memberId: string, itemId: string): Promise<boolean> =>
  (await one<{ has: boolean }>(db, HAS_COMMENTED, [memberId, itemId])).has;

export async function findComment(db: Db, id: string): Promise<Comment | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS}, c.words FROM comments c WHERE c.id = $1`, [id]);
}

/** Adds a comment. `key`, a UUID: of its writer’s, one is kept for each. @returns its id; undefined where it was there before */
export async function addComment(
  db: Db,
  comment: Omit<Comment, 'id'> & { key: string },
): Promise<string | undefined> {
  const { itemId, memberId, threadId, words, state, key, at } = comment;
  const row = await maybeOne<{ id: string }>(
    db,
    `INSERT INTO comments (item_id, member_id, thread_id, words, state, form_key, at) VALUES ($1, $2, $3, $4, $5, $6, $7)
     ON CONFLICT (member_id, form_key) DO NOTHING RETURNING id`,
    [itemId, memberId, threadId, words, state, key, at],
  );
  return row?.id;
}

/** Brings comments into a state, but for those that their writers deleted. @returns those that were in another */
export async function setCommentState(db: Db, ids: string[], state: CommentState): Promise<Comment[]> {
  return many(
    db,
    `UPDATE comments c SET state = $2 WHERE id = ANY ($1::uuid[]) AND state <> $2 AND member_id IS NOT NULL RETURNING ${COLUMNS}, c.words`,
    [ids, state],
  );
}

/** Everyone who has a comment that is shown in a conversation. */
export async function writersIn(db: Db, threadId: string): Promise<MemberId[]> {
  const rows = await many<{ memberId: MemberId }>(
    db,
    `SELECT DISTINCT member_id FROM comments
     WHERE (id = $1 OR thread_id = $1) AND state = 'shown' AND member_id IS NOT NULL LIMIT 200`,
    [threadId],
  );
  return rows.map(({ memberId }) => memberId);
}

export type CommentFilter = { state: CommentState; itemId?: string; limit: number; offset: number };
export type ListedComment = NamedComment & { title: string; path: string };

/** Comments in a state, last written first, with their items, and how many there are in all. */
export async function listComments(
  db: Db,
  { state, itemId, without, limit, offset }: CommentFilter & { without: string[] },
): Promise<{ rows: ListedComment[]; total: number }> {
  const narrowed = where([
    ['c.state = ?', state],
    ['c.item_id <> ALL(?)', without],
    itemId && ['c.item_id = ?', itemId],
  ]);
  const rows = await many<ListedComment & { total: bigint }>(
    db,
    `SELECT ${COLUMNS}, c.words, ${WRITER}, i.title, i.path, count(*) OVER () AS total
     FROM ${FROM} JOIN items i ON i.id = c.item_id ${narrowed.sql}
     ORDER BY c.at DESC, c.id OFFSET ${narrowed.add(offset)} LIMIT ${narrowed.add(limit)}`,
    narrowed.values,
  );
  return { rows, total: Number(rows[0]?.total ?? 0) };
}

/** How many comments there are in each state; `without`: those on items of these ids. */
export async function countByCommentState(db: Db, without: string[]): Promise<Map<CommentState, number>> {
  const rows = await many<{ state: CommentState; n: bigint }>(
    db,
    'SELECT state, count(*) AS n FROM comments WHERE item_id <> ALL($1) GROUP BY state',
    [without],
  );
  return new Map(rows.map(({ state, n }) => [state, Number(n)]));
}

/** What a member has written, last first. */
export async function listCommentsBy(db: Db, memberId: string): Promise<(Comment & { title: string })[]> {
  return many(
    db,
    `SELECT ${COLUMNS}, c.words, i.title FROM comments c JOIN items i ON i.id = c.item_id
     WHERE c.member_id = $1 ORDER BY c.at DESC, c.id`,
    [memberId],
  );
}

/** Deletes one comment, or all that a member has written. Where others replied, only that something was there stays. */
export async function deleteComments(db: Db, which: { id: string } | { memberId: string }): Promise<void> {
  const of = 'id' in which ? 'c.id = $1::uuid' : 'c.member_id = $1::uuid';
  const value = ['id' in which ? which.id : which.memberId];
  await run(
    db,
    `DELETE FROM comments c WHERE ${of}
       AND NOT EXISTS (SELECT 1 FROM comments r WHERE r.thread_id = c.id AND r.member_id IS DISTINCT FROM c.member_id)`,
    value,
  );
  await run(db, `UPDATE comments c SET member_id = NULL, words = '–', state = 'removed' WHERE ${of}`, value);
}

export async function moveComments(db: Db, from: MemberId, to: MemberId): Promise<void> {
  await run(db, 'UPDATE comments SET member_id = $2 WHERE member_id = $1', [from, to]);
}
