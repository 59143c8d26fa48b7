import { one, run, type Db } from '@/platform/store/db';

/** Members who hold two tiers that would stand on one track: each of these tiers' subscriptions, and those of the track itself. */
export async function countDoubleHolders(db: Db, tierId: string, track: string): Promise<number> {
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

/** Brings the subscriptions of a tier onto the track where the tier now stands, with the joinings under way. */
export async function moveToTrack(db: Db, tierId: string, track: string): Promise<void> {
  const ofTier = `SELECT s.id FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id JOIN offers o ON o.id = v.offer_id WHERE o.tier_id = $1`;
  await run(db, `UPDATE subscriptions SET track = $2 WHERE track <> $2 AND id IN (${ofTier})`, [
    tierId,
    track,
  ]);
  await run(db, `UPDATE joinings SET track = $2 WHERE track <> $2 AND subscription_id IN (${ofTier})`, [
    tierId,
    track,
  ]);
}
