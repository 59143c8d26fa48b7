import { pool } from '@/platform/store/db';
import { reportCodes } from '@/billing/store/code-uses';
import { listBatchesAdmitting, type CodeBatch } from '@/tiers/store/codes';
import { listOffers, type StoredOffer } from '@/tiers/store/offers';
import { listLadders, listTierNames, listTiers, type Ladder, type Tier } from '@/tiers/store/tiers';
import { currentSite } from '@/platform/site';
import { tierOpens, type TierOpens } from '@/access/services/lib/tier-opens';
import { readTierOverview, type TierOverview } from './tier-overview';
import { wasTierEverHeld } from '@/billing/store/tier-holders';
import type { TierId } from '@/core/ids';

export type TierDetail = {
  /** Null for one that is about to be made. */
  tier: Tier | null;
  others: Tier[];
  ladders: Ladder[];
  offers: StoredOffer[];
  opens: TierOpens | undefined;
  codes: (CodeBatch & { uses: number })[];
  overview: TierOverview | undefined;
  tierNames: Map<string, string>;
  isDeletable: boolean;
};

/** Everything that the Desk shows of a tier; null where there is none of this id. */
export async function readTierDetail(id: string | null): Promise<TierDetail | null> {
  const [tiers, ladders, allOffers] = [
    await listTiers(pool()),
    await listLadders(pool()),
    await listOffers(pool()),
  ];
  const tier = tiers.find((candidate) => candidate.id === id) ?? null;
  if (id !== null && !tier) return null;
  const overview = tier ? await readTierOverview() : null;
  const all = overview ? [...overview.ladders.flatMap((ladder) => ladder.tiers), ...overview.alone] : [];
  return {
    tier,
    ladders,
    others: tiers.filter((other) => other.id !== id),
    offers: allOffers.filter((offer) => offer.tierId === id),
    opens: tier ? (await tierOpens(await currentSite(), [tier], allOffers)).opens.get(tier.id) : undefined,
    codes: tier ? await listCodes(tier.id) : [],
    overview: all.find((each) => each.id === id),
    tierNames: await listTierNames(pool()),
    isDeletable: tier ? !(await wasTierEverHeld(pool(), tier.id)) : false,
  };
}

/** The codes that admit to a tier, with how often each was used. */
async function listCodes(tierId: TierId): Promise<(CodeBatch & { uses: number })[]> {
  const { mode } = await currentSite();
  const [codes, reports] = [await listBatchesAdmitting(pool(), tierId), await reportCodes(pool(), mode)];
  return codes.map((code) => ({ ...code, uses: reports.get(code.id)?.uses ?? 0 }));
}
