import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { TierId } from './ids';
import type { LocalMonth } from './instants';
import { incomeByTier, monthsUpTo, sumYears, type Income } from './income';

const tier = (id: string): TierId => id;

it('months follow one another over the turn of a year', () => {
  expect(monthsUpTo('2027-02', 4)).toEqual(['2026-11', '2026-12', '2027-01', '2027-02']);
});

it('each tier has its amount in each month, the largest first, and what is of another currency or time is left out', () => {
  const rows: Income[] = [
    { when: '2026-12', tierId: tier('observer'), currency: 'GBP', amount: 600 },
    { when: '2027-02', tierId: tier('observer'), currency: 'GBP', amount: 1200 },
    { when: '2027-02', tierId: tier('warden'), currency: 'GBP', amount: 1500 },
    { when: '2027-02', tierId: tier('warden'), currency: 'GBP', amount: 1500 },
    { when: '2027-02', tierId: tier('gazer'), currency: 'EUR', amount: 900 },
    { when: '2026-11', tierId: tier('gazer'), currency: 'GBP', amount: 900 },
  ];
  expect(incomeByTier(rows, monthsUpTo('2027-02', 3), 'GBP')).toEqual([
    { tierId: 'warden', amounts: [0, 0, 3000], total: 3000 },
    { tierId: 'observer', amounts: [600, 0, 1200], total: 1800 },
  ]);
});

it('years come to what their months come to, by currency', () => {
  const month = fc.record({
    month: fc.constantFrom<LocalMonth>('2025-12', '2026-01', '2026-07', '2027-03'),
    currency: fc.constantFrom('GBP', 'EUR'),
    received: fc.nat(),
    tax: fc.nat(),
  });
  fc.assert(
    fc.property(fc.array(month), (months) => {
      const years = sumYears(months, ['received', 'tax']);
      for (const { year, currency, received, tax } of years) {
        const of = months.filter((one) => one.month.startsWith(year) && one.currency === currency);
        expect(received).toBe(of.reduce((sum, one) => sum + one.received, 0));
        expect(tax).toBe(of.reduce((sum, one) => sum + one.tax, 0));
      }
      expect(new Set(years.map(({ year, currency }) => year + currency)).size).toBe(years.length);
    }),
  );
});
