import { describe, expect, it } from 'vitest';
import { offerSchema, type Offer } from '../offers/offer';
import { directionOf, quoteSwitch, type LadderTerms, type Leaving } from './switching';

const ZONE = 'Europe/London';
const offer = (amount: number, unit: string, rest: object = {}): Offer =>
  offerSchema.parse({
    tier: 'observer',
    currency: 'GBP',
    steps: [
      { kind: 'trial', amount: 0, lasts: { n: 30, unit: 'day' } },
      { kind: 'repeat', amount, every: { n: 1, unit }, times: null },
    ],
    after: 'end',
    joiningFee: { amount: 1000, due: 'first-payment' },
    ...rest,
  });
const monthly = offer(600, 'month');
const yearly = offer(6000, 'year');
const dear = offer(1500, 'month');
const ladder: LadderTerms = { creditUnused: true, waitDays: 0, downAtOnce: false };
const NOW = '2027-01-24T12:00:00Z';
const leaving: Leaving = {
  rung: 1,
  offer: monthly,
  state: 'active',
  startedAt: '2026-11-10T12:00:00Z',
  hasSwitched: false,
  period: { step: 1, from: '2027-01-10T12:00:00Z', to: '2027-02-10T12:00:00Z' },
  paidThrough: '2027-02-10T12:00:00Z',
  paid: 600,
};
const quote = (
  part: Partial<Leaving>,
  to: { rung: number; offer: Offer },
  terms: Partial<LadderTerms> = {},
) => quoteSwitch({ ...leaving, ...part }, to, { ...ladder, ...terms }, NOW, ZONE);

describe('which way a switch goes', () => {
  it.each([
    ['up', 1, monthly, 2, monthly],
    ['down', 2, monthly, 1, yearly],
    ['up', 1, monthly, 1, yearly],
    ['down', 1, yearly, 1, monthly],
  ] as const)('is %s', (direction, rung, from, toRung, to) => {
    expect(directionOf({ rung, offer: from }, { rung: toRung, offer: to })).toBe(direction);
  });
});

describe('what a switch costs', () => {
  it('up begins now, without trial and joining fee, less the unused days', () => {
    // 24 January to 10 February: 17 of 31 days; 600 × 17 ÷ 31 = 329.03.
    expect(quote({}, { rung: 2, offer: dear })).toMatchObject({
      ok: true,
      quote: {
        direction: 'up',
        atOnce: true,
        startsAt: NOW,
        unusedDays: 17,
        totalDays: 31,
        credit: 329,
        due: 1171,
        leftOver: 0,
        first: { amount: 1500, joiningFee: 0 },
      },
    });
  });

  it('leaves credit over where it is more than the first charge', () => {
    const year = { step: 1, from: '2027-01-10T12:00:00Z', to: '2028-01-10T12:00:00Z' };
    const answer = quote(
      { offer: yearly, period: year, paidThrough: year.to, paid: 6000 },
      { rung: 2, offer: dear },
    );
    expect(answer).toMatchObject({ quote: { credit: 5770, due: 0, leftOver: 4270 } });
  });

  it('credits nothing for a trial, for what is not paid, and where the owner does not', () => {
    expect(quote({ state: 'trial' }, { rung: 2, offer: dear })).toMatchObject({
      quote: { credit: 0, due: 1500 },
    });
    expect(quote({ period: null }, { rung: 2, offer: dear })).toMatchObject({ quote: { credit: 0 } });
    expect(quote({}, { rung: 2, offer: dear }, { creditUnused: false })).toMatchObject({
      quote: { credit: 0 },
    });
  });

  it('down begins at the end of what is paid, or at once where the owner allows it', () => {
    const free = offer(0, 'month');
    expect(quote({}, { rung: 0, offer: free })).toMatchObject({
      quote: { direction: 'down', atOnce: false, startsAt: leaving.paidThrough, credit: 0 },
    });
    expect(quote({}, { rung: 0, offer: free }, { downAtOnce: true })).toMatchObject({
      quote: { atOnce: true, credit: 329, due: 0, leftOver: 329 },
    });
  });

  it.each([
    ['currency', {}, { rung: 2, offer: { ...dear, currency: 'EUR' } }, {}],
    ['overdue', { state: 'overdue' as const }, { rung: 2, offer: dear }, {}],
    ['wait', {}, { rung: 2, offer: dear }, { waitDays: 90 }],
    [
      'nothing-left',
      {},
      {
        rung: 2,
        offer: { ...dear, steps: [{ kind: 'once' as const, amount: 1, lasts: { until: '2026-01-01' } }] },
      },
      {},
    ],
  ] as const)('is refused: %s', (why, part, to, terms) => {
    expect(quote(part, to as { rung: number; offer: Offer }, terms)).toMatchObject({ ok: false, why });
  });

  it('waits only before the first switch, and never to go down', () => {
    expect(quote({ hasSwitched: true }, { rung: 2, offer: dear }, { waitDays: 90 })).toMatchObject({
      ok: true,
    });
    expect(quote({}, { rung: 0, offer: dear }, { waitDays: 90 })).toMatchObject({ ok: true });
  });
});
