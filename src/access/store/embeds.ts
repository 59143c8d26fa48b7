import type { ItemId, MemberId } from '@/core/ids';
import { maybeOne, run, type Db } from '@/platform/store/db';

/** Allows a frame to show an item as the member of a session may read it, if it asks within seconds of real time. */
export async function insertGrant(
  db: Db,
  { hash, itemId, session }: { hash: Buffer; itemId: string; session: Buffer },
  seconds: number,
): Promise<void> {
  await run(
    db,
    `INSERT INTO embed_grants (hash, item_id, session, expires_at) VALUES ($1, $2, $3, now() + make_interval(secs => $4))
     ON CONFLICT (hash) DO NOTHING`,
    [hash, itemId, session, seconds],
  );
}

/** Uses up what was allowed to a frame. Undefined: nothing was, or not for this item. */
export async function takeGrant(
  db: Db,
  hash: Buffer,
  itemId: string,
): Promise<{ session: Buffer } | undefined> {
  return maybeOne(
    db,
    'DELETE FROM embed_grants WHERE hash = $1 AND item_id = $2 AND expires_at > now() RETURNING session',
    [hash, itemId],
  );
}

export async function insertEmbedSession(
  db: Db,
  { hash, itemId, session }: { hash: Buffer; itemId: string; session: Buffer },
  hours: number,
): Promise<void> {
  await run(
    db,
    'INSERT INTO embed_sessions (hash, item_id, session, expires_at) VALUES ($1, $2, $3, now() + make_interval(hours => $4))',
    [hash, itemId, session, hours],
  );
}

/** Whose a frame is, and which one item it shows. */
export async function findEmbedSession(
  db: Db,
  hashes: Buffer[],
  itemId: string,
): Promise<{ memberId: MemberId; itemId: ItemId } | undefined> {
  return maybeOne(
    db,
    `SELECT s.member_id, e.item_id FROM embed_sessions e JOIN sessions s ON s.token_hash = e.session
     WHERE e.hash = ANY ($1) AND e.item_id = $2 AND e.expires_at > now() AND s.expires_at > now() LIMIT 1`,
    [hashes, itemId],
  );
}

export async function deleteOldEmbeds(db: Db): Promise<number> {
  const grants = await run(db, 'DELETE FROM embed_grants WHERE expires_at <= now()');
  return grants + (await run(db, 'DELETE FROM embed_sessions WHERE expires_at <= now()'));
}
