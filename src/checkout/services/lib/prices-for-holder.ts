import { discounted } from '@/core/billing/discount';
import type { TierId } from '@/core/ids';
import { firstPrice } from '@/core/tiers/holder-prices';
import type { MemberAccount } from '@/billing/services/lib/member-account';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { keptOffers, keptProducts, keptTiers } from '@/tiers/services/lib/kept';
import { priceProduct } from '@/tiers/services/lib/product-price';
import { offerForHolder } from './holder-price';
import { joiningStateOf } from './joining-state';
import { priceOffer } from './pricing';

/** Something that costs a member less because of a tier they hold. Amounts in minor units, for where they are. */
export type ForHolder = {
  href: string;
  name: string;
  /** The tier that they hold. */
  by: string;
  usual: number;
  amount: number;
  currency: string;
};

/** What is on sale for less to someone who holds what they hold now: offers of tiers they do not hold, and passes and gift cards. */
export async function pricesForHolder(
  { holdings }: Pick<MemberAccount, 'holdings'>,
  country: string,
): Promise<ForHolder[]> {
  const held = [...new Set(holdings.filter(({ isNow }) => isNow).map(({ tierId }) => tierId))];
  if (held.length === 0) return [];
  const site = await currentSite();
  const tiers = new Map((await keptTiers()).map((tier) => [tier.id, tier]));
  const nameOf = (id: TierId): string => tiers.get(id)?.name ?? '';
  const found: ForHolder[] = [];
  for (const listed of await keptOffers()) {
    const tier = tiers.get(listed.tierId);
    const { offer } = priceOffer(site, listed, country);
    const best = offerForHolder(offer, held);
    if (!best || !tier || !listed.onSale || held.includes(listed.tierId)) continue;
    if ((await joiningStateOf(site, tier, siteNow(site))).state !== 'open') continue;
    const usual = firstPrice(offer.definition);
    found.push({
      href: `/join/${offer.id}?to=/account`,
      name: `${tier.name}: ${offer.name}`,
      by: nameOf(best.tierId),
      usual,
      amount: discounted(best.discount, usual),
      currency: offer.definition.currency,
    });
  }
  for (const product of await keptProducts()) {
    const { amount, forHolder } = priceProduct(site, product, country, held);
    if (forHolder && product.onSale)
      found.push({
        href: `/buy/${product.id}`,
        name: product.name,
        by: nameOf(forHolder.tierId),
        usual: forHolder.usual,
        amount,
        currency: product.currency,
      });
  }
  return found;
}
