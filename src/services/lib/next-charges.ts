import type { Instant } from '@/core/calendar';
import { nextCharge } from '@/core/subscriptions/upcoming';
import { pool } from '@/platform/store/db';
import { listOfferVersions, type StoredOffer } from '@/store/offers';
import type { Site } from '@/platform/store/site';
import { listSubscriptionsById } from '@/store/subscriptions';
import { asBought, termsUnder } from './terms';

/** What each of the subscriptions is charged next; those that are charged nothing more are left out. */
export async function nextCharges(
  site: Site,
  ids: string[],
): Promise<Map<string, { at: Instant; amount: number; currency: string }>> {
  const subscriptions = await listSubscriptionsById(pool(), ids);
  const versionIds = subscriptions.flatMap((s) =>
    s.movesTo ? [s.offerVersionId, s.movesTo] : [s.offerVersionId],
  );
  const versions = await listOfferVersions(pool(), [...new Set(versionIds)]);
  const offers = new Map(versions.map((offer) => [offer.versionId, offer]));
  const found = new Map<string, { at: Instant; amount: number; currency: string }>();
  for (const subscription of subscriptions) {
    const bought = (id: string | null): StoredOffer | undefined => {
      const offer = offers.get(id ?? '');
      return offer && asBought(offer, subscription.addedTax);
    };
    const offer = bought(subscription.offerVersionId);
    const movesTo = bought(subscription.movesTo) ?? null;
    const next = offer && nextCharge(subscription, termsUnder(site, offer, movesTo));
    if (next)
      found.set(subscription.id, {
        at: next.at,
        amount: next.period.amount,
        currency: offer.definition.currency,
      });
  }
  return found;
}
