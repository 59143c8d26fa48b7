import { pool } from '@/store/db';
import {
  countHolders,
  listLadders,
  listOffers,
  listTiers,
  type Ladder,
  type StoredOffer,
  type Tier,
} from '@/store/tiers';
import { siteNow } from './clock';
import { currentSite } from './site';

export type TierOverview = Tier & { offers: StoredOffer[]; holders: number };

/** Ladders with their rungs, highest first, and the tiers on no ladder; each with its offers and holders now. */
export async function listTierOverview(): Promise<{
  ladders: { ladder: Ladder; tiers: TierOverview[] }[];
  alone: TierOverview[];
}> {
  const site = await currentSite();
  const [tiers, offers, ladders, holders] = await Promise.all([
    listTiers(pool()),
    listOffers(pool()),
    listLadders(pool()),
    countHolders(pool(), site.mode, siteNow(site)),
  ]);
  const all = tiers.map((tier) => ({
    ...tier,
    offers: offers.filter((offer) => offer.tierId === tier.id),
    holders: holders.get(tier.id) ?? 0,
  }));
  return {
    ladders: ladders.map((ladder) => ({ ladder, tiers: all.filter((tier) => tier.ladderId === ladder.id) })),
    alone: all.filter((tier) => tier.ladderId === null),
  };
}
