import type { Offer } from '@/core/offers/offer';
import type { KeyCut } from '@/core/key-cut';
import { many, maybeOne, one, run, type Db } from './db';

export type Tier = {
  id: string;
  name: string;
  description: string;
  keyCut: KeyCut;
  ladderId: string | null;
  rung: number | null;
  onJoinPage: boolean;
  position: number;
};

/** An offer in its newest version. */
export type StoredOffer = {
  id: string;
  tierId: string;
  name: string;
  onSale: boolean;
  versionId: string;
  version: number;
  isPaid: boolean;
  definition: Offer;
};

export type Ladder = { id: string; name: string };

export async function listTiers(db: Db): Promise<Tier[]> {
  return many(db, 'SELECT * FROM tiers ORDER BY ladder_id NULLS LAST, rung DESC, position, created_at');
}

export async function findTier(db: Db, id: string): Promise<Tier | undefined> {
  return maybeOne(db, 'SELECT * FROM tiers WHERE id = $1', [id]);
}

/** @throws a conflict where the id or the key-cut is taken */
export async function saveTier(db: Db, tier: Tier): Promise<void> {
  await run(
    db,
    `INSERT INTO tiers (id, name, description, key_cut, ladder_id, rung, on_join_page, position) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
     ON CONFLICT (id) DO UPDATE SET name = $2, description = $3, key_cut = $4, ladder_id = $5, rung = $6, on_join_page = $7, position = $8`,
    [
      tier.id,
      tier.name,
      tier.description,
      tier.keyCut,
      tier.ladderId,
      tier.rung,
      tier.onJoinPage,
      tier.position,
    ],
  );
}

export async function listLadders(db: Db): Promise<Ladder[]> {
  return many(db, 'SELECT id, name FROM ladders ORDER BY created_at');
}

export async function insertLadder(db: Db, ladder: Ladder): Promise<void> {
  await run(db, 'INSERT INTO ladders (id, name) VALUES ($1, $2)', [ladder.id, ladder.name]);
}

const OFFER = `
  SELECT o.id, o.tier_id, o.name, o.on_sale, v.id AS version_id, v.version, v.is_paid, v.definition
  FROM offers o JOIN offer_versions v ON v.offer_id = o.id`;

export async function listOffers(db: Db): Promise<StoredOffer[]> {
  return many(
    db,
    `${OFFER} WHERE v.version = (SELECT max(version) FROM offer_versions WHERE offer_id = o.id) ORDER BY o.position, o.created_at, o.id`,
  );
}

export async function findOffer(db: Db, id: string): Promise<StoredOffer | undefined> {
  return maybeOne(db, `${OFFER} WHERE o.id = $1 ORDER BY v.version DESC LIMIT 1`, [id]);
}

/** An offer as it was when it was bought. */
export async function findOfferVersion(db: Db, versionId: string): Promise<StoredOffer | undefined> {
  return maybeOne(db, `${OFFER} WHERE v.id = $1`, [versionId]);
}

export async function listOfferVersions(db: Db, versionIds: string[]): Promise<StoredOffer[]> {
  return many(db, `${OFFER} WHERE v.id = ANY ($1)`, [versionIds]);
}

/** @throws a conflict where the id is taken */
export async function saveOffer(
  db: Db,
  offer: { id: string; tierId: string; name: string; onSale: boolean },
): Promise<void> {
  await run(
    db,
    `INSERT INTO offers (id, tier_id, name, on_sale) VALUES ($1, $2, $3, $4)
     ON CONFLICT (id) DO UPDATE SET name = $3, on_sale = $4`,
    [offer.id, offer.tierId, offer.name, offer.onSale],
  );
}

/** Adds the next version of an offer's money and returns its number. */
export async function addOfferVersion(
  db: Db,
  offerId: string,
  definition: Offer,
  isPaid: boolean,
): Promise<number> {
  const { version } = await one<{ version: number }>(
    db,
    `INSERT INTO offer_versions (offer_id, version, currency, definition, is_paid)
     SELECT $1, coalesce(max(version), 0) + 1, $2, $3, $4 FROM offer_versions WHERE offer_id = $1 RETURNING version`,
    [offerId, definition.currency, definition, isPaid],
  );
  return version;
}

/** Members who hold each tier at an instant, by tier id. */
export async function countHolders(db: Db, mode: string, at: string): Promise<Map<string, number>> {
  const rows = await many<{ tierId: string; count: bigint }>(
    db,
    `SELECT tier_id, count(DISTINCT member_id) FROM holdings
     WHERE mode = $1 AND from_at <= $2 AND (until_at IS NULL OR until_at > $2) GROUP BY tier_id`,
    [mode, at],
  );
  return new Map(rows.map((row) => [row.tierId, Number(row.count)]));
}
