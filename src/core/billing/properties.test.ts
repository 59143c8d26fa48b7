import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addLength, fromMs, isBefore, toMs, type Instant } from '../calendar';
import type { Offer } from '../offers/offer';
import { emptyBook, type Book, type Terms } from './book';
import { leftOf } from './credit';
import { playBook, type Life } from './play';

const START = '2027-01-31T10:00:00Z';
const HOURS = 24 * 60;
const LADDER = ['observer', 'warden', 'keeper'];

const length = fc.constantFrom(
  { n: 1, unit: 'week' as const },
  { n: 10, unit: 'day' as const },
  { n: 1, unit: 'month' as const },
);
const amount = fc.constantFrom(0, 333, 600, 1500);
const step = fc.oneof(
  fc.record({
    kind: fc.constant('repeat' as const),
    amount,
    every: length,
    times: fc.constantFrom(null, 2, 3),
  }),
  fc.record({
    kind: fc.constant('once' as const),
    amount,
    lasts: fc.oneof(length, fc.constant('forever' as const)),
  }),
);
const offer: fc.Arbitrary<Offer> = fc
  .record({
    tier: fc.constantFrom(...LADDER),
    trial: fc.option(fc.constantFrom(0, 100), { nil: null }),
    step,
    after: fc.constantFrom('end' as const, 'keep' as const),
    fee: fc.boolean(),
  })
  .map(({ tier, trial, step: one, after, fee }) => ({
    tier,
    currency: 'GBP',
    steps: [
      ...(trial === null
        ? []
        : [{ kind: 'trial' as const, amount: trial, lasts: { n: 7, unit: 'day' as const } }]),
      one,
    ],
    after,
    ...(fee && { joiningFee: { amount: 1000, due: 'first-payment' as const } }),
    ...(one.kind === 'once' && one.lasts !== 'forever' && after === 'end' && { renewal: { daysBefore: 5 } }),
  }));

const at = fc
  .integer({ min: 1, max: HOURS * 60 })
  .map((minutes) => fromMs(toMs(START) + minutes * 60_000 + 30_000));
const to = fc.constantFrom('a', 'b', 'c');
const payment = fc.integer({ min: 0, max: 5 });
const event = fc.oneof(
  fc.constantFrom(
    ...[
      'cancel',
      'cancel-now',
      'undo',
      'pause',
      'resume',
      'renew',
      'pay-now',
      'late-success',
      'take-back',
      'expire',
    ].map((name) => ({ do: name })),
  ),
  fc.record({ do: fc.constantFrom('switch', 'quote'), to }),
  to.map((id) => ({ do: 'join', offer: id })),
  fc.record({ do: fc.constantFrom('dispute', 'dispute-won', 'dispute-lost'), payment }),
  fc.record({
    do: fc.constant('refund'),
    payment,
    amount: fc.constantFrom('all' as const, 100),
    access: fc.constantFrom('take', 'keep'),
  }),
);
const how = fc.oneof(
  fc.constantFrom('ok' as const, 'declined' as const),
  fc.record({ slow: fc.constantFrom(5, 60, 200), then: fc.constantFrom('ok' as const, 'declined' as const) }),
);

/** A life in which much goes wrong: for properties that hold whatever happens. */
const life: fc.Arbitrary<Life> = fc
  .record({
    zone: fc.constantFrom('Europe/London', 'UTC', 'Asia/Kathmandu'),
    offers: fc.record({ a: offer, b: offer, c: offer }),
    settings: fc.record({
      retryDays: fc.constantFrom<number[]>([1, 3, 5, 7], [1], [5, 9]),
      graceDays: fc.constantFrom(0, 1, 5),
      creditUnused: fc.boolean(),
      waitDays: fc.constantFrom(0, 20),
      downAtOnce: fc.boolean(),
    }),
    card: fc.array(fc.tuple(at, how), { maxLength: 4 }),
    events: fc.array(fc.tuple(at, event), { maxLength: 14 }),
  })
  .map(({ card, events, ...rest }) => ({
    ...rest,
    start: START,
    horizon: addLength(START, { n: HOURS, unit: 'hour' }, 'UTC'),
    offer: 'a',
    ladder: LADDER,
    card: card.sort(([a], [b]) => toMs(a) - toMs(b)),
    events: events.sort(([a], [b]) => toMs(a) - toMs(b)).map(([when, what]) => ({ at: when, ...what })),
  }));

/** Every book that a life goes through. */
function books(one: Life): { book: Book; at: Instant }[] {
  const all: { book: Book; at: Instant }[] = [];
  playBook(
    one,
    (book, when) => {
      // What a step was given must stay as it was: written in, it would throw.
      for (const list of Object.values(book)) if (Array.isArray(list)) Object.freeze(list.map(Object.freeze));
      all.push({ book, at: when });
    },
    emptyBook(),
  );
  return all;
}
const holds = (check: (one: Life, all: { book: Book; at: Instant }[], terms: Terms) => void, runs = 400) =>
  fc.assert(
    fc.property(life, (one) => {
      check(one, books(one), {
        zone: one.zone,
        offers: one.offers,
        ladder: one.ladder,
        settings: one.settings,
      });
    }),
    { numRuns: runs },
  );

describe('whatever happens in a life', () => {
  it('no period of an offer is skipped, and none is paid for twice', () =>
    holds((one, all) => {
      const { book } = all.at(-1)!;
      for (const { id } of book.subscriptions) {
        const lived = book.stretches.filter(
          ({ subscription, charge }) =>
            subscription === id && book.charges.find((each) => each.id === charge)?.kind !== 'renewal',
        );
        lived.forEach(({ period }, index) => {
          const before = lived[index - 1]?.period;
          if (!before) return expect(period.n).toBe(0);
          const isNext =
            (period.step === before.step && period.n === before.n + 1) ||
            (period.step === before.step + 1 && period.n === 0);
          expect(isNext, `${before.step}.${before.n} then ${period.step}.${period.n}`).toBe(true);
        });
        const charges = lived.map(({ charge }) => charge);
        expect(new Set(charges).size).toBe(charges.length);
      }
    }));

  it('credit that was given is spent, void, reserved or left, to the penny', () =>
    holds((_, all) => {
      for (const { book } of all) {
        for (const one of book.credits) {
          const spent = book.uses
            .filter(({ credit }) => credit === one.id)
            .reduce((sum, use) => sum + use.amount, 0);
          const reserved = book.charges
            .flatMap(({ state, credit }) => (state === 'open' ? credit : []))
            .filter(({ credit }) => credit === one.id)
            .reduce((sum, each) => sum + each.amount, 0);
          expect([one.spent, one.reserved]).toEqual([spent, reserved]);
          expect(Math.min(leftOf(one), one.spent, one.reserved, one.void)).toBeGreaterThanOrEqual(0);
        }
      }
    }));

  it('a payment never gives more than it took: refunds, credit and what a dispute lost', () =>
    holds((_, all) => {
      const { book } = all.at(-1)!;
      for (const one of book.payments) {
        const given = book.credits
          .filter((credit) => credit.payment === one.id)
          .reduce((sum, credit) => sum + credit.given - credit.void, 0);
        expect(one.refunded).toBeGreaterThanOrEqual(0);
        if (one.dispute !== 'lost') expect(one.refunded + given).toBeLessThanOrEqual(one.amount);
        expect(one.refunded + one.lost).toBeLessThanOrEqual(one.amount);
      }
    }));

  it('never is more than one charge open, nor more than one subscription running', () =>
    holds((_, all) => {
      for (const { book } of all) {
        expect(
          book.charges.filter(({ state, kind }) => state === 'open' && kind !== 'switch').length,
        ).toBeLessThanOrEqual(1);
        const running = book.subscriptions.filter(({ state }) => state !== 'ended' && state !== 'pending');
        expect(running.length).toBeLessThanOrEqual(1);
      }
    }));

  it('nothing is open after the end of what is paid and its grace', () =>
    holds((one, all, { settings, zone }) => {
      const { book } = all.at(-1)!;
      for (const s of book.subscriptions) {
        const last = book.holdings.findLast(({ subscription }) => subscription === s.id);
        const isOpen = last && (last.to === null || isBefore(one.horizon, last.to));
        const isUnderWay = book.charges.some(
          ({ attempts, state }) => state === 'open' && attempts.at(-1)?.state === 'asked',
        );
        if (!isOpen || isUnderWay || s.paidThrough === null) continue;
        if (one.offers[s.offer]?.after === 'keep' && s.state === 'ended') continue;
        const grace =
          s.firstFailedAt && addLength(s.firstFailedAt, { n: settings.graceDays, unit: 'day' }, zone);
        const end = grace && isBefore(s.paidThrough, grace) ? grace : s.paidThrough;
        expect(isBefore(end, one.horizon), `${s.state} through ${end}`).toBe(false);
      }
    }));
});
