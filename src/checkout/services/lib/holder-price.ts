import { bestForHolder, firstPrice, type PriceForHolder } from '@/core/tiers/holder-prices';
import { findHolder } from '@/billing/store/holdings';
import { siteNow } from '@/platform/clock';
import type { Db } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import type { StoredOffer } from '@/tiers/store/offers';

/** The ids of the tiers that a member holds now; none for a visitor. */
export async function heldTiers(db: Db, site: Site, memberId: string | null): Promise<string[]> {
  const holder = memberId ? await findHolder(db, memberId, site.mode, siteNow(site)) : undefined;
  return holder?.tiers.map(({ tier }) => tier) ?? [];
}

/** What a member pays less for joining by an offer, because of a tier they hold. `offer`: as it is bought, with its tax. */
export const offerForHolder = (
  { holderPrices, definition }: Pick<StoredOffer, 'holderPrices' | 'definition'>,
  held: string[],
): PriceForHolder | null => bestForHolder(holderPrices, held, firstPrice(definition));
