import type { ComparisonLine } from '@/core/access/what-opens';
import { bestSaving, offersUnder, rhythmsToChoose, type Rhythm } from '@/core/offers/comparison';
import { rateFor } from '@/core/tax';
import type { JoiningState } from '@/core/tiers/joining';
import { pool } from '@/store/db';
import { listOffers, type StoredOffer } from '@/store/offers';
import type { Site } from '@/store/site';
import { listTierNames, listTiers, type Tier } from '@/store/tiers';
import { siteNow } from './clock';
import { joiningStateOf } from './prepare-joining';
import { currentSite } from './site';
import { tierOpens, type TierOpens } from './tier-opens';

export type JoinPageTier = {
  tier: Tier;
  offers: (StoredOffer & { saving: { amount: number; percent: number } | null })[];
  joining: JoiningState;
  opens: TierOpens | undefined;
};

export type JoinPage = {
  siteName: string;
  zone: string;
  tiers: JoinPageTier[];
  tierNames: Map<string, string>;
  /** Between which the page can switch; the first is shown where none is chosen. */
  rhythms: Rhythm[];
  rhythm: string | null;
  comparison: (ComparisonLine & { name: string })[];
  /** How the prices stand to the tax; '' where nothing is taxed. */
  taxNote: string;
};

/** A tier that somebody may see offered, with its offers on sale and whether anybody can join today. */
export type OfferedTier = { tier: Tier; offers: StoredOffer[]; joining: JoiningState };

/** The tiers of the join page, lowest rung first; or, with `only`, those tiers whether or not they stand on it. */
export async function offeredTiers(site: Site, only: string[] = []): Promise<OfferedTier[]> {
  const [tiers, offers] = [await listTiers(pool()), await listOffers(pool())];
  const now = siteNow(site);
  const onSale = (tier: Tier): StoredOffer[] =>
    offers.filter((offer) => offer.tierId === tier.id && offer.onSale);
  return Promise.all(
    tiers
      .filter((tier) => tier.retiredAt === null && onSale(tier).length > 0)
      .filter((tier) => (only.length > 0 ? only.includes(tier.id) : tier.onJoinPage))
      .sort((a, b) => Number(a.ladderId === null) - Number(b.ladderId === null) || byRung(a, b))
      .map(async (tier) => ({ tier, offers: onSale(tier), joining: await joiningStateOf(site, tier, now) })),
  );
}

/** Everything that the join page shows, with each tier's offers under the chosen rhythm. */
export async function joinPage(chosen: string | undefined): Promise<JoinPage> {
  const site = await currentSite();
  const offered = await offeredTiers(site);
  const rhythms = rhythmsToChoose(offered.map(({ offers }) => offers.map((offer) => offer.definition)));
  const rhythm = (rhythms.find((candidate) => candidate.key === chosen) ?? rhythms[0])?.key ?? null;
  const { opens, comparison } = await tierOpens(
    site,
    offered.map(({ tier }) => tier),
    offered.flatMap(({ offers }) => offers),
  );
  return {
    siteName: site.name,
    zone: site.zone,
    tierNames: await listTierNames(pool()),
    rhythms,
    rhythm,
    comparison,
    taxNote: taxNote(site),
    tiers: offered.map(({ tier, offers, joining }) => ({
      tier,
      joining,
      opens: opens.get(tier.id),
      offers: offersUnder(offers, rhythm).map((offer) => ({
        ...offer,
        saving: bestSaving(
          offer.definition,
          offers.map((other) => other.definition),
        ),
      })),
    })),
  };
}

function taxNote({ tax, homeCountry }: Site): string {
  const rate = rateFor(tax, null, homeCountry);
  if (tax.way === 'none' || !rate) return '';
  return tax.way === 'included'
    ? `Prices include ${rate.name}.`
    : `${rate.name} comes on top of these prices, by the country you live in.`;
}

/** On a ladder the lowest rung first; beside it, the owner's order. */
const byRung = (a: Tier, b: Tier): number =>
  a.ladderId !== null && a.ladderId === b.ladderId
    ? (a.rung ?? 0) - (b.rung ?? 0)
    : a.ladderId === b.ladderId
      ? a.position - b.position
      : 0;
