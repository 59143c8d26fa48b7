import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { life } from '../../../tests/lib/random-life';
import { addLength } from '../calendar';
import { isBefore, type Instant } from '../instants';
import { emptyBook, named, type Book, type Charge } from './book';
import { leftOf } from './credit';
import { playBook, type Life } from './play';
import { isAsked } from './work';

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
const holds = (check: (one: Life, all: { book: Book; at: Instant }[]) => void, runs = 400) =>
  fc.assert(
    fc.property(life, (one) => {
      check(one, books(one));
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
        // A first payment that was declined is asked for again by its payer only.
        const isGivenUp = (charge: Charge) =>
          !isAsked(charge) && named(book.subscriptions, charge.subscription).state === 'pending';
        const due = book.charges.filter((one) => one.state === 'open' && one.kind !== 'switch');
        expect(due.filter((one) => !isGivenUp(one)).length).toBeLessThanOrEqual(1);
        const running = book.subscriptions.filter(({ state }) => state !== 'ended' && state !== 'pending');
        expect(running.length).toBeLessThanOrEqual(1);
      }
    }));

  it('nothing is open after the end of what is paid and its grace', () =>
    holds((one, all) => {
      const { settings, zone } = one;
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
