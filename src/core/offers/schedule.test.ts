import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { addLength } from '../calendar';
import { compare, fromMs, toMs, UNITS, type Length, type Instant } from '../instants';
import { prorate } from '../prorate';
import type { Offer } from './offer';
import { offerSchema } from './offer-schema';
import { expand, nextPeriod, periods } from './schedule';

const zone = fc.constantFrom(
  'Europe/London',
  'America/New_York',
  'Australia/Lord_Howe',
  'Asia/Kathmandu',
  'UTC',
);
const start = fc
  .integer({ min: Date.UTC(2026, 0), max: Date.UTC(2030, 0) })
  .map((ms) => fromMs(Math.floor(ms / 1000) * 1000));
const length: fc.Arbitrary<Length> = fc.record({
  n: fc.integer({ min: 1, max: 6 }),
  unit: fc.constantFrom(...UNITS),
});
const amount = fc.nat({ max: 10_000 });
const finite = fc.oneof(
  fc.record({ kind: fc.constant('trial' as const), amount, lasts: length }),
  fc.record({ kind: fc.constant('once' as const), amount, lasts: length }),
  fc.record({
    kind: fc.constant('repeat' as const),
    amount,
    every: length,
    times: fc.integer({ min: 1, max: 5 }),
  }),
);
const last = fc.oneof(
  fc.record({
    kind: fc.constant('repeat' as const),
    amount,
    every: fc.record({
      n: fc.integer({ min: 1, max: 3 }),
      unit: fc.constantFrom('week' as const, 'month' as const, 'year' as const),
    }),
    times: fc.constantFrom(null, 4),
  }),
  fc.record({
    kind: fc.constant('once' as const),
    amount,
    lasts: fc.oneof(length, fc.constant('forever' as const)),
  }),
);
const offer: fc.Arbitrary<Offer> = fc.record({
  tier: fc.constant('observer'),
  currency: fc.constant('GBP'),
  joiningFee: fc.option(
    fc.record({
      amount: fc.integer({ min: 1, max: 5000 }),
      due: fc.constantFrom('start' as const, 'first-payment' as const),
    }),
    { nil: undefined },
  ),
  steps: fc.tuple(fc.array(finite, { maxLength: 2 }), last).map(([before, end]) => [...before, end]),
  after: fc.constantFrom('end' as const, 'keep' as const),
});

const yearsOn = (at: Instant, n: number): Instant => addLength(at, { n, unit: 'year' }, 'UTC');

describe('schedules', () => {
  it('neither skip nor double a period: each begins where the one before ends', () => {
    fc.assert(
      fc.property(offer, start, zone, fc.boolean(), (o, at, z, skip) => {
        let previous = at;
        let count = 0;
        for (const period of periods(o, at, z, skip)) {
          expect(period.from).toBe(previous);
          if (period.to === null || ++count > 60) return;
          expect(compare(period.to, period.from)).toBeGreaterThan(0);
          previous = period.to;
        }
      }),
    );
  });

  it('count every period from the start of its step, so that month ends never drift', () => {
    fc.assert(
      fc.property(start, zone, fc.integer({ min: 1, max: 12 }), (at, z, n) => {
        const o: Offer = {
          tier: 't',
          currency: 'GBP',
          steps: [{ kind: 'repeat', amount: 1, every: { n, unit: 'month' }, times: null }],
          after: 'end',
        };
        const { charges } = expand(o, at, z, yearsOn(at, 3), false);
        const first = Temporal.Instant.from(at).toZonedDateTimeISO(z);
        charges.forEach((charge, k) =>
          expect(charge.at).toBe(
            k === 0
              ? at
              : first
                  .add({ months: n * k })
                  .toInstant()
                  .toString(),
          ),
        );
      }),
    );
  });

  it('charge the joining fee once at most, and only beside what the steps ask', () => {
    fc.assert(
      fc.property(offer, start, zone, fc.boolean(), (o, at, z, skip) => {
        const { charges } = expand(o, at, z, yearsOn(at, 2), skip);
        const fee = charges.reduce((sum, charge) => sum + charge.joiningFee, 0);
        expect([0, o.joiningFee?.amount ?? 0]).toContain(fee);
        for (const charge of charges)
          expect(charge.amount).toBeGreaterThanOrEqual(Math.max(1, charge.joiningFee));
        if (skip) expect(charges.every((charge) => charge.why !== 'trial')).toBe(true);
      }),
    );
  });

  it('show more with a later horizon, and the same where both look', () => {
    fc.assert(
      fc.property(offer, start, zone, (o, at, z) => {
        const near = expand(o, at, z, yearsOn(at, 1), false).charges;
        const far = expand(o, at, z, yearsOn(at, 2), false).charges;
        expect(far.slice(0, near.length)).toEqual(near);
      }),
    );
  });

  it('are walked by nextPeriod in the same order', () => {
    fc.assert(
      fc.property(offer, start, zone, (o, at, z) => {
        let after: { step: number; n: number } | null = null;
        let count = 0;
        for (const period of periods(o, at, z, false)) {
          const next = nextPeriod(o, at, z, false, after);
          expect(next).toEqual(period);
          after = period;
          if (++count > 12) return;
        }
        expect(nextPeriod(o, at, z, false, after)).toBeUndefined();
      }),
      { numRuns: 50 },
    );
  });

  it('survive a zone that left a whole day out of its calendar', () => {
    const o: Offer = {
      tier: 't',
      currency: 'GBP',
      steps: [{ kind: 'repeat', amount: 1, every: { n: 1, unit: 'day' }, times: null }],
      after: 'end',
    };
    const { charges } = expand(o, '2011-12-28T22:00:00Z', 'Pacific/Apia', '2012-01-03T00:00:00Z', false);
    expect(charges.length).toBeGreaterThan(3);
    expect(new Set(charges.map((charge) => charge.at)).size).toBe(charges.length);
  });
});

describe('offers in their open form', () => {
  it('come back from JSON as they went', () => {
    fc.assert(
      fc.property(offer, (o) => {
        const plain = JSON.parse(JSON.stringify(o)) as Offer;
        const parsed = offerSchema.safeParse(plain);
        if (parsed.success) expect(JSON.parse(JSON.stringify(parsed.data))).toEqual(plain);
        else
          expect(o.steps.every((step) => step.kind === 'trial') || o.steps.slice(0, -1).length > 0).toBe(
            true,
          );
      }),
    );
  });

  it.each([
    ['a trial alone', [{ kind: 'trial', amount: 0, lasts: { n: 1, unit: 'day' } }], 'steps'],
    [
      'something after an endless step',
      [
        { kind: 'once', amount: 1, lasts: 'forever' },
        { kind: 'once', amount: 1, lasts: { n: 1, unit: 'day' } },
      ],
      'steps.1',
    ],
    ['a negative amount', [{ kind: 'once', amount: -1, lasts: 'forever' }], 'steps.0.amount'],
    ['half a penny', [{ kind: 'once', amount: 0.5, lasts: 'forever' }], 'steps.0.amount'],
    [
      'a day that does not exist',
      [{ kind: 'once', amount: 1, lasts: { until: '2027-02-30' } }],
      'steps.0.lasts',
    ],
  ])('are refused for %s', (_, steps, path) => {
    const parsed = offerSchema.safeParse({ tier: 't', currency: 'GBP', steps, after: 'end' });
    expect(parsed.error?.issues.map((issue) => issue.path.join('.')).some((at) => at.startsWith(path))).toBe(
      true,
    );
  });
});

it('prorations credit between nothing and everything, less from day to day', () => {
  fc.assert(
    fc.property(
      amount,
      start,
      zone,
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 0, max: 410 }),
      (money, from, z, days, used) => {
        const to = addLength(from, { n: days, unit: 'day' }, z);
        const at = fromMs(toMs(from) + used * 86_400_000);
        const today = prorate(money, from, to, at, z);
        const tomorrow = prorate(money, from, to, fromMs(toMs(at) + 86_400_000), z);
        expect(today.credit).toBeGreaterThanOrEqual(0);
        expect(today.credit).toBeLessThanOrEqual(money);
        expect(tomorrow.credit).toBeLessThanOrEqual(today.credit);
        expect(prorate(money, from, null, at, z).credit).toBe(0);
      },
    ),
  );
});
