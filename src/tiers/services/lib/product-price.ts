import { rateFor, withTax, type TaxRate } from '@/core/tax';
import type { Site } from '@/platform/store/site';
import type { Product } from '@/tiers/store/products';

/** What a product costs in a country today, with the tax that is added on top; minor units. */
export type ProductPrice = { amount: number; country: string; tax: TaxRate | null; addedTax: number };

/** @param country where the payer is; '' for the site's own */
export function priceProduct(site: Site, product: Product, country: string): ProductPrice {
  const at = country || site.homeCountry;
  const tax = rateFor(site.tax, product.taxKindId, at);
  const addedTax = site.tax.way === 'added' && tax ? tax.rate : 0;
  return { amount: withTax(product.amount, addedTax), country: at, tax, addedTax };
}
