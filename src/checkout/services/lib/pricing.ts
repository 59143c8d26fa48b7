import { rateFor, type TaxRate } from '@/core/tax';
import { asBought } from '@/billing/services/lib/schedules';
import type { Site } from '@/platform/store/site';
import type { StoredOffer } from '@/tiers/store/offers';

/** What an offer costs in a country today, and what tax that holds. */
export type Pricing = { offer: StoredOffer; country: string; tax: TaxRate | null; addedTax: number };

/** @param country where the payer is; '' for the site's own */
export function priceOffer(site: Site, offer: StoredOffer, country: string): Pricing {
  const at = country || site.homeCountry;
  const tax = offer.isPaid ? rateFor(site.tax, offer.taxKindId, at) : null;
  const addedTax = site.tax.way === 'added' && tax ? tax.rate : 0;
  return { offer: asBought(offer, addedTax), country: at, tax, addedTax };
}
