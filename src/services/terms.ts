import type { Terms } from '@/core/subscriptions/subscription';
import type { Db } from '@/store/db';
import type { Site } from '@/store/site';
import { findOfferVersion, type StoredOffer } from '@/store/tiers';

/** The terms of a subscription: the offer as it was bought, and the site's settings. */
export async function termsOf(
  db: Db,
  site: Site,
  offerVersionId: string,
): Promise<{ terms: Terms; offer: StoredOffer }> {
  const offer = await findOfferVersion(db, offerVersionId);
  if (!offer) throw new Error(`no offer version ${offerVersionId}`);
  return {
    offer,
    terms: { offer: offer.definition, zone: site.zone, retryDays: site.retryDays, graceDays: site.graceDays },
  };
}
