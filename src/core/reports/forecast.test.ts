import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addLength, CALENDAR, MS_CALENDAR, TEMPORAL_CALENDAR } from '../calendar';
import { compare, fromMs, toMs } from '../instants';
import type { Offer } from '../offers/offer';
import { offerSchema } from '../offers/offer-schema';
import { expand, periods, periodsBy } from '../offers/schedule';
import { forecast, forecastBy, type Agreement } from './forecast';

const ZONE = 'Europe/London';
const offer = (steps: unknown[], rest: object = {}): Offer =>
  offerSchema.parse({ tier: 'observer', currency: 'GBP', steps, after: 'end', ...rest });
const repeat = (amount: number, n: number, unit: string, times: number | null = null) => ({
  kind: 'repeat',
  amount,
  every: { n, unit },
  times,
});
const OFFERS = [
  offer([{ kind: 'trial', amount: 0, lasts: { n: 14, unit: 'day' } }, repeat(600, 1, 'month')]),
  offer([repeat(200, 1, 'month', 3), repeat(600, 1, 'month')], {
    joiningFee: { amount: 1000, due: 'first-payment' },
  }),
  offer([repeat(4500, 1, 'month', 4)], { after: 'keep' }),
  offer([repeat(250, 10, 'day')]),
  offer([{ kind: 'once', amount: 2500, lasts: { until: '2027-08-09' } }]),
  offer([repeat(6000, 1, 'year')], { currency: 'EUR' }),
  offer([repeat(100, 36, 'hour', 900)]),
];
const agreements = fc.array(
  fc.record({
    offer: fc.constantFrom(...OFFERS),
    startedAt: fc
      .integer({ min: Date.UTC(2018, 0, 1), max: Date.UTC(2027, 5, 1) })
      .map((ms) => fromMs(ms - (ms % 1000))),
    skipTrial: fc.boolean(),
  }),
  { minLength: 1, maxLength: 6 },
);
const NOW = '2027-01-31T15:00:00Z';

describe('a forecast', () => {
  it('sums by local month and currency what the schedules say', () => {
    const running: Agreement[] = [
      { offer: OFFERS[0]!, startedAt: '2027-01-31T12:00:00Z', skipTrial: true },
      { offer: OFFERS[5]!, startedAt: '2026-03-01T00:30:00Z', skipTrial: false },
    ];
    // The 31st of January was paid before now; then 28 Feb and 31 Mar, and the year in euros on 1 March.
    expect(forecast(running, ZONE, NOW, 2)).toEqual([
      { month: '2027-02', currency: 'GBP', charges: 1, amount: 600 },
      { month: '2027-03', currency: 'EUR', charges: 1, amount: 6000 },
      { month: '2027-03', currency: 'GBP', charges: 1, amount: 600 },
    ]);
  });

  it('is the same by any calendar, and the same as counting every charge of every schedule', () => {
    fc.assert(
      fc.property(agreements, (running) => {
        const fast = forecast(running, ZONE, NOW, 12);
        expect(fast).toEqual(forecastBy(TEMPORAL_CALENDAR, (at) => at, running, ZONE, NOW, 12));
        const end = '2028-02-01T00:00:00Z';
        const charges = running.flatMap((one) =>
          expand(one.offer, one.startedAt, ZONE, end, one.skipTrial).charges.filter(
            (charge) => compare(charge.at, NOW) >= 0,
          ),
        );
        expect(fast.reduce((sum, month) => sum + month.charges, 0)).toBe(charges.length);
        expect(fast.reduce((sum, month) => sum + month.amount, 0)).toBe(
          charges.reduce((sum, charge) => sum + charge.amount, 0),
        );
      }),
      { numRuns: 40 },
    );
  });
});

describe('periods since an instant', () => {
  it('are those of the whole schedule that are not over by then', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...OFFERS),
        fc.integer({ min: 0, max: 3000 }),
        fc.boolean(),
        (one, days, skip) => {
          const start = '2019-01-31T09:00:00Z';
          const since = addLength(start, { n: days, unit: 'day' }, ZONE);
          const take = <T>(all: Iterable<T>, count: number): T[] => {
            const taken: T[] = [];
            for (const each of all) if (taken.push(each) === count) break;
            return taken;
          };
          const left = take(periodsBy(CALENDAR, one, start, ZONE, skip, since), 3);
          const all: typeof left = [];
          for (const period of periods(one, start, ZONE, skip)) {
            if (period.to === null || compare(period.to, since) > 0) all.push(period);
            if (all.length === 3) break;
          }
          expect(left).toEqual(all);
          const inMs = take(periodsBy(MS_CALENDAR, one, toMs(start), ZONE, skip, toMs(since)), 3);
          expect(inMs.map((period) => fromMs(period.from))).toEqual(all.map((period) => period.from));
        },
      ),
      { numRuns: 60 },
    );
  });
});
