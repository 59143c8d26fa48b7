import type { Instant } from '@/core/instants';
import type { Offer } from '@/core/offers/offer';
import { deskWordsOf } from '@/words/desk';
import { offerSentence } from '@/words/offers';
import { nextCharge } from '@/core/billing/upcoming';
import { offerKey } from '@/billing/store/book-from-rows';
import { pool } from '@/platform/store/db';
import { findOffer, findOfferVersion } from '@/tiers/store/offers';
import { listSubscriptionsById } from '@/billing/store/subscriptions';
import { listTierNames } from '@/tiers/store/tiers';
import { currentSite } from '@/platform/site';
import { asBought } from '@/billing/services/lib/schedules';
import { countByVersion, listMovable, type VersionCount } from '@/billing/store/offer-versions';
import type { OfferId } from '@/core/ids';

/** What would change for those on one version, were they moved to the newest. */
export type MovePreview = {
  version: number;
  count: number;
  before: string;
  after: string;
  /** The first and the last day on which it would begin for one of them. */
  first: Instant;
  last: Instant;
  /** What those who pay next would pay then, and pay now. */
  amounts: { before: string; after: string; count: number }[];
};

/** How many run on which version of an offer, and what moving them to the newest would change. */
export async function readVersions(
  offerId: OfferId,
): Promise<{ versions: VersionCount[]; previews: MovePreview[] }> {
  const site = await currentSite();
  const versions = await countByVersion(pool(), offerId, site.mode);
  const newest = await findOffer(pool(), offerId);
  if (!newest || versions.every((version) => version.versionId === newest.versionId || version.movable === 0))
    return { versions, previews: [] };
  const names = await listTierNames(pool());
  const movable = await listSubscriptionsById(
    pool(),
    await listMovable(pool(), offerId, site.mode, newest.versionId),
  );
  const t = deskWordsOf(site);
  const previews: MovePreview[] = [];
  for (const { versionId, version, definition } of versions) {
    const own = movable.filter((subscription) => subscription.offerVersionId === versionId);
    const old = await findOfferVersion(pool(), versionId);
    const days = own.flatMap((subscription) => subscription.paidThrough ?? []).sort();
    const [first, last] = [days[0], days.at(-1)];
    if (!old || first === undefined || last === undefined) continue;
    const amounts = new Map<string, MovePreview['amounts'][number]>();
    for (const subscription of own) {
      const next = (movesTo: typeof old | null): string => {
        const { addedTax } = subscription;
        const offers = [old, ...(movesTo ? [movesTo] : [])].map((one): [string, Offer] => [
          offerKey(one.versionId, addedTax),
          asBought(one, addedTax).definition,
        ]);
        const to = movesTo && offerKey(movesTo.versionId, addedTax);
        const context = { zone: site.zone, offers: Object.fromEntries(offers) };
        const charge = nextCharge({ ...subscription, movesTo: to }, context);
        return charge ? t.money(charge.amount, definition.currency, true) : 'nothing';
      };
      const [before, after] = [next(null), next(newest)];
      // Who pays nothing more, before or after, is told nothing by a figure.
      if (before === 'nothing' && after === 'nothing') continue;
      const line = amounts.get(`${before}>${after}`) ?? { before, after, count: 0 };
      line.count += 1;
      amounts.set(`${before}>${after}`, line);
    }
    previews.push({
      version,
      count: own.length,
      before: offerSentence(definition, t, { skipTrial: true, skipFee: true, tierNames: names }),
      after: offerSentence(newest.definition, t, { skipTrial: true, skipFee: true, tierNames: names }),
      first,
      last,
      amounts: [...amounts.values()],
    });
  }
  return { versions, previews };
}
