import type { Question } from '@/core/access/decide';
import { passesThatWouldOpen, type OpeningPass } from '@/core/access/would-open';
import { currentSite } from '@/platform/site';
import { keptPasses, keptProducts } from '@/tiers/services/lib/kept';
import { priceProduct } from '@/tiers/services/lib/product-price';

/** The passes to be had that would open what is asked about to someone who does not hold them. */
export async function openingPasses(question: Question): Promise<OpeningPass[]> {
  const tiers = question.person.tiers.map(({ tier }) => tier);
  const held = new Set(question.person.passes.map(({ pass }) => pass));
  const sold = (await keptProducts()).filter(({ onSale }) => onSale);
  const site = await currentSite();
  const offered = (await keptPasses())
    .map(({ id, name, hasPassword, byAddress }): OpeningPass => ({
      id,
      name,
      hasPassword,
      byAddress,
      products: sold
        .filter(({ passId }) => passId === id)
        .map((product) => ({
          id: product.id,
          name: product.name,
          lasts: product.lasts,
          amount: priceProduct(site, product, '', tiers).amount,
          currency: product.currency,
        })),
    }))
    .filter(
      ({ id, hasPassword, byAddress, products }) =>
        (hasPassword || byAddress || products.length > 0) && !held.has(id),
    );
  if (offered.length === 0) return [];
  const opening = passesThatWouldOpen(
    question,
    offered.map(({ id }) => id),
  );
  return offered.filter(({ id }) => opening.includes(id));
}
