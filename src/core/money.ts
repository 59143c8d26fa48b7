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

/** What parts a number's digits in a locale. */
type Separators = { decimal: string; group: string };
const separators = new Map<string, Separators>();
function separatorsOf(locale: string): Separators {
  const known = separators.get(locale);
  if (known) return known;
  const parts = new Intl.NumberFormat(locale).formatToParts(1_234_567.8);
  const part = (type: string): string => parts.find((one) => one.type === type)?.value ?? '';
  const found = { decimal: part('decimal'), group: part('group') };
  separators.set(locale, found);
  return found;
}

/** `amount` in minor units, null where it has more decimals than the currency; `isExact`: not even zeros are too many. */
type Reading = { amount: number | null; isExact: boolean; hasDecimal: boolean };

/** What digits with separators mean, if they mean anything; separators are "." and ",". */
function readAs(typed: string, decimal: string, decimals: number): Reading | null {
  const group = decimal === '.' ? ',' : '.';
  const pattern = new RegExp(`^(\\d+|\\d{1,3}(?:\\${group}\\d{3})+)(?:\\${decimal}(\\d*))?$`);
  const match = pattern.exec(typed);
  if (!match) return null;
  const whole = (match[1] ?? '').replaceAll(group, '');
  const fraction = match[2] ?? '';
  const used = fraction.replace(/0+$/, '');
  return {
    amount: used.length > decimals ? null : Number(`${whole}${used.padEnd(decimals, '0')}`),
    isExact: fraction.length <= decimals,
    hasDecimal: match[2] !== undefined,
  };
}

/** An amount without what names its currency: "£6", "6 EUR". Another currency's name stays, and makes it unreadable. */
function withoutCurrency(text: string, currency: string, locale: string): string {
  const symbolOf = (currencyDisplay: 'symbol' | 'narrowSymbol'): string =>
    new Intl.NumberFormat(locale, { style: 'currency', currency, currencyDisplay })
      .formatToParts(0)
      .find(({ type }) => type === 'currency')?.value ?? '';
  // Blanks and apostrophes group digits in some countries, and mean nothing else.
  let typed = text.replace(/[\s\u00a0\u202f'’]/g, '');
  for (const name of [currency, symbolOf('symbol'), symbolOf('narrowSymbol')]) {
    if (typed.startsWith(name)) typed = typed.slice(name.length);
    else if (typed.endsWith(name)) typed = typed.slice(0, -name.length);
  }
  return typed;
}

/**
 * Reads an amount that a person typed ("6", "6.00", "1,200.50", "£6") into minor units, as their locale writes numbers.
 * Refuses what is negative, no number, has more decimals than the currency, or can be read in two ways: "4,50" is
 * neither guessed to be 450 nor 4.50.
 */
export function parseAmount(text: string, currency: string, locale: string): ParsedAmount {
  const decimals = decimalsOf(currency);
  const typed = withoutCurrency(text, currency, locale);
  const not = (code: CoreCode, values?: Problem['values']): ParsedAmount => ({
    ok: false,
    problem: values ? { code, values } : { code },
  });
  const plain = (amount: number): string => inputAmount(amount, currency, locale);
  const taken = (amount: number): ParsedAmount =>
    Number.isSafeInteger(amount) && amount <= 100_000_000_000
      ? { ok: true, amount }
      : not('amount.too-large');
  const ask = (one: number, other: number): ParsedAmount =>
    not('amount.two-ways', {
      typed: text.trim(),
      one: { amount: one, currency },
      other: { amount: other, currency },
      first: plain(one),
      second: plain(other),
    });
  const example = plain(6 * 10 ** decimals);
  if (typed === '') return not('amount.missing');
  if (/^[-−]/.test(typed)) return not('amount.below-zero');
  const own = readAs(typed, separatorsOf(locale).decimal, decimals);
  const other = readAs(typed, separatorsOf(locale).decimal === '.' ? ',' : '.', decimals);
  if (own?.amount === null)
    return decimals === 0
      ? not('amount.no-decimals', { currency, example })
      : not('amount.decimals', { currency, decimals, example });
  if (own) {
    const isOther = other?.amount != null && other.amount !== own.amount;
    const isLikely = own.isExact ? !own.hasDecimal && other?.isExact && other.hasDecimal : true;
    return isOther && isLikely ? ask(own.amount, other.amount ?? 0) : taken(own.amount);
  }
  if (other?.amount != null) {
    // Both separators leave one reading only.
    if (typed.includes('.') && typed.includes(',')) return taken(other.amount);
    return ask(other.amount, Number(typed.replace(/\D/g, '')) * 10 ** decimals);
  }
  return not('amount.unreadable', { typed: text.trim(), example });
}

/** Minor units as text for a field: "6.00", with the decimal sign of a locale. */
export const inputAmount = (amount: number, currency: string, locale: string): string =>
  toDecimal(amount, currency).replace('.', separatorsOf(locale).decimal);

/** Minor units as plain decimal text: 600 GBP is "6.00", 600 JPY is "600". */
export function toDecimal(amount: number, currency: string): string {
  const decimals = decimalsOf(currency);
  const sign = amount < 0 ? '-' : '';
  const digits = String(Math.abs(amount)).padStart(decimals + 1, '0');
  if (decimals === 0) return sign + digits;
  return `${sign}${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
}

/**
 * Minor units as people of a locale write them: "£6.00", or "£6" with `short` where nothing follows the point.
 * The decimal text goes to Intl as a string, so no amount is ever a float.
 */
export function formatMoney(amount: number, currency: string, locale: string, short = false): string {
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

/** A number of things, as people of a locale write it: 1240 is "1,240" in Britain. */
export const formatCount = (n: number, locale: string): string => n.toLocaleString(locale);
