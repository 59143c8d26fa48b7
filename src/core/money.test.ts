import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decimalsOf, formatMoney, parseAmount, share, toDecimal } from './money';

describe('amounts as people type them', () => {
  it.each([
    ['6', 'GBP', 600],
    ['£6.5', 'GBP', 650],
    ['1,200.50', 'GBP', 120_050],
    ['0', 'GBP', 0],
    ['6.00', 'JPY', 6],
    ['500', 'JPY', 500],
    ['2.125', 'KWD', 2125],
  ])('%s %s is %d minor units', (text, currency, amount) => {
    expect(parseAmount(text, currency)).toEqual({ ok: true, amount });
  });

  it.each([
    ['', 'GBP', 'amount.missing'],
    ['-1', 'GBP', 'amount.below-zero'],
    ['6.005', 'GBP', 'amount.decimals'],
    ['6.5', 'JPY', 'amount.no-decimals'],
    ['six', 'GBP', 'amount.unreadable'],
    ['1e3', 'GBP', 'amount.unreadable'],
    ['99999999999999', 'GBP', 'amount.too-large'],
  ])('%s %s is refused', (text, currency, code) => {
    expect(parseAmount(text, currency)).toMatchObject({
      ok: false,
      problem: { code },
    });
  });

  it('comes back unchanged from its decimal text, in every kind of currency', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 10 ** 11 }),
        fc.constantFrom('GBP', 'JPY', 'KWD', 'CLF'),
        (amount, currency) => {
          expect(parseAmount(toDecimal(amount, currency), currency)).toEqual({ ok: true, amount });
        },
      ),
    );
  });
});

it('knows the decimals of currencies that do not have two', () => {
  expect(['GBP', 'JPY', 'KWD'].map(decimalsOf)).toEqual([2, 0, 3]);
});

it('writes money as people do', () => {
  expect(formatMoney(600, 'GBP')).toBe('£6.00');
  expect(formatMoney(600, 'GBP', true)).toBe('£6');
  expect(formatMoney(650, 'GBP', true)).toBe('£6.50');
  expect(formatMoney(9_007_199_254_740_991, 'GBP')).toBe('£90,071,992,547,409.91');
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
