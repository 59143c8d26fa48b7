import { describe, expect, it } from 'vitest';
import { daysFrom, sumByDay } from './days';

describe('days in a row', () => {
  it('are local, over a clock change and backwards too', () => {
    expect(daysFrom('2027-03-27', 3, 'Europe/London')).toEqual(['2027-03-27', '2027-03-28', '2027-03-29']);
    expect(daysFrom('2026-10-26', -2, 'Europe/London')).toEqual(['2026-10-24', '2026-10-25']);
    expect(daysFrom('2026-12-31', 2, 'Pacific/Auckland')).toEqual(['2026-12-31', '2027-01-01']);
  });
});

describe('what falls on a day', () => {
  it('is counted on the local date, by currency; what falls on another is left out', () => {
    const row = (at: string, amount: number, currency = 'GBP') => ({
      at: at as '2026-01-01T00:00:00Z',
      amount,
      currency,
    });
    const rows = [
      row('2027-07-01T23:30:00Z', 600),
      row('2027-07-02T10:00:00Z', 1500),
      row('2027-07-02T11:00:00Z', 900, 'EUR'),
      row('2027-07-03T23:30:00Z', 1),
    ];
    expect(sumByDay(rows, daysFrom('2027-07-01', 3, 'Europe/London'), 'Europe/London')).toEqual([
      { date: '2027-07-01', count: 0, sums: [] },
      {
        date: '2027-07-02',
        count: 3,
        sums: [
          { currency: 'GBP', amount: 2100 },
          { currency: 'EUR', amount: 900 },
        ],
      },
      { date: '2027-07-03', count: 0, sums: [] },
    ]);
  });
});
