import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import { maybeOne, run, type Db } from '@/platform/store/db';

/** Gives a member a private address; the one before no longer works. */
export async function setPrivateFeed(
  db: Db,
  memberId: MemberId,
  tokenHash: Buffer,
  at: Instant,
): Promise<void> {
  await run(
    db,
    `INSERT INTO private_feeds (member_id, token_hash, made_at) VALUES ($1, $2, $3)
     ON CONFLICT (member_id) DO UPDATE SET token_hash = $2, made_at = $3`,
    [memberId, tokenHash, at],
  );
}

/** @returns whether there was one */
export async function deletePrivateFeed(db: Db, memberId: MemberId): Promise<boolean> {
  return (await run(db, 'DELETE FROM private_feeds WHERE member_id = $1', [memberId])) === 1;
}

/** Since when a member has a private address. */
export async function privateFeedOf(db: Db, memberId: MemberId): Promise<{ madeAt: Instant } | undefined> {
  return maybeOne(db, 'SELECT made_at FROM private_feeds WHERE member_id = $1', [memberId]);
}

/** Whose private address it is; nobody's, where the account is blocked. */
export async function memberOfFeed(db: Db, tokenHash: Buffer): Promise<MemberId | undefined> {
  const row = await maybeOne<{ memberId: MemberId }>(
    db,
    'SELECT f.member_id FROM private_feeds f JOIN members m ON m.id = f.member_id WHERE f.token_hash = $1 AND m.blocked_at IS NULL',
    [tokenHash],
  );
  return row?.memberId;
}
