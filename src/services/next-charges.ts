import type { Instant } from '@/core/calendar';
import { nextCharge } from '@/core/subscriptions/transition';
import { pool } from '@/store/db';
import type { Site } from '@/store/site';
import { listSubscriptionsById } from '@/store/subscriptions';
import { listOfferVersions } from '@/store/tiers';

/** What each of the subscriptions is charged next; those that are charged nothing more are left out. */
export async function nextCharges(
  site: Site,
  ids: string[],
): Promise<Map<string, { at: Instant; amount: number; currency: string }>> {
  const subscriptions = await listSubscriptionsById(pool(), ids);
  const versions = await listOfferVersions(pool(), [...new Set(subscriptions.map((s) => s.offerVersionId))]);
  const offers = new Map(versions.map((offer) => [offer.versionId, offer.definition]));
  const found = new Map<string, { at: Instant; amount: number; currency: string }>();
  for (const subscription of subscriptions) {
    const offer = offers.get(subscription.offerVersionId);
    const next =
      offer &&
      nextCharge(subscription, {
        offer,
        zone: site.zone,
        retryDays: site.retryDays,
        graceDays: site.graceDays,
      });
    if (next)
      found.set(subscription.id, { at: next.at, amount: next.period.amount, currency: offer.currency });
  }
  return found;
}
