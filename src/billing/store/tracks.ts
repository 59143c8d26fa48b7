import { many, one, run, type Db } from '@/platform/store/db';
import type { TierId } from '@/core/ids';

/** Members who hold two tiers that would be on one track: each of these tiers' subscriptions, and those of the track itself. */
export async function countDoubleHolders(db: Db, tierId: TierId, track: string): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(DISTINCT s.member_id) FROM subscriptions s
     JOIN offer_versions v ON v.id = s.offer_version_id JOIN offers o ON o.id = v.offer_id
     JOIN subscriptions other ON other.member_id = s.member_id AND other.mode = s.mode AND other.id <> s.id
       AND other.track = $2 AND other.slot = '' AND other.state NOT IN ('pending', 'ended')
     WHERE o.tier_id = $1 AND s.track <> $2 AND s.state NOT IN ('pending', 'ended')`,
    [tierId, track],
  );
  return Number(count);
}

/** Moves the subscriptions of a tier to the tier's present track, with checkouts under way and the summaries of the past. */
export async function moveToTrack(db: Db, tierId: TierId, track: string): Promise<void> {
  const ofTier = `SELECT s.id FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id JOIN offers o ON o.id = v.offer_id WHERE o.tier_id = $1`;
  const left = await many<{ track: string }>(
    db,
    `SELECT DISTINCT track FROM subscriptions WHERE track <> $2 AND id IN (${ofTier})`,
    [tierId, track],
  );
  const before = left.map((one) => one.track);
  await run(db, `UPDATE subscriptions SET track = $2 WHERE track <> $2 AND id IN (${ofTier})`, [
    tierId,
    track,
  ]);
  await run(db, `UPDATE checkouts SET track = $2 WHERE track <> $2 AND subscription_id IN (${ofTier})`, [
    tierId,
    track,
  ]);
  await run(
    db,
    `INSERT INTO book_summaries (member_id, mode, track, had_trial, joined_at, has_switched_up)
     SELECT m.member_id, m.mode, $2, m.had_trial, m.joined_at, m.has_switched_up FROM book_summaries m
     WHERE m.track <> $2 AND EXISTS (SELECT 1 FROM subscriptions s WHERE s.id IN (${ofTier}) AND s.member_id = m.member_id AND s.mode = m.mode AND m.track = ANY ($3))
     ON CONFLICT (member_id, mode, track) DO UPDATE SET had_trial = book_summaries.had_trial OR excluded.had_trial,
       joined_at = least(book_summaries.joined_at, excluded.joined_at), has_switched_up = book_summaries.has_switched_up OR excluded.has_switched_up`,
    [tierId, track, before],
  );
}
