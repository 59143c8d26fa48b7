import type { CoreCode, Problem } from './problem';

/**
 * Money is an integer number of minor units (pence, yen, fils) with an ISO 4217 currency code.
 * No floating point touches an amount: text becomes digits, digits become an integer.
 */
export type Money = { amount: number; currency: string };

/** Decimals of the currencies that do not have two. Source: ISO 4217:2015, list one, "Minor unit". */
const DECIMALS: Record<string, number> = {
  BHD: 3,
  BIF: 0,
  CLF: 4,
  CLP: 0,
  DJF: 0,
  GNF: 0,
  IQD: 3,
  ISK: 0,
  JOD: 3,
  JPY: 0,
  KMF: 0,
  KRW: 0,
  KWD: 3,
  LYD: 3,
  OMR: 3,
  PYG: 0,
  RWF: 0,
  TND: 3,
  UGX: 0,
  UYI: 0,
  UYW: 4,
  VND: 0,
  VUV: 0,
  XAF: 0,
  XOF: 0,
  XPF: 0,
};

/** Number of decimals of a currency: JPY 0, GBP 2, KWD 3. */
export function decimalsOf(currency: string): number {
  return DECIMALS[currency] ?? 2;
}

/** Whether a code is a currency that this runtime knows (ISO 4217, upper case). */
export function isCurrency(code: string): boolean {
  return /^[A-Z]{3}$/.test(code) && Intl.supportedValuesOf('currency').includes(code);
}

export type ParsedAmount = { ok: true; amount: number } | { ok: false; problem: Problem };

/**
 * Reads an amount that a person typed ("6", "6.00", "1,200.50", "£6") into minor units.
 * Refuses what is negative, no number, or has more decimals than the currency.
 */
export function parseAmount(text: string, currency: string): ParsedAmount {
  const decimals = decimalsOf(currency);
  const typed = text.replace(/[\s,\u00a0]/g, '').replace(/^\p{Sc}/u, '');
  const not = (code: CoreCode, values?: Problem['values']): ParsedAmount => ({
    ok: false,
    problem: values ? { code, values } : { code },
  });
  const example = exampleAmount(currency);
  if (typed === '') return not('amount.missing');
  if (typed.startsWith('-')) return not('amount.below-zero');
  const match = /^(\d+)(?:\.(\d*))?$/.exec(typed);
  if (!match) return not('amount.unreadable', { typed: text.trim(), example });
  const fraction = (match[2] ?? '').replace(/0+$/, '');
  if (fraction.length > decimals)
    return decimals === 0
      ? not('amount.no-decimals', { currency, example })
      : not('amount.decimals', { currency, decimals, example });
  const amount = Number(`${match[1]}${fraction.padEnd(decimals, '0')}`);
  if (!Number.isSafeInteger(amount) || amount > 100_000_000_000) return not('amount.too-large');
  return { ok: true, amount };
}

function exampleAmount(currency: string): string {
  return toDecimal(6 * 10 ** decimalsOf(currency), currency);
}

/** Minor units as plain decimal text: 600 GBP is "6.00", 600 JPY is "600". */
export function toDecimal(amount: number, currency: string): string {
  const decimals = decimalsOf(currency);
  const sign = amount < 0 ? '-' : '';
  const digits = String(Math.abs(amount)).padStart(decimals + 1, '0');
  if (decimals === 0) return sign + digits;
  return `${sign}${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
}

/**
 * Minor units as people write them: "£6.00", or "£6" with `short` where nothing follows the point.
 * The decimal text goes to Intl as a string, so no amount is ever a float.
 */
export function formatMoney(amount: number, currency: string, short = false, locale = 'en-GB'): string {
  return moneyFormat(locale, currency, short).format(toDecimal(amount, currency) as unknown as number);
}

/** A format is dear to make and cheap to use; there is one for each currency and locale. */
const moneyFormats = new Map<string, Intl.NumberFormat>();
function moneyFormat(locale: string, currency: string, short: boolean): Intl.NumberFormat {
  const key = `${locale} ${currency} ${short ? 'short' : ''}`;
  let format = moneyFormats.get(key);
  if (!format) {
    format = new Intl.NumberFormat(locale, {
      style: 'currency',
      currency,
      minimumFractionDigits: decimalsOf(currency),
      maximumFractionDigits: decimalsOf(currency),
      trailingZeroDisplay: short ? 'stripIfInteger' : 'auto',
    });
    moneyFormats.set(key, format);
  }
  return format;
}

/** `amount × part ÷ whole`, rounded half up. Whole numbers only; exact whatever their size. */
export function share(amount: number, part: number, whole: number): number {
  if (whole <= 0) throw new RangeError('share: the whole must be above zero');
  const doubled = 2n * BigInt(amount) * BigInt(part) + BigInt(whole);
  const divisor = 2n * BigInt(whole);
  const quotient = doubled / divisor;
  // BigInt division truncates toward zero; half up rounds toward positive infinity.
  return Number(doubled < 0n && doubled % divisor !== 0n ? quotient - 1n : quotient);
}

/** A number of things, as people write it: 1240 is "1,240". */
export const formatCount = (n: number, locale = 'en-GB'): string => n.toLocaleString(locale);
