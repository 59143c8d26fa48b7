import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decimalsOf, formatMoney, inputAmount, parseAmount, share } from './money';

describe('amounts as people type them', () => {
  it.each([
    ['6', 'GBP', 'en-GB', 600],
    ['£6.5', 'GBP', 'en-GB', 650],
    ['1,200', 'GBP', 'en-GB', 120_000],
    ['1,200.50', 'GBP', 'en-GB', 120_050],
    ['1.200,50', 'GBP', 'en-GB', 120_050],
    ['0', 'GBP', 'en-GB', 0],
    ['6.00', 'JPY', 'en-GB', 6],
    ['500', 'JPY', 'en-GB', 500],
    ['2.125', 'KWD', 'en-GB', 2125],
    ['4,50', 'EUR', 'de-DE', 450],
    ['4,50 €', 'EUR', 'de-DE', 450],
    ['EUR 4,5', 'EUR', 'de-DE', 450],
    ['1.200', 'EUR', 'de-DE', 120_000],
    ['1.200,50', 'EUR', 'de-DE', 120_050],
    ['1,200.50', 'EUR', 'de-DE', 120_050],
    ["1'200", 'CHF', 'en-GB', 120_000],
    ['$1,200', 'USD', 'en-US', 120_000],
  ])('%s %s in %s is %d minor units', (text, currency, locale, amount) => {
    expect(parseAmount(text, currency, locale)).toEqual({ ok: true, amount });
  });

  it.each([
    ['4,50', 'GBP', 'en-GB', 450, 45_000],
    ['4.50', 'EUR', 'de-DE', 450, 45_000],
    ['1.200', 'GBP', 'en-GB', 120, 120_000],
    ['1,200', 'KWD', 'en-GB', 1_200_000, 1200],
    ['1.000', 'JPY', 'en-GB', 1, 1000],
    ['12,3', 'GBP', 'en-GB', 1230, 12_300],
  ])('%s %s in %s could be %d or %d, and is not guessed', (text, currency, locale, one, other) => {
    const read = parseAmount(text, currency, locale);
    expect(read).toMatchObject({
      problem: { code: 'amount.two-ways', values: { one: { amount: one }, other: { amount: other } } },
    });
    // What it proposes to type is read as it says.
    const values = (!read.ok && read.problem.values) as { first: string; second: string };
    expect(parseAmount(values.first, currency, locale)).toEqual({ ok: true, amount: one });
    expect(parseAmount(values.second, currency, locale)).toEqual({ ok: true, amount: other });
  });

  it.each([
    ['', 'GBP', 'amount.missing'],
    ['-1', 'GBP', 'amount.below-zero'],
    ['6.005', 'GBP', 'amount.decimals'],
    ['6.5', 'JPY', 'amount.no-decimals'],
    ['six', 'GBP', 'amount.unreadable'],
    ['1e3', 'GBP', 'amount.unreadable'],
    ['1,20,000', 'GBP', 'amount.unreadable'],
    ['$6', 'GBP', 'amount.unreadable'],
    ['99999999999999', 'GBP', 'amount.too-large'],
  ])('%s %s is refused', (text, currency, code) => {
    expect(parseAmount(text, currency, 'en-GB')).toMatchObject({
      ok: false,
      problem: { code },
    });
  });

  it('comes back unchanged from its text, in every kind of currency and locale', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 10 ** 11 }),
        fc.constantFrom('GBP', 'JPY', 'KWD', 'CLF'),
        fc.constantFrom('en-GB', 'en-US', 'de-DE'),
        (amount, currency, locale) => {
          const typed = inputAmount(amount, currency, locale);
          expect(parseAmount(typed, currency, locale)).toEqual({ ok: true, amount });
        },
      ),
    );
  });
});

it('knows the decimals of currencies that do not have two', () => {
  expect(['GBP', 'JPY', 'KWD'].map(decimalsOf)).toEqual([2, 0, 3]);
});

it('writes money as people do', () => {
  expect(formatMoney(600, 'GBP', 'en-GB')).toBe('£6.00');
  expect(formatMoney(600, 'GBP', 'en-GB', true)).toBe('£6');
  expect(formatMoney(650, 'GBP', 'en-GB', true)).toBe('£6.50');
  expect(formatMoney(9_007_199_254_740_991, 'GBP', 'en-GB')).toBe('£90,071,992,547,409.91');
  expect(formatMoney(120_050, 'EUR', 'de-DE')).toBe('1.200,50\u00a0€');
});

describe('shares', () => {
  it('round half up', () => {
    expect(share(25, 3, 30)).toBe(3);
    expect(share(-5, 1, 2)).toBe(-2);
  });

  it('of two parts add up to the whole within one unit, and never lose exactness', () => {
    fc.assert(
      fc.property(
        fc.maxSafeNat(),
        fc.integer({ min: 1, max: 400 }),
        fc.nat({ max: 400 }),
        (amount, whole, part) => {
          fc.pre(part <= whole);
          const sum = share(amount, part, whole) + share(amount, whole - part, whole);
          expect(sum - amount).toBeGreaterThanOrEqual(0);
          expect(sum - amount).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
});
