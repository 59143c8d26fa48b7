import { pool } from '@/platform/store/db';
import { listOffers } from '@/tiers/store/offers';
import { listProducts } from '@/tiers/store/products';
import { listTiers } from '@/tiers/store/tiers';

/** The tiers, offers and products to which a panel or a button in a text can lead. */
export async function listJoinables(): Promise<{
  tiers: { id: string; name: string }[];
  offers: { id: string; name: string }[];
  products: { id: string; name: string }[];
}> {
  const tiers = (await listTiers(pool())).filter((tier) => !tier.retiredAt);
  const offers = (await listOffers(pool())).filter((offer) => offer.onSale);
  return {
    products: (await listProducts(pool()))
      .filter(({ onSale }) => onSale)
      .map(({ id, name }) => ({ id, name })),
    tiers: tiers
      .filter((tier) => offers.some((offer) => offer.tierId === tier.id))
      .map(({ id, name }) => ({ id, name })),
    offers: tiers.flatMap((tier) =>
      offers
        .filter((offer) => offer.tierId === tier.id)
        .map((offer) => ({ id: offer.id, name: `${tier.name}, ${offer.name.toLowerCase()}` })),
    ),
  };
}
