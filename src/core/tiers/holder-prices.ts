import { z } from 'zod';
import type { Discount } from '../billing/book';
import { discounted } from '../billing/discount';
import type { Offer } from '../offers/offer';
import { inputAmount, parseAmount } from '../money';
import { say, type Problem } from '../problem';

export const MOST_HOLDER_PRICES = 20;

/** What the holders of a tier pay less for something, without a code. Of what is bought once, the number of charges says nothing. */
export const holderPriceSchema = z
  .object({
    tierId: z.string().min(1).max(200),
    /** In minor units of the currency in which the thing is sold. */
    amount: z.number().int().min(1).optional(),
    share: z.number().int().min(1).max(100).optional(),
    charges: z.number().int().min(1).max(1_200).nullable(),
  })
  .refine(({ amount, share }) => (amount === undefined) !== (share === undefined));
export type HolderPrice = z.output<typeof holderPriceSchema>;

export const holderPricesSchema = z
  .array(holderPriceSchema)
  .max(MOST_HOLDER_PRICES)
  .refine(
    (prices) => new Set(prices.map(({ tierId }) => tierId)).size === prices.length,
    say('holder.twice'),
  );

/** The price of something for who holds some tiers, and by which of them; minor units. */
export type PriceForHolder = { tierId: string; discount: Discount };

/**
 * The best of the prices for holders of these tiers: what leaves least of an amount, and of equal ones the one that lasts
 * longest. Null where none is for them, or none makes it cheaper.
 * @param amount what is paid without it, in minor units
 */
export function bestForHolder(
  prices: readonly HolderPrice[],
  tiers: readonly string[],
  amount: number,
): PriceForHolder | null {
  const own = prices
    .filter(({ tierId }) => tiers.includes(tierId))
    .map(({ tierId, ...discount }) => ({ tierId, discount, left: discounted(discount, amount) }))
    .filter(({ left }) => left < amount)
    .sort((a, b) => a.left - b.left || lasting(b.discount) - lasting(a.discount));
  const [best] = own;
  return best ? { tierId: best.tierId, discount: best.discount } : null;
}

/**
 * Which is used where there is both a code and a price for holders: what leaves less of an amount, of equal ones the one that
 * lasts longer, else the code.
 * @param amount what is paid first without either, in minor units
 */
export function codeOrHolder(
  byCode: Discount | null,
  forHolder: PriceForHolder | null,
  amount: number,
): { by: 'code' | 'holder'; discount: Discount } | null {
  if (!byCode || !forHolder) {
    if (byCode) return { by: 'code', discount: byCode };
    return forHolder && { by: 'holder', discount: forHolder.discount };
  }
  const { discount } = forHolder;
  const [left, usual] = [discounted(discount, amount), discounted(byCode, amount)];
  const isHolder = left < usual || (left === usual && lasting(discount) > lasting(byCode));
  return isHolder ? { by: 'holder', discount } : { by: 'code', discount: byCode };
}

const lasting = ({ charges }: Discount): number => charges ?? Number.POSITIVE_INFINITY;

/** What an offer asks for first, which is what its prices for holders are compared by; minor units. */
export const firstPrice = ({ steps }: Pick<Offer, 'steps'>): number =>
  steps.find(({ amount }) => amount > 0)?.amount ?? 0;

/** A price for holders as it is typed. `typed`: per cent, or an amount; `charges`: how many payments, '' for all. */
export type HolderRow = { tierId: string; way: 'share' | 'amount'; typed: string; charges: string };

export const holderRows = (prices: readonly HolderPrice[], currency: string, locale: string): HolderRow[] =>
  prices.map(({ tierId, amount, share, charges }) => ({
    tierId,
    way: amount === undefined ? 'share' : 'amount',
    typed: amount === undefined ? String(share ?? '') : inputAmount(amount, currency, locale),
    charges: charges === null ? '' : String(charges),
  }));

/** The prices that rows mean, or what is wrong with one of them. `locale`: how the site writes amounts. */
export function readHolderRows(
  rows: readonly HolderRow[],
  currency: string,
  locale: string,
): { ok: true; prices: HolderPrice[] } | { ok: false; index: number; problem: Problem } {
  const prices: HolderPrice[] = [];
  for (const [index, { tierId, way, typed, charges: count }] of rows.entries()) {
    const not = (problem: Problem) => ({ ok: false as const, index, problem });
    const charges = count.trim() === '' ? null : Number(count);
    if (charges !== null && !(Number.isInteger(charges) && charges >= 1 && charges <= 1_200))
      return not({ code: 'code.least-one' });
    if (prices.some((one) => one.tierId === tierId)) return not({ code: 'holder.twice' });
    if (way === 'amount') {
      const read = parseAmount(typed, currency, locale);
      if (!read.ok) return not(read.problem);
      if (read.amount === 0) return not({ code: 'amount.missing' });
      prices.push({ tierId, amount: read.amount, charges });
    } else {
      const share = /^\d{1,3}$/.test(typed.trim()) ? Number(typed) : 0;
      if (share < 1 || share > 100) return not({ code: 'holder.share' });
      prices.push({ tierId, share, charges });
    }
  }
  return { ok: true, prices };
}
