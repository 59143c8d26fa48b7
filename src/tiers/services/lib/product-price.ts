import { discounted } from '@/core/billing/discount';
import { bestForHolder, type PriceForHolder } from '@/core/tiers/holder-prices';
import { rateFor, withTax, type TaxRate } from '@/core/tax';
import type { Site } from '@/platform/store/site';
import type { Product } from '@/tiers/store/products';

/** What a product costs in a country today, with the tax that is added on top; minor units. */
export type ProductPrice = {
  amount: number;
  country: string;
  tax: TaxRate | null;
  addedTax: number;
  /** The usual price, and the tier by which it costs less; null where nothing is taken off. */
  forHolder: (PriceForHolder & { usual: number }) | null;
};

/**
 * @param country where the payer is; '' for the site's own
 * @param held the tiers they hold, of which one may make it cheaper
 */
export function priceProduct(
  site: Site,
  product: Product,
  country: string,
  held: readonly string[] = [],
): ProductPrice {
  const at = country || site.homeCountry;
  const tax = rateFor(site.tax, product.taxKindId, at);
  const addedTax = site.tax.way === 'added' && tax ? tax.rate : 0;
  const usual = withTax(product.amount, addedTax);
  const forHolder = bestForHolder(product.holderPrices, held, usual);
  return {
    amount: discounted(forHolder?.discount ?? null, usual),
    country: at,
    tax,
    addedTax,
    forHolder: forHolder && { ...forHolder, usual },
  };
}
