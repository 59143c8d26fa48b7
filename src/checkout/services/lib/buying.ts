import type { Buying } from '@/core/billing/buying';
import type { PurchaseId } from '@/core/ids';
import { gatewaysFor } from '@/billing/services/lib/checkout-gateways';
import { gatewayById } from '@/billing/gateways';
import type { GatewayAccount } from '@/billing/store/gateways';
import type { Db } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import type { Product } from '@/tiers/store/products';
import type { ProductPrice } from '@/tiers/services/lib/product-price';

/** What a book is told of the purchase of a product by card; minor units, tax included. */
export const buyingOf = (product: Product, price: ProductPrice, id?: PurchaseId): Buying => ({
  id,
  kind: product.kind,
  item: product.kind === 'pass' ? product.passId : product.tierId,
  lasts: product.lasts,
  amount: price.amount,
  currency: product.currency,
  method: { nature: 'card' },
});

/** The accounts through which a product can be paid: those that charge a card. */
export async function accountsFor(
  site: Site,
  { currency, amount }: Product,
  db?: Db,
): Promise<GatewayAccount[]> {
  const definition = {
    tier: '',
    currency,
    steps: [{ kind: 'once' as const, amount, lasts: 'forever' as const }],
    after: 'end' as const,
  };
  return (await gatewaysFor(site, { definition }, { db })).filter(
    ({ gateway }) => gatewayById(gateway).nature === 'card',
  );
}
