import { z } from 'zod';
import { localDate } from '@/core/calendar';
import { joiningState, joiningTerms, OPEN } from '@/core/tiers/joining';
import { pool } from '@/platform/store/db';
import { findOffer, type StoredOffer } from '@/tiers/store/offers';
import type { GatewayAccount } from '@/billing/store/gateways';
import type { Site } from '@/platform/store/site';
import { findTier, type Tier } from '@/tiers/store/tiers';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { done, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite, inMode, joiningMode } from '@/platform/site';
import type { Code } from '@/tiers/store/codes';
import { firstPrice } from '@/core/tiers/holder-prices';
import { priceBy, readCode } from './code-in-checkout';
import { heldTiers, offerForHolder } from './holder-price';
import { priceOffer } from './pricing';
import { gatewaysFor } from '@/billing/services/lib/checkout-gateways';
import { personName } from '@/platform/inputs';
import { isCountry } from '@/platform/countries';
import { say } from '@/words/problems';

const shownAmount = z
  .union([z.literal(''), z.coerce.number().int()])
  .optional()
  .transform((due) => (typeof due === 'number' ? due : null));

export const checkoutInputSchema = z.object({
  /** Made when the form was shown: however often the form is sent, it is one checkout. */
  checkoutId: z.uuid(),
  offerId: z.string().min(1).max(200),
  /** The version of the offer whose figures the person saw. */
  versionId: z.string().min(1).max(60),
  /** What a switch was said to cost, where this is one. */
  quoteId: z.string().max(60).default(''),
  /** Asked where it is not known yet. */
  name: personName.default(''),
  answers: z.record(z.string().max(100), z.string().max(2_000)).default({}),
  /** Whether they want letters by email, where they are asked. */
  letters: z.boolean().default(false),
  code: z.string().trim().max(60).default(''),
  cardToken: z.string().max(200).default(''),
  /** Whether to charge the card of the subscription that this takes the place of. */
  keepCard: z.boolean().default(false),
  /** The payment method, where there is a choice; the first by default. */
  accountId: z.string().max(60).default(''),
  returnTo: z.string().max(500).default('/'),
  /** Where the payer is, and the tax on top that the page showed for there. */
  country: z
    .string()
    .refine((code) => code === '' || isCountry(code), say('country.missing'))
    .default(''),
  addedTax: z.coerce.number().int().default(0),
  /** What the page said is due now, in minor units; left out where nobody saw a page. */
  due: shownAmount,
  /** The same, were it paid at a wallet, which can take no credit. */
  dueAtWallet: shownAmount,
  /** 'test': by staff of a live site, with a test card. */
  mode: z.enum(['', 'test']).default(''),
});
export type CheckoutInput = z.infer<typeof checkoutInputSchema>;

/** What is joined, and how it is paid for. */
export type CheckoutPlan = {
  site: Site;
  /** With the tax on top, where it is added. */
  offer: StoredOffer;
  country: string;
  addedTax: number;
  tier: Tier;
  account: GatewayAccount | undefined;
  /** The code that was typed. */
  code: Code | null;
};

/** The tier, offer and payment method of a checkout, or why it cannot go ahead. `actor` is the person who joins. */
export async function planFor(actor: Actor, input: CheckoutInput): Promise<Result<CheckoutPlan>> {
  const own = await currentSite();
  const site = inMode(own, joiningMode(own, actor, input.mode));
  const now = siteNow(site);
  const listed = await findOffer(pool(), input.offerId);
  const tier = listed && (await findTier(pool(), listed.tierId));
  if (!listed?.onSale || !tier || tier.retiredAt) {
    return refusedField('', 'checkout.offer-gone');
  }
  const { offer, country, addedTax } = priceOffer(site, listed, input.country);
  if (offer.versionId !== input.versionId || addedTax !== input.addedTax) {
    return refusedField('', 'checkout.price-changed');
  }
  // How many places are left is counted later, under the lock.
  // Who switches has joined: the site may be closed for others.
  const terms = joiningTerms(input.quoteId ? OPEN : site, tier);
  const { state } = joiningState(terms, 0, localDate(now, site.zone));
  if (state === 'closed') return refusedField('', 'checkout.closed', { tier: tier.name });
  if (state === 'not-yet' || state === 'over')
    return refusedField('', 'checkout.not-on-sale', { tier: tier.name });
  if (state === 'by-code' && !input.code)
    return refusedField('code', 'checkout.code-needed', { tier: tier.name });
  // A switch takes nothing off by a code.
  const asked = { site, offer, memberId: actor.memberId, checkoutId: input.checkoutId };
  const read = input.code && !input.quoteId ? await readCode(pool(), input.code, asked) : null;
  const forHolder = offerForHolder(offer, await heldTiers(pool(), site, actor.memberId));
  const { code, ...priced } = priceBy(read, forHolder, firstPrice(offer.definition));
  if (code && !code.ok) return refusedWith(code.problem, 'code');
  if (state === 'by-code' && !input.quoteId && !code?.admits)
    return refusedField('code', 'code.not-for-this');
  const discount = input.quoteId ? null : priced.discount;
  const ways = offer.isPaid ? await gatewaysFor(site, offer, { hasDiscount: discount !== null }) : [];
  const account = input.accountId ? ways.find(({ id }) => id === input.accountId) : ways[0];
  if (offer.isPaid && !account)
    return refusedField('', ways.length > 0 ? 'checkout.method-gone' : 'checkout.no-payments');
  return done({ site, offer, country, addedTax, tier, account, code: code?.code ?? null });
}
