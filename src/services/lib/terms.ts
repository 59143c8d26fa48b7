import type { Terms } from '@/core/subscriptions/subscription';
import { rateFor, withTaxAdded, type TaxRate } from '@/core/tax';
import type { Db } from '@/platform/store/db';
import { findOfferVersion, type StoredOffer } from '@/store/offers';
import type { Site } from '@/platform/store/site';
import type { StoredSubscription } from '@/store/subscriptions';

export type Bought = {
  terms: Terms;
  /** With the tax on top of its amounts, where that was added to the price. */
  offer: StoredOffer;
  /** The offer to which it goes over at its next period, where it does. */
  movesTo: StoredOffer | null;
};

/** The terms of a subscription: the offer as it was bought, what it moves to, and the site's settings. */
export async function termsOf(
  db: Db,
  site: Site,
  {
    offerVersionId,
    movesTo: movesToId,
    addedTax,
  }: Pick<StoredSubscription, 'offerVersionId' | 'movesTo' | 'addedTax'>,
): Promise<Bought> {
  const found = await findOfferVersion(db, offerVersionId);
  if (!found) throw new Error(`no offer version ${offerVersionId}`);
  const moves = (movesToId && (await findOfferVersion(db, movesToId))) || null;
  const [offer, movesTo] = [asBought(found, addedTax), moves && asBought(moves, addedTax)];
  return { offer, movesTo, terms: termsUnder(site, offer, movesTo) };
}

/** The terms under offers as they were bought. */
export function termsUnder(
  { zone, retryDays, graceDays }: Site,
  offer: StoredOffer,
  movesTo: StoredOffer | null,
): Terms {
  return { offer: offer.definition, zone, retryDays, graceDays, movesTo: movesTo?.definition };
}

/** An offer with the tax on top that is added to every amount of it. */
export function asBought(offer: StoredOffer, addedTax: number): StoredOffer {
  return addedTax === 0 ? offer : { ...offer, definition: withTaxAdded(offer.definition, addedTax) };
}

/** What an offer costs in a country today, and what tax that holds. */
export type Pricing = { offer: StoredOffer; country: string; tax: TaxRate | null; addedTax: number };

/** @param country where the payer is; '' for the site's own */
export function priceOffer(site: Site, offer: StoredOffer, country: string): Pricing {
  const at = country || site.homeCountry;
  const tax = offer.isPaid ? rateFor(site.tax, offer.taxKindId, at) : null;
  const addedTax = site.tax.way === 'added' && tax ? tax.rate : 0;
  return { offer: asBought(offer, addedTax), country: at, tax, addedTax };
}
