import type { Instant } from '@/core/instants';
import type { Offer } from '@/core/offers/offer';
import { offerSchema } from '@/core/offers/offer-schema';
import { holderPricesSchema, type HolderPrice } from '@/core/tiers/holder-prices';
import { many, maybeOne, one, run, type Db, prepared } from '@/platform/store/db';
import type { OfferId, OfferVersionId, TierId } from '@/core/ids';

/** An offer in one of its versions: the newest, where nothing else is said. */
export type StoredOffer = {
  id: OfferId;
  tierId: TierId;
  name: string;
  onSale: boolean;
  retiredAt: Instant | null;
  versionId: OfferVersionId;
  version: number;
  isPaid: boolean;
  definition: Offer;
  /** What holders of some tiers pay less when they join by it; not of a version. */
  holderPrices: HolderPrice[];
  tierName: string;
  /** Of its tier; null for the first kind. */
  taxKindId: string | null;
};

const DEFINITION = { definition: offerSchema, holderPrices: holderPricesSchema };

const OFFER = `
  SELECT o.id, o.tier_id, o.name, o.on_sale AND o.retired_at IS NULL AS on_sale, o.retired_at,
    v.id AS version_id, v.version, v.is_paid, v.definition, o.holder_prices, t.name AS tier_name, t.tax_kind_id
  FROM offers o JOIN offer_versions v ON v.offer_id = o.id JOIN tiers t ON t.id = o.tier_id`;

export async function listOffers(db: Db): Promise<StoredOffer[]> {
  return many(
    db,
    `${OFFER} WHERE v.version = (SELECT max(version) FROM offer_versions WHERE offer_id = o.id) ORDER BY o.position, o.created_at, o.id`,
    [],
    DEFINITION,
  );
}

export async function findOffer(db: Db, id: string): Promise<StoredOffer | undefined> {
  return maybeOne(db, `${OFFER} WHERE o.id = $1 ORDER BY v.version DESC LIMIT 1`, [id], DEFINITION);
}

const FIND_OFFER_VERSION = prepared('find-offer-version', `${OFFER} WHERE v.id = $1`);

/** An offer as it was when it was bought. */
export async function findOfferVersion(db: Db, versionId: OfferVersionId): Promise<StoredOffer | undefined> {
  return maybeOne(db, FIND_OFFER_VERSION, [versionId], DEFINITION);
}

export async function listOfferVersions(db: Db, versionIds: OfferVersionId[]): Promise<StoredOffer[]> {
  return many(db, `${OFFER} WHERE v.id = ANY ($1)`, [versionIds], DEFINITION);
}

/** Adds an offer, or changes one; what is undefined stays as it was, or has its usual value. */
export async function saveOffer(
  db: Db,
  offer: { id: string; tierId: TierId; name: string; onSale?: boolean; holderPrices?: HolderPrice[] },
): Promise<void> {
  await run(
    db,
    `INSERT INTO offers (id, tier_id, name, on_sale, holder_prices, position)
     VALUES ($1, $2, $3, coalesce($4, true), coalesce($5, '[]'::jsonb), (SELECT coalesce(max(position), 0) + 1 FROM offers))
     ON CONFLICT (id) DO UPDATE SET name = $3, on_sale = coalesce($4, offers.on_sale), holder_prices = coalesce($5, offers.holder_prices)`,
    [
      offer.id,
      offer.tierId,
      offer.name,
      offer.onSale ?? null,
      offer.holderPrices && JSON.stringify(offer.holderPrices),
    ],
  );
}

/** Retires an offer at an instant, or, with null, brings it back. */
export async function setOfferRetired(db: Db, id: string, at: Instant | null): Promise<void> {
  await run(db, 'UPDATE offers SET retired_at = $2 WHERE id = $1', [id, at]);
}

/** @throws a foreign key violation if anyone ever bought it */
export async function deleteOffer(db: Db, id: string): Promise<void> {
  await run(db, 'DELETE FROM offer_versions WHERE offer_id = $1', [id]);
  await run(db, 'DELETE FROM offers WHERE id = $1', [id]);
}

/** Adds the next version of an offer's money and returns its number. */
export async function addOfferVersion(
  db: Db,
  offerId: OfferId,
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

/** Offers that can be joined by a link of their own, with what the link says: the tier, and the offer where it has several. */
export async function listJoinLinks(db: Db): Promise<{ id: string; name: string }[]> {
  return many(
    db,
    `SELECT o.id, t.name || CASE WHEN count(*) OVER (PARTITION BY t.id) > 1 THEN ': ' || o.name ELSE '' END AS name
     FROM offers o JOIN tiers t ON t.id = o.tier_id
     WHERE o.on_sale AND o.retired_at IS NULL AND t.retired_at IS NULL AND t.joining <> 'closed' ORDER BY t.position, o.position, o.id`,
  );
}
