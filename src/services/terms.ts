import type { Terms } from '@/core/subscriptions/subscription';
import type { Db } from '@/store/db';
import { findOfferVersion, type StoredOffer } from '@/store/offers';
import type { Site } from '@/store/site';
import type { StoredSubscription } from '@/store/subscriptions';

export type Bought = {
  terms: Terms;
  offer: StoredOffer;
  /** The offer to which it goes over at its next period, where it does. */
  movesTo: StoredOffer | null;
};

/** The terms of a subscription: the offer as it was bought, what it moves to, and the site's settings. */
export async function termsOf(
  db: Db,
  site: Site,
  { offerVersionId, movesTo: movesToId }: Pick<StoredSubscription, 'offerVersionId' | 'movesTo'>,
): Promise<Bought> {
  const offer = await findOfferVersion(db, offerVersionId);
  if (!offer) throw new Error(`no offer version ${offerVersionId}`);
  const movesTo = (movesToId && (await findOfferVersion(db, movesToId))) || null;
  return { offer, movesTo, terms: termsUnder(site, offer, movesTo) };
}

export function termsUnder(
  { zone, retryDays, graceDays }: Site,
  offer: StoredOffer,
  movesTo: StoredOffer | null,
): Terms {
  return { offer: offer.definition, zone, retryDays, graceDays, movesTo: movesTo?.definition };
}
