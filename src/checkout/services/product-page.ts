import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { figuresOfBuying } from '@/core/billing/figures';
import { taxIn } from '@/core/tax';
import { toCheckoutGateway, type CheckoutGateway } from '@/billing/services/lib/checkout-gateways';
import { contextOf, readBook } from '@/billing/services/lib/open-book';
import { listPassesOf } from '@/billing/store/held-passes';
import { findMember } from '@/people/store/members';
import { isBefore, type Instant, type Length } from '@/core/instants';
import { siteNow } from '@/platform/clock';
import { isCountry, listCountries } from '@/platform/countries';
import { formStamp } from '@/platform/guard-form';
import { slug } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { publicUse } from '@/platform/use';
import type { Site } from '@/platform/store/site';
import { findProduct, type Product } from '@/tiers/store/products';
import { findTier } from '@/tiers/store/tiers';
import { accountsFor, buyingOf } from './lib/buying';
import { heldTiers } from './lib/holder-price';
import { priceProduct } from '@/tiers/services/lib/product-price';

const inputSchema = z.object({
  productId: slug,
  country: z.string().refine(isCountry).optional().catch(undefined),
});

/** What the page says on which something is bought once. Amounts in minor units. */
export const productPage = publicUse('product-page', inputSchema, async (actor, { productId, country }) => {
  const product = await findProduct(pool(), productId);
  if (!product) return missing();
  const site = await currentSite();
  const member = actor.memberId ? await findMember(pool(), actor.memberId) : undefined;
  const held = await heldTiers(pool(), site, member?.id ?? null);
  const price = priceProduct(site, product, country ?? member?.country ?? '', held);
  const heldBy = price.forHolder && (await findTier(pool(), price.forHolder.tierId));
  const accounts = await accountsFor(site, product);
  const book = member && (await readBook(pool(), site, { memberId: member.id, mode: site.mode }));
  const figures = book
    ? figuresOfBuying(book.stored.book, buyingOf(product, price), contextOf(site, book.stored), siteNow(site))
    : { amount: price.amount, credit: 0, due: price.amount };
  const ways = accounts.map(toCheckoutGateway).filter(({ frame }) => frame !== null);
  return done({
    product,
    tierName: product.tierId ? ((await findTier(pool(), product.tierId))?.name ?? '') : '',
    price,
    /** The tier by which it costs less; '' where none does. */
    heldTierName: heldBy?.name ?? '',
    figures,
    tax: price.tax && { rate: price.tax, amount: taxIn(figures.amount, price.tax.rate) },
    ways: ways as (CheckoutGateway & { frame: NonNullable<CheckoutGateway['frame']> })[],
    isOnSale: product.onSale && ways.length > 0,
    member: member ? { name: member.name, email: member.email } : null,
    holdsUntil: member && product.passId ? await heldUntil(member.id, product.passId) : undefined,
    countries: site.tax.way !== 'none' ? listCountries(site.language) : null,
    stamp: formStamp(),
    purchaseId: randomUUID(),
    siteName: site.name,
  });
});

/** When the pass ends that they hold now; null: never; undefined: they hold none. */
async function heldUntil(memberId: string, passId: string): Promise<Instant | null | undefined> {
  const site = await currentSite();
  const now = siteNow(site);
  const held = (await listPassesOf(pool(), memberId)).filter(
    (one) =>
      one.passId === passId && one.mode === site.mode && (one.until === null || isBefore(now, one.until)),
  );
  if (held.length === 0) return undefined;
  if (held.some(({ until }) => until === null)) return null;
  return held.map(({ until }) => until).sort((a, b) => ((a ?? '') < (b ?? '') ? 1 : -1))[0];
}

/** What a panel says of something that is for sale; the price is that of the site's own country, as its page begins with. */
export type ProductOnSale = {
  id: string;
  name: string;
  lasts: Length | null;
  amount: number;
  currency: string;
};

const onSale = (site: Site, product: Product, held: string[]): ProductOnSale => ({
  id: product.id,
  name: product.name,
  lasts: product.lasts,
  amount: priceProduct(site, product, '', held).amount,
  currency: product.currency,
});

/** A product for a panel in a text; null where it is not for sale. */
export const productOnSale = publicUse('product-on-sale', z.string().max(200), async (actor, id) => {
  const [product, site] = [await findProduct(pool(), id), await currentSite()];
  if (!product?.onSale) return done(null);
  return done(onSale(site, product, await heldTiers(pool(), site, actor.memberId)));
});
