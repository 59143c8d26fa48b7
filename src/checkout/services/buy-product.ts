import { z } from 'zod';
import { figuresOfBuying } from '@/core/billing/figures';
import { askedOf, type Refusal as BookRefusal } from '@/core/billing/work';
import { answerOf } from '@/billing/services/lib/answer-words';
import { keepCard, type Payer } from '@/billing/services/lib/change-account';
import { collect } from '@/billing/services/lib/collect';
import { doAsks } from '@/billing/services/lib/in-book';
import { contextOf, happen, openBook } from '@/billing/services/lib/open-book';
import type { OpenBook } from '@/billing/services/lib/opened';
import { setCountry } from '@/billing/services/lib/set-country';
import type { GatewayAccount } from '@/billing/store/gateways';
import type { PurchaseAccount } from '@/billing/store/purchase-rows';
import { findPurchase, setPurchasePayer } from '@/billing/store/purchases';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { findMember, type Member } from '@/people/store/members';
import type { SignedIn } from '@/platform/actor';
import { isCountry } from '@/platform/countries';
import { slug, uuid } from '@/platform/inputs';
import { done, missing, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction, transactionUnlessRefused } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { memberUse } from '@/platform/use';
import { findProduct, type Product } from '@/tiers/store/products';
import { refusal, say } from '@/words/problems';
import { accountsFor, buyingOf } from './lib/buying';
import { heldTiers } from './lib/holder-price';
import { priceProduct, type ProductPrice } from '@/tiers/services/lib/product-price';

const PER_MEMBER: Limit = { name: 'buy:member', points: 20, seconds: 15 * 60 };

const inputSchema = z.object({
  /** Made when the form was shown: however often the form is sent, it is one purchase. */
  purchaseId: uuid,
  productId: slug,
  /** Of the product whose price the person saw. */
  version: z.coerce.number().int(),
  accountId: z.string().max(60).default(''),
  cardToken: z.string().max(200).default(''),
  country: z
    .string()
    .refine((code) => code === '' || isCountry(code), say('country.missing'))
    .default(''),
  /** What the page said is due now, in minor units. */
  due: z.coerce.number().int(),
});
type Input = z.output<typeof inputSchema>;
type Plan = { product: Product; price: ProductPrice; account: GatewayAccount | undefined; country: string };

/** A member buys a pass or a gift card by card. Sent twice, it answers twice and charges once. */
export const buyProduct = memberUse(
  'buy-product',
  inputSchema,
  async (actor, input): Promise<Result<{ purchaseId: string }>> => {
    const wait = await spendPoint(PER_MEMBER, actor.memberId);
    if (wait > 0) return refusedField('', 'checkout.too-many', { minutes: waitMinutes(wait) });
    if (actor.look) return refusedField('', 'pass.looking');
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    const settled = await settleLast(actor, input);
    if (settled) return settled;
    const plan = await planFor(member, input);
    if (!plan.ok) return plan;
    const { account } = plan.value;
    // Credit may pay all of it: then no card is asked for.
    const payer =
      account && input.due > 0
        ? await keepCard(account, {
            token: input.cardToken,
            email: member.email,
            idempotencyKey: `${input.purchaseId}:method:${input.cardToken}`,
          })
        : done(null);
    if (!payer.ok) return payer;
    const site = await currentSite();
    const of = { memberId: member.id, mode: site.mode };
    const written = await transactionUnlessRefused(async (db) => {
      const open = await openBook(db, site, actor, of, { purchases: [input.purchaseId] });
      if (plan.value.country && !member.country) await setCountry(db, member.id, plan.value.country);
      return write(open, plan.value, payer.value, input);
    });
    if (!written.ok) return refusedWith(refusal(written.why));
    const outcome = await doAsks(actor, site, written.open.stored, written.asks);
    return (outcome && answerOf(outcome)) ?? done({ purchaseId: input.purchaseId });
  },
);

/** What an earlier press asked for and nobody knows the end of is asked about first. Null: there is none, or it was declined. */
async function settleLast(
  actor: SignedIn,
  { purchaseId }: Input,
): Promise<Result<{ purchaseId: string }> | null> {
  const known = await findPurchase(pool(), purchaseId);
  if (!known) return null;
  if (known.memberId !== actor.memberId) return missing();
  if (known.state !== 'pending') return done({ purchaseId });
  const site = await currentSite();
  const { stored } = await transaction((db) => openBook(db, site, actor, known, { purchases: [purchaseId] }));
  const asked = stored.book.charges.find((one) => one.purchase === purchaseId && askedOf(one));
  const attempt = asked && askedOf(asked);
  if (!attempt) return null;
  const outcome = await collect(actor, site, stored, attempt.id, false);
  if (outcome.state === 'succeeded') return done({ purchaseId });
  return outcome.state === 'unknown' ? answerOf(outcome) : null;
}

async function planFor(member: Member, input: Input): Promise<Result<Plan>> {
  const product = await findProduct(pool(), input.productId);
  if (!product?.onSale) return refusedField('', 'product.not-on-sale');
  if (product.version !== input.version) return refusedWith(refusal('another-price'));
  const site = await currentSite();
  const country = input.country || member.country;
  const accounts = await accountsFor(site, product);
  const account = accounts.find(({ id }) => id === input.accountId) ?? accounts[0];
  if (!account) return refusedField('', 'product.not-on-sale');
  const held = await heldTiers(pool(), site, member.id);
  return done({ product, price: priceProduct(site, product, country, held), account, country });
}

type Written =
  { ok: true; open: OpenBook; asks: Parameters<typeof doAsks>[3] } | { ok: false; why: BookRefusal };

/** Writes in the open book what is bought, and what is about to be asked for: no more than the page said. */
async function write(
  open: OpenBook,
  { product, price, country }: Plan,
  payer: Payer | null,
  { purchaseId, due }: Input,
): Promise<Written> {
  const { stored, site, at, db } = open;
  const known = stored.book.purchases.find(({ id }) => id === purchaseId);
  const charge = stored.book.charges.find((one) => one.purchase === purchaseId);
  const buying = buyingOf(product, price, purchaseId);
  const expected = known
    ? (charge?.due ?? 0)
    : figuresOfBuying(stored.book, { ...buying, id: undefined }, contextOf(site, stored), at).due;
  if (expected !== due) return { ok: false, why: 'another-price' };
  if (known && payer) {
    await setPurchasePayer(db, purchaseId, payer);
    const before = stored.accounts.get(purchaseId);
    if (before) stored.accounts.set(purchaseId, { ...before, ...payer });
  }
  const account: PurchaseAccount = {
    gatewayAccountId: null,
    customerRef: null,
    methodRef: null,
    methodLabel: null,
    methodExpires: null,
    ...payer,
    productId: product.id,
    mostDevices: product.mostDevices,
    taxCountry: country,
    addedTax: price.addedTax,
    remindAt: null,
  };
  const happened = await happen(open, { do: 'buy', ...buying }, () => account);
  return happened.ok ? { ok: true, open, asks: happened.asks } : { ok: false, why: happened.why };
}
