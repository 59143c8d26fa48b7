import type { Instant } from '@/core/instants';
import type { ItemId, MemberId } from '@/core/ids';
import { many, one, run, type Db } from '@/platform/store/db';

/** Notes that a member opened an item; again within an hour, nothing is written. `at`: of the site's clock. */
export async function noteItemRead(db: Db, memberId: MemberId, itemId: ItemId, at: Instant): Promise<void> {
  await run(
    db,
    `INSERT INTO item_reads (member_id, item_id, first_at, last_at) VALUES ($1, $2, $3, $3)
     ON CONFLICT (member_id, item_id) DO UPDATE SET last_at = $3 WHERE item_reads.last_at < $3::timestamptz - interval '1 hour'`,
    [memberId, itemId, at],
  );
}

export type ItemRead = { itemId: ItemId; title: string; firstAt: Instant; lastAt: Instant };

/** The items that a member opened, the one opened last first. `without`: the ids of items that are left out. */
export async function listItemReads(
  db: Db,
  memberId: MemberId,
  without: string[],
  limit: number,
): Promise<ItemRead[]> {
  return many(
    db,
    `SELECT r.item_id, i.title, r.first_at, r.last_at FROM item_reads r JOIN items i ON i.id = r.item_id
     WHERE r.member_id = $1 AND NOT r.item_id = ANY ($2) ORDER BY r.last_at DESC, r.item_id LIMIT $3`,
    [memberId, without, limit],
  );
}

/** How many members opened an item. */
export async function countItemReaders(db: Db, itemId: ItemId): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    'SELECT count(*) AS count FROM item_reads WHERE item_id = $1',
    [itemId],
  );
  return Number(count);
}

/** Forgets who opened what: all of it, or what one member did. */
export async function deleteItemReads(db: Db, memberId: MemberId | null): Promise<void> {
  await run(db, 'DELETE FROM item_reads WHERE $1::uuid IS NULL OR member_id = $1', [memberId]);
}

/** Makes one member's reads another's: of an item that both opened, from the first time to the last. */
export async function moveItemReads(db: Db, from: MemberId, to: MemberId): Promise<void> {
  await run(
    db,
    `INSERT INTO item_reads (member_id, item_id, first_at, last_at) SELECT $2, item_id, first_at, last_at FROM item_reads WHERE member_id = $1
     ON CONFLICT (member_id, item_id) DO UPDATE SET first_at = least(item_reads.first_at, excluded.first_at), last_at = greatest(item_reads.last_at, excluded.last_at)`,
    [from, to],
  );
  await deleteItemReads(db, from);
}
