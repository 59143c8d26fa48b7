import { localDate } from '@/core/calendar';
import { monthlyValue } from '@/core/offers/comparison';
import { joiningState, joiningTerms, type JoiningState } from '@/core/tiers/joining';
import { pool } from '@/platform/store/db';
import { listOffers, listOfferVersions, type StoredOffer } from '@/tiers/store/offers';
import { listRunningSteps } from '@/billing/store/subscriptions';
import { listLadders, listTiers, type Ladder, type Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { countHolders } from '@/billing/store/tier-holders';

export type TierOverview = Tier & {
  offers: StoredOffer[];
  holders: number;
  state: JoiningState;
  /** What its running subscriptions come to in a month, by currency; minor units. */
  income: { currency: string; amount: number }[];
};

/** Ladders with their rungs, highest first, and the tiers on no ladder; each with its offers, holders and income now. */
export async function readTierOverview(): Promise<{
  ladders: { ladder: Ladder; tiers: TierOverview[] }[];
  alone: TierOverview[];
}> {
  const site = await currentSite();
  const now = siteNow(site);
  const [tiers, offers, ladders, holders, income] = await Promise.all([
    listTiers(pool()),
    listOffers(pool()),
    listLadders(pool()),
    countHolders(pool(), site.mode, now),
    monthlyIncome(site.mode),
  ]);
  const all = tiers.map((tier) => ({
    ...tier,
    offers: offers.filter((offer) => offer.tierId === tier.id && !offer.retiredAt),
    holders: holders.get(tier.id) ?? 0,
    state: joiningState(joiningTerms(site, tier), holders.get(tier.id) ?? 0, localDate(now, site.zone)),
    income: income.get(tier.id) ?? [],
  }));
  return {
    ladders: ladders.map((ladder) => ({ ladder, tiers: all.filter((tier) => tier.ladderId === ladder.id) })),
    alone: all.filter((tier) => tier.ladderId === null),
  };
}

/** What running subscriptions come to in a month, by the tier that they hold now. */
async function monthlyIncome(mode: 'test' | 'live'): Promise<Map<string, TierOverview['income']>> {
  const running = await listRunningSteps(pool(), mode);
  const versions = await listOfferVersions(pool(), [...new Set(running.map((row) => row.offerVersionId))]);
  const offers = new Map(versions.map((offer) => [offer.versionId, offer.definition]));
  const sums = new Map<string, TierOverview['income']>();
  for (const { offerVersionId, step, count } of running) {
    const offer = offers.get(offerVersionId);
    const value = offer ? monthlyValue(offer, step) * count : 0;
    if (!offer || value === 0) continue;
    const tierId = offer.steps[step]?.tier ?? offer.tier;
    const ofTier = sums.get(tierId) ?? [];
    const line = ofTier.find((sum) => sum.currency === offer.currency);
    if (line) line.amount += value;
    else ofTier.push({ currency: offer.currency, amount: value });
    sums.set(tierId, ofTier);
  }
  return sums;
}
