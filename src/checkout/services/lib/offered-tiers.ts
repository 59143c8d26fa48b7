import type { JoiningState } from '@/core/tiers/joining';
import { type StoredOffer } from '@/tiers/store/offers';
import type { Site } from '@/platform/store/site';
import { type Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { keepBriefly } from '@/platform/request';
import { joiningStateOf } from './joining-state';
import { keptOffers, keptTiers } from '@/tiers/services/lib/kept';

/** A tier on offer, with its offers on sale and whether people can join today. */
export type OfferedTier = { tier: Tier; offers: StoredOffer[]; joining: JoiningState };

/** The tiers of the join page, lowest rung first; or, with `only`, those tiers whether or not they are on it. */
export async function offeredTiers(site: Site, only: string[] = []): Promise<OfferedTier[]> {
  const [tiers, offers] = [await keptTiers(), await keptOffers()];
  const now = siteNow(site);
  const onSale = (tier: Tier): StoredOffer[] =>
    offers.filter((offer) => offer.tierId === tier.id && offer.onSale);
  const offered = tiers
    .filter((tier) => tier.retiredAt === null && onSale(tier).length > 0)
    .filter((tier) => (only.length > 0 ? only.includes(tier.id) : tier.onJoinPage))
    .sort((a, b) => Number(a.ladderId === null) - Number(b.ladderId === null) || byRung(a, b));
  // How many places are left, the version of the site does not tell.
  if (offered.some(({ places }) => places !== null)) keepBriefly();
  return Promise.all(
    offered.map(async (tier) => ({
      tier,
      offers: onSale(tier),
      joining: await joiningStateOf(site, tier, now),
    })),
  );
}

/** On a ladder the lowest rung first; beside it, the owner's order. */
const byRung = (a: Tier, b: Tier): number =>
  a.ladderId !== null && a.ladderId === b.ladderId
    ? (a.rung ?? 0) - (b.rung ?? 0)
    : a.ladderId === b.ladderId
      ? a.position - b.position
      : 0;
