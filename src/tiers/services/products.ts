import { z } from 'zod';
import { slugify } from '@/core/content/slug';
import { parseAmount } from '@/core/money';
import { holderPricesSchema } from '@/core/tiers/holder-prices';
import { may } from '@/core/staff';
import { lengthSchema } from '@/core/offers/offer-schema';
import { NotAllowed } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { chosenId, idIfKnown, optionalCount, seenVersion } from '@/platform/form-fields';
import { freeId } from '@/platform/free-id';
import { nothing, slug } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, pool, transactionUnlessRefused } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findPass, listPasses } from '@/tiers/store/passes';
import { findProduct, listProducts, saveProduct as store, type Product } from '@/tiers/store/products';
import { findTier, listTiers } from '@/tiers/store/tiers';
import { problem, say } from '@/words/problems';
import { storePass } from './lib/store-pass';

export type { Product } from '@/tiers/store/products';

/** A new one is made at this address. */
const NOT_PRODUCTS = ['new'];

/** What is bought once, and what could be: the passes and the tiers. */
export const productsPlace = staffUse('look')('products-place', nothing, async () =>
  done({
    products: await listProducts(pool()),
    passes: (await listPasses(pool())).map(({ id, name }) => ({ id, name })),
    tiers: (await listTiers(pool()))
      .filter(({ retiredAt }) => retiredAt === null)
      .map(({ id, name }) => ({ id, name })),
  }),
);

/** A product to change; null for one that is about to be made. */
export const productEditor = staffUse('set tiers')('product-editor', slug, async (_, id) => {
  const product = id === 'new' ? null : await findProduct(pool(), id);
  if (product === undefined) return missing();
  const { currency, tax } = await currentSite();
  return done({ product, currency: product?.currency ?? currency, taxKinds: tax.kinds });
});

const productSchema = z.object({
  /** Of one that is changed. */
  id: slug.nullable(),
  version: seenVersion,
  /** What a new one is to be called by, where that is free. */
  newId: idIfKnown,
  name: z.string().trim().min(1, say('product.no-name')).max(80),
  /** Of a new one: what is sold, "pass:ID" or "tier:ID"; "pass:new" for a pass that is made with it, under its name. */
  sells: z
    .string()
    .regex(/^(pass|tier):[\w-]{1,200}$/, say('product.nothing-sold'))
    .optional(),
  /** As people type it: "5.00". */
  amount: z.string().max(40),
  lasts: lengthSchema.nullable(),
  // Left out: as it was.
  mostDevices: optionalCount(say('code.least-one')).optional(),
  taxKindId: chosenId,
  onSale: z.boolean().optional(),
  holderPrices: z.array(z.unknown(), say('holder.unreadable')).pipe(holderPricesSchema).optional(),
});

const NEW_PASS = 'pass:new';

/** Sells a pass or a gift card of a tier, or changes how that is sold. What was bought stays as it was sold. */
export const saveProduct = staffUse('set tiers')(
  'save-product',
  productSchema,
  async (
    actor,
    { id: asked, newId, version, sells, amount: typed, ...input },
  ): Promise<Result<{ id: string }>> => {
    const site = await currentSite();
    // Making a pass takes the right to set access, as it does in Access.
    if (sells === NEW_PASS && !may(await powersOf(actor), 'set access'))
      throw new NotAllowed(
        problem('staff.may-not', { role: actor.staffRole ?? 'none', right: 'set access' }),
      );
    return transactionUnlessRefused(async (db): Promise<Result<{ id: string }>> => {
      await lock(db, 'products');
      const before = asked ? await findProduct(db, asked) : undefined;
      if (asked && !before) return missing();
      const amount = parseAmount(typed, before?.currency ?? site.currency, site.language);
      if (!amount.ok) return refusedWith(amount.problem, 'amount');
      if (amount.amount === 0) return refusedField('amount', 'amount.missing');
      const made = !before && sells === NEW_PASS ? await storePass(db, actor, { name: input.name }) : null;
      if (made && !made.ok) return made;
      const [kind, item = ''] = before ? [] : made ? ['pass', made.value.id] : (sells ?? '').split(':');
      if (!before && !(kind === 'pass' ? await findPass(db, item) : await findTier(db, item)))
        return refusedField('sells', 'product.nothing-sold');
      if (input.taxKindId && !site.tax.kinds.some((one) => one.id === input.taxKindId))
        return refusedField('taxKindId', 'product.nothing-sold');
      const tiers = new Set((await listTiers(db)).map((tier) => tier.id));
      if (input.holderPrices?.some(({ tierId }) => !tiers.has(tierId)))
        return refusedField('holderPrices', 'holder.no-tier');
      const taken = new Set([...NOT_PRODUCTS, ...(await listProducts(db)).map((one) => one.id)]);
      const id = before?.id ?? freeId(newId ?? slugify(input.name), taken);
      const of =
        before ??
        (kind === 'pass'
          ? { kind: 'pass' as const, passId: item, tierId: null }
          : { kind: 'gift-card' as const, passId: null, tierId: item });
      const after: Product = {
        ...of,
        id,
        name: input.name,
        lasts: input.lasts,
        mostDevices: input.mostDevices === undefined ? (before?.mostDevices ?? null) : input.mostDevices,
        taxKindId: input.taxKindId === undefined ? (before?.taxKindId ?? null) : input.taxKindId,
        onSale: input.onSale ?? before?.onSale ?? true,
        holderPrices: input.holderPrices ?? before?.holderPrices ?? [],
        amount: amount.amount,
        currency: before?.currency ?? site.currency,
        version: version ?? 0,
      };
      if (!(await store(db, after))) return refusedField('', 'record.saved-elsewhere');
      await record(db, actor, siteNow(site), before ? 'product changed' : 'product made', `product:${id}`, {
        before: before ?? null,
        after,
      });
      return done({ id });
    });
  },
);
