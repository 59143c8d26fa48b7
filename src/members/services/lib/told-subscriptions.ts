import type { z } from 'zod';
import type { subscriptionOutput } from '@/core/api/schemas';
import type { StoredSubscription } from '@/billing/store/subscriptions';
import { pool } from '@/platform/store/db';
import { listOfferVersions } from '@/tiers/store/offers';

/** Subscriptions as the API tells of them. */
export async function toldSubscriptions(
  subscriptions: StoredSubscription[],
): Promise<z.input<typeof subscriptionOutput>[]> {
  const versions = await listOfferVersions(pool(), [
    ...new Set(subscriptions.map(({ offerVersionId }) => offerVersionId)),
  ]);
  const offers = new Map(versions.map((offer) => [offer.versionId, offer]));
  return subscriptions.map((s) => {
    const offer = offers.get(s.offerVersionId);
    return {
      id: s.id,
      member: s.memberId,
      tier: offer?.definition.steps[s.place.last?.step ?? 0]?.tier ?? offer?.tierId ?? '',
      offer: offer?.id ?? '',
      state: s.state,
      beganAt: s.beganAt,
      paidThrough: s.paidThrough,
      endedAt: s.endedAt,
    };
  });
}
