import type { Instant } from '@/core/instants';
import type { ItemId, MemberId } from '@/core/ids';
import { many, maybeOne, run, type Db } from '@/platform/store/db';

/** How far someone has read: of the whole item, 0 to 1000. */
export type ReadingPlace = { itemId: ItemId; place: number; at: Instant };

export async function saveReadingPlace(
  db: Db,
  memberId: MemberId,
  { itemId, place, at }: ReadingPlace,
): Promise<void> {
  await run(
    db,
    `INSERT INTO reading_places (member_id, item_id, place, at) VALUES ($1, $2, $3, $4)
     ON CONFLICT (member_id, item_id) DO UPDATE SET place = $3, at = $4`,
    [memberId, itemId, place, at],
  );
}

/** How far someone has read an item; 0 where they have not begun. */
export async function findReadingPlace(db: Db, memberId: MemberId, itemId: string): Promise<number> {
  const found = await maybeOne<{ place: number }>(
    db,
    'SELECT place FROM reading_places WHERE member_id = $1 AND item_id = $2',
    [memberId, itemId],
  );
  return found?.place ?? 0;
}

/** What someone has begun and not read to its end, last read first. */
export async function listUnfinished(db: Db, memberId: MemberId, limit: number): Promise<ReadingPlace[]> {
  return many(
    db,
    `SELECT r.item_id, r.place, r.at FROM reading_places r JOIN items i ON i.id = r.item_id
     WHERE r.member_id = $1 AND r.place BETWEEN 50 AND 920 AND i.trashed_at IS NULL ORDER BY r.at DESC LIMIT $2`,
    [memberId, limit],
  );
}

/** Makes one member's places another's; where both have one, that of the one who is kept stays. */
export async function moveReadingPlaces(db: Db, from: MemberId, to: MemberId): Promise<void> {
  await run(
    db,
    'UPDATE reading_places SET member_id = $2 WHERE member_id = $1 AND item_id NOT IN (SELECT item_id FROM reading_places WHERE member_id = $2)',
    [from, to],
  );
  await run(db, 'DELETE FROM reading_places WHERE member_id = $1', [from]);
}
