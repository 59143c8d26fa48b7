import { describe, expect, it } from 'vitest';
import { bestSaving, monthlyValue, offersUnder, perMonth, rhythmsToChoose, savingOf } from './comparison';
import type { Offer } from './offer';
import { offerSchema } from './offer-schema';
import { joiningInstant, quoteOffer } from './quote';

const offer = (amount: number, n: number, unit: string, rest: object = {}): Offer =>
  offerSchema.parse({
    tier: 'observer',
    currency: 'GBP',
    steps: [{ kind: 'repeat', amount, every: { n, unit }, times: null }],
    after: 'end',
    ...rest,
  });
const monthly = offer(600, 1, 'month');
const yearly = offer(6000, 1, 'year');
const free: Offer = { ...monthly, steps: [{ kind: 'once', amount: 0, lasts: 'forever' }] };

describe('the rhythms of a join page', () => {
  it('are those between which one tier lets a person choose, shortest first', () => {
    expect(rhythmsToChoose([[yearly, monthly], [free]]).map(({ key }) => key)).toEqual(['1-month', '1-year']);
    expect(rhythmsToChoose([[monthly], [yearly]])).toEqual([]);
    expect(rhythmsToChoose([[offer(1, 10, 'day'), offer(2, 3, 'month')]]).map(({ key }) => key)).toEqual([
      '10-day',
      '3-month',
    ]);
  });

  it('show of each tier what is paid so, and what has no rhythm; never nothing', () => {
    const offers = [
      { id: 'm', definition: monthly },
      { id: 'y', definition: yearly },
      { id: 'f', definition: free },
    ];
    expect(offersUnder(offers, '1-year').map(({ id }) => id)).toEqual(['y', 'f']);
    expect(offersUnder(offers.slice(0, 1), '1-year').map(({ id }) => id)).toEqual(['m']);
    expect(offersUnder(offers, null)).toHaveLength(3);
  });
});

describe('what one offer saves against another', () => {
  it('is counted over a year, in minor units and whole per cent', () => {
    expect(savingOf(yearly, monthly)).toEqual({ amount: 1200, percent: 17 });
    expect(savingOf(monthly, yearly)).toBeNull();
    expect(bestSaving(yearly, [offer(1700, 3, 'month'), monthly, yearly])).toEqual({
      amount: 1200,
      percent: 17,
    });
  });

  it('is nothing between currencies, and where a year is no whole number of payments', () => {
    expect(savingOf(yearly, offer(90_000, 1, 'month', { currency: 'JPY' }))).toBeNull();
    expect(savingOf(yearly, offer(5000, 5, 'month'))).toBeNull();
    expect(savingOf(yearly, offer(5000, 4, 'week'))).toBeNull();
  });
});

describe('what a price comes to in a month', () => {
  it.each([
    [6000, 1, 'year', 500],
    [600, 1, 'month', 600],
    [1700, 3, 'month', 567],
    [100, 1, 'week', 435],
    [100, 1, 'day', 3044],
    [1, 1, 'hour', 730],
  ] as const)('%d every %d %s is %d', (amount, n, unit, month) => {
    expect(perMonth(amount, { n, unit })).toBe(month);
  });

  it('is that of the step that runs; a single payment and a free offer bring nothing by the month', () => {
    const steps: Offer['steps'] = [
      { kind: 'repeat', amount: 200, every: { n: 1, unit: 'month' }, times: 3 },
      { kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: null },
    ];
    expect([0, 1, 2].map((step) => monthlyValue({ ...monthly, steps }, step))).toEqual([200, 600, 0]);
    expect(monthlyValue(free, 0)).toBe(0);
  });
});

describe('the quote of the first year', () => {
  const ZONE = 'Europe/London';
  const trial: Offer = {
    ...monthly,
    joiningFee: { amount: 1000, due: 'first-payment' },
    steps: [{ kind: 'trial', amount: 0, lasts: { n: 14, unit: 'day' } }, ...monthly.steps],
  };

  it('says what is due today, what is next, and the sum of everything within a year', () => {
    const quote = quoteOffer(trial, '2027-01-31T12:00:00Z', ZONE);
    expect(quote).toMatchObject({
      dueToday: 0,
      firstYearTotal: 12 * 600 + 1000,
      next: { at: '2027-02-14T12:00:00Z', amount: 1600, joiningFee: 1000 },
      hasAnything: true,
    });
    expect(quoteOffer(trial, '2027-01-31T12:00:00Z', ZONE, true)).toMatchObject({ dueToday: 1600 });
  });

  it('keeps to month ends for a member who joins on the last of January', () => {
    const { charges } = quoteOffer(monthly, '2027-01-31T12:00:00Z', ZONE);
    expect(charges.slice(0, 4).map((charge) => charge.at)).toEqual([
      '2027-01-31T12:00:00Z',
      '2027-02-28T12:00:00Z',
      '2027-03-31T11:00:00Z',
      '2027-04-30T11:00:00Z',
    ]);
  });

  it('finds nothing left where every date has passed', () => {
    const over: Offer = { ...monthly, steps: [{ kind: 'once', amount: 1, lasts: { until: '2026-12-31' } }] };
    expect(quoteOffer(over, '2027-01-31T12:00:00Z', ZONE).hasAnything).toBe(false);
  });

  it('is for now where the day is today, else for noon of that day', () => {
    expect(joiningInstant('2027-07-01', '2027-07-01T08:00:00Z', ZONE)).toBe('2027-07-01T08:00:00Z');
    expect(joiningInstant('2027-07-02', '2027-07-01T08:00:00Z', ZONE)).toBe('2027-07-02T11:00:00Z');
  });
});
