import { share } from './money';
import type { Problem } from './problem';
import type { Offer } from './offers/offer';

/** A rate in thousandths of a per cent (20 % is 20000), with the name printed on invoices: "VAT". */
export type TaxRate = { name: string; rate: number };
/** `included`: the price holds the tax; `added`: it comes on top. */
export type TaxWay = 'none' | 'included' | 'added';
export type TaxTable = {
  way: TaxWay;
  kinds: { id: string; name: string }[];
  /** `country`: ISO 3166-1 alpha-2, or '' for everywhere else. */
  rates: (TaxRate & { kindId: string; country: string })[];
};

const WHOLE = 100_000;

/** The rate for a kind of thing in a country: the country's own, else that of everywhere else, else none. */
export function rateFor(table: TaxTable, kindId: string | null, country: string): TaxRate | null {
  if (table.way === 'none') return null;
  const kind = kindId ?? table.kinds[0]?.id;
  const ofKind = table.rates.filter((taxRate) => taxRate.kindId === kind);
  const found =
    ofKind.find((taxRate) => country !== '' && taxRate.country === country) ??
    ofKind.find((taxRate) => taxRate.country === '');
  return found ? { name: found.name, rate: found.rate } : null;
}

/** The tax in an amount that includes it: amount × rate ÷ (1 + rate), rounded half up. Minor units. */
export function taxIn(gross: number, taxRate: number): number {
  return share(gross, taxRate, WHOLE + taxRate);
}

/** The tax that a charge includes: on what it is for and on the joining fee, each rounded by itself, as on the invoice. */
export function taxOfCharge(charge: { amount: number; joiningFee: number }, taxRate: number): number {
  return taxIn(charge.amount - charge.joiningFee, taxRate) + taxIn(charge.joiningFee, taxRate);
}

/** An amount with the tax on top, rounded half up. `taxIn` of the answer is what was added, to the last unit. */
export function withTax(net: number, taxRate: number): number {
  return net + share(net, taxRate, WHOLE);
}

/** The offer as its payer sees it, with the tax on top of every amount. */
export function withTaxAdded(offer: Offer, taxRate: number): Offer {
  if (taxRate === 0) return offer;
  return {
    ...offer,
    ...(offer.joiningFee && {
      joiningFee: { ...offer.joiningFee, amount: withTax(offer.joiningFee.amount, taxRate) },
    }),
    steps: offer.steps.map((step) => ({ ...step, amount: withTax(step.amount, taxRate) })),
  };
}

/**
 * The tax in a part of an amount, after other parts have gone already: whatever the parts are, their tax adds up to
 * the tax of the whole.
 */
export function taxOfPart(whole: { total: number; tax: number }, goneBefore: number, part: number): number {
  return share(whole.tax, goneBefore + part, whole.total) - share(whole.tax, goneBefore, whole.total);
}

/** Reads a rate as people type it: "20", "8.875 %". */
export function parseRate(typed: string): { ok: true; rate: number } | { ok: false; problem: Problem } {
  const match = /^(\d{1,3})(?:[.,](\d{1,3}))?\s*%?$/.exec(typed.trim());
  const taxRate = match ? Number(`${match[1]}${(match[2] ?? '').padEnd(3, '0')}`) : Number.NaN;
  if (!Number.isInteger(taxRate) || taxRate > WHOLE) return { ok: false, problem: { code: 'tax.rate' } };
  return { ok: true, rate: taxRate };
}

/** A rate as people write it, without the sign: 20000 is "20", 8875 is "8.875". */
export function rateText(taxRate: number): string {
  const fraction = String(taxRate % 1000)
    .padStart(3, '0')
    .replace(/0+$/, '');
  return `${Math.floor(taxRate / 1000)}${fraction ? `.${fraction}` : ''}`;
}
