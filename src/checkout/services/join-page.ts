import type { ComparisonLine } from '@/core/access/what-opens';
import { bestSaving, offersUnder, rhythmsToChoose, type Rhythm } from '@/core/offers/comparison';
import { rateFor } from '@/core/tax';
import type { JoiningState } from '@/core/tiers/joining';
import { pool } from '@/platform/store/db';
import { type StoredOffer } from '@/tiers/store/offers';
import type { Site } from '@/platform/store/site';
import { listTierNames, type Tier } from '@/tiers/store/tiers';
import { currentSite } from '@/platform/site';
import { wordsOf } from '@/words/words';
import { tierOpens, type TierOpens } from '@/access/services/lib/tier-opens';
import { z } from 'zod';
import { publicUse } from '@/platform/use';
import { done } from '@/platform/result';
import { offeredTiers } from './lib/offered-tiers';

export type { StoredOffer, Tier };

export type JoinPageTier = {
  tier: Tier;
  offers: (StoredOffer & { saving: { amount: number; percent: number } | null })[];
  joining: JoiningState;
  opens: TierOpens | undefined;
};

export type JoinPage = {
  siteName: string;
  tiers: JoinPageTier[];
  tierNames: Map<string, string>;
  /** Between which the page can switch. */
  rhythms: Rhythm[];
  rhythm: string | null;
  comparison: (ComparisonLine & { name: string })[];
  /** Whether prices include the tax; '' where nothing is taxed. */
  taxNote: string;
};

/** Everything that the join page shows, with each tier's offers under the chosen rhythm. */
async function readPage(chosen: string | undefined): Promise<JoinPage> {
  const site = await currentSite();
  const offered = await offeredTiers(site);
  const rhythms = rhythmsToChoose(offered.map(({ offers }) => offers.map((offer) => offer.definition)));
  const rhythm =
    [chosen, site.joinRhythm].find((key) => rhythms.some((one) => one.key === key)) ??
    rhythms[0]?.key ??
    null;
  const { opens, comparison } = await tierOpens(
    site,
    offered.map(({ tier }) => tier),
    offered.flatMap(({ offers }) => offers),
  );
  return {
    siteName: site.name,
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

function taxNote(site: Site): string {
  const { tax, homeCountry } = site;
  const taxRate = rateFor(tax, null, homeCountry);
  if (tax.way === 'none' || !taxRate) return '';
  const t = wordsOf(site);
  const of = { tax: taxRate.name };
  return tax.way === 'included' ? t('join.tax-included', of) : t('join.tax-added', of);
}

export const joinPage = publicUse('join-page', z.string().max(40), async (_, rhythm) =>
  done(await readPage(rhythm)),
);

/** Some tiers, whether or not they are on the join page, as a panel in a text offers them. */
export const tiersOnOffer = publicUse(
  'tiers-on-offer',
  z.array(z.string().max(200)).max(50),
  async (_, ids) => done(await offeredTiers(await currentSite(), ids)),
);
