import fc from 'fast-check';
import { expect, it } from 'vitest';
import { quoteOffer } from './offers/quote';
import { parseRate, rateFor, rateText, taxIn, taxOfPart, withTax, withTaxAdded, type TaxTable } from './tax';

const table: TaxTable = {
  way: 'included',
  kinds: [
    { id: 'membership', name: 'Membership' },
    { id: 'course', name: 'Course' },
  ],
  rates: [
    { kindId: 'membership', country: 'GB', name: 'VAT', rate: 20_000 },
    { kindId: 'membership', country: '', name: 'Tax', rate: 5_500 },
    { kindId: 'course', country: 'GB', name: 'VAT', rate: 0 },
  ],
};

it.each([
  [600, 20_000, 100],
  [1500, 20_000, 250],
  [1000, 8_875, 82], // 1000 × 0.08875 ÷ 1.08875 = 81.51…
  [900, 10_000, 82], // JPY: 900 × 0.1 ÷ 1.1 = 81.81…
  [1250, 0, 0],
])('in %i at %i there is a tax of %i', (gross, taxRate, tax) => {
  expect(taxIn(gross, taxRate)).toBe(tax);
});

it('what was added is found again, to the last unit', () => {
  fc.assert(
    fc.property(fc.nat(100_000_000), fc.integer({ min: 0, max: 100_000 }), (net, taxRate) => {
      const gross = withTax(net, taxRate);
      expect(gross - taxIn(gross, taxRate)).toBe(net);
    }),
  );
});

it('the tax of parts adds up to the tax of the whole', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 9_999 }), { minLength: 1, maxLength: 8 }),
      fc.nat(100),
      (parts, percent) => {
        const total = parts.reduce((sum, part) => sum + part, 0);
        const tax = Math.floor((total * percent) / 100);
        let gone = 0;
        let taxed = 0;
        for (const part of parts) {
          const one = taxOfPart({ total, tax }, gone, part);
          expect(one).toBeGreaterThanOrEqual(0);
          taxed += one;
          gone += part;
        }
        expect(taxed).toBe(tax);
      },
    ),
  );
});

it('takes the rate of the country, else that of everywhere else, else none', () => {
  expect(rateFor(table, 'membership', 'GB')).toEqual({ name: 'VAT', rate: 20_000 });
  expect(rateFor(table, 'membership', 'FR')).toEqual({ name: 'Tax', rate: 5_500 });
  expect(rateFor(table, 'membership', '')).toEqual({ name: 'Tax', rate: 5_500 });
  expect(rateFor(table, 'course', 'FR')).toBeNull();
  // A tier that says nothing is of the first kind.
  expect(rateFor(table, null, 'GB')).toEqual({ name: 'VAT', rate: 20_000 });
  expect(rateFor({ ...table, way: 'none' }, 'membership', 'GB')).toBeNull();
});

it('adds the tax to every amount of an offer, and so to all that is reckoned from it', () => {
  const offer = withTaxAdded(
    {
      tier: 'warden',
      currency: 'GBP',
      joiningFee: { amount: 1000, due: 'first-payment' },
      steps: [
        { kind: 'trial', amount: 0, lasts: { n: 30, unit: 'day' } },
        { kind: 'repeat', amount: 1500, every: { n: 1, unit: 'month' }, times: 2 },
      ],
      after: 'end',
    },
    20_000,
  );
  const { charges } = quoteOffer(offer, '2026-11-01T10:00:00Z', 'Europe/London');
  expect(charges.map(({ amount, joiningFee }) => [amount, joiningFee])).toEqual([
    [3000, 1200],
    [1800, 0],
  ]);
});

it('reads and writes rates as people do', () => {
  expect(parseRate('20')).toEqual({ ok: true, rate: 20_000 });
  expect(parseRate(' 8.875 %')).toEqual({ ok: true, rate: 8_875 });
  expect(parseRate('5,5')).toEqual({ ok: true, rate: 5_500 });
  for (const wrong of ['', '-1', '101', '1.2345', 'a lot']) expect(parseRate(wrong).ok).toBe(false);
  expect([20_000, 8_875, 0, 5_500].map(rateText)).toEqual(['20', '8.875', '0', '5.5']);
});
