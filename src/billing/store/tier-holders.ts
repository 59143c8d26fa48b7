import { heldAt } from './holdings';
import { many, one, type Db } from '@/platform/store/db';
import type { TierId } from '@/core/ids';

/** Whether anyone ever held the tier or began to join with one of its offers, in test or live mode. */
export async function wasTierEverHeld(db: Db, id: string): Promise<boolean> {
  const { held } = await one<{ held: boolean }>(
    db,
    `SELECT EXISTS (SELECT 1 FROM holdings WHERE tier_id = $1)
       OR EXISTS (SELECT 1 FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id JOIN offers o ON o.id = v.offer_id WHERE o.tier_id = $1)
       OR EXISTS (SELECT 1 FROM checkouts j JOIN offers o ON o.id = j.offer_id WHERE o.tier_id = $1) AS held`,
    [id],
  );
  return held;
}

/** Members who hold each tier at an instant, by tier id. */
export async function countHolders(db: Db, mode: string, at: string): Promise<Map<string, number>> {
  const rows = await many<{ tierId: TierId; count: bigint }>(
    db,
    `SELECT tier_id, count(DISTINCT member_id) FROM holdings h WHERE ${heldAt('h', '$1', '$2')} GROUP BY tier_id`,
    [mode, at],
  );
  return new Map(rows.map((row) => [row.tierId, Number(row.count)]));
}

/**
 * Places of a tier that are taken at an instant: holdings, and checkouts whose person is paying at this moment, or
 * whose transfer is awaited, other than `exceptCheckout`.
 */
export async function countPlacesTaken(
  db: Db,
  tierId: TierId,
  mode: string,
  at: string,
  exceptCheckout: string | null,
): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT (SELECT count(*) FROM holdings h WHERE tier_id = $1 AND ${heldAt('h', '$2', '$3')})
       + (SELECT count(*) FROM checkouts j JOIN offers o ON o.id = j.offer_id
          WHERE o.tier_id = $1 AND j.mode = $2 AND j.state IN ('charging', 'awaiting') AND j.id IS DISTINCT FROM $4::uuid) AS count`,
    [tierId, mode, at, exceptCheckout],
  );
  return Number(count);
}

export async function wasOfferEverBought(db: Db, id: string): Promise<boolean> {
  const { bought } = await one<{ bought: boolean }>(
    db,
    `SELECT EXISTS (SELECT 1 FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id WHERE v.offer_id = $1)
       OR EXISTS (SELECT 1 FROM checkouts WHERE offer_id = $1) AS bought`,
    [id],
  );
  return bought;
}
