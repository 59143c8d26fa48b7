import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { OFFERS, START, Years, years } from '../../../tests/lib/years';
import { isBefore, latest, type Instant } from '../instants';
import type { Book } from './book';
import { leftOf, refundable } from './credit';
import { RUNNING } from './states';
import type { Event } from './event';
import { isAsked } from './work';

const holds = (check: (book: Book, before: Book, event: Event, at: Instant) => void, runs = 500): void =>
  fc.assert(
    fc.property(years, (moves) => {
      // What waited for an answer is told as of the day it was due: another subscription may be further on.
      let now: Instant = START;
      const life = new Years((before, after, event, at) => {
        now = latest(now, at);
        check(after, before, event, now);
      });
      for (const one of moves) life.move(one);
    }),
    { numRuns: runs },
  );

const openOf = ({ holdings }: Book, id: string, at: Instant) =>
  holdings.filter(({ subscription, to }) => subscription === id && (to === null || isBefore(at, to)));

describe('in one book with two ladders and a tier that may be held several times', () => {
  it('one subscription runs at each place, and at most one charge of it is under way', () =>
    holds(({ subscriptions, charges }) => {
      const places = subscriptions
        .filter(({ state }) => RUNNING.has(state))
        .map(({ track, slot }) => `${track} ${slot}`);
      expect(new Set(places).size).toBe(places.length);
      const busy = charges.filter(isAsked).flatMap(({ subscription }) => {
        const s = subscriptions.find(({ id }) => id === subscription);
        return s ? [`${s.track} ${s.slot}`] : [];
      });
      expect(new Set(busy).size).toBe(busy.length);
    }));

  it('what happens on one ladder changes no subscription of another, but for the credit that they share', () =>
    holds((book, before, event) => {
      // A dispute suspends whatever has spent credit of the payment; who leaves for good leaves all of it.
      if (event.do.startsWith('dispute') || event.do === 'erase') return;
      const changed = book.subscriptions.filter((s) => {
        const was = before.subscriptions.find(({ id }) => id === s.id);
        return was && JSON.stringify(was) !== JSON.stringify(s);
      });
      expect(new Set(changed.map(({ track, slot }) => `${track} ${slot}`)).size).toBeLessThanOrEqual(1);
    }));

  it('credit and payments add up to the penny, and a charge number is given out once', () =>
    holds((book) => {
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
      for (const payment of book.payments) {
        expect(payment.refunded + payment.lost).toBeLessThanOrEqual(payment.amount);
        // A gateway refunds more than is left where staff ask for it there: what was given as credit may be spent.
        const there = book.refunds
          .filter((one) => one.payment === payment.id && one.reason === 'at the gateway')
          .reduce((sum, one) => sum + one.amount, 0);
        if (payment.dispute !== 'lost') expect(refundable(book, payment) + there).toBeGreaterThanOrEqual(0);
      }
      const numbers = book.charges.map(
        ({ subscription, purchase, number }) => `${subscription ?? purchase}:${number}`,
      );
      expect(new Set(numbers).size).toBe(numbers.length);
    }));

  it('a checkout is done exactly where what it began has begun, and reserves nothing once it has expired', () =>
    holds(({ checkouts, subscriptions, charges }) => {
      for (const one of checkouts) {
        const s = subscriptions.find(({ id }) => id === one.subscription);
        if (one.state === 'done') expect(s?.beganAt).not.toBeNull();
        if (one.state === 'expired')
          expect(
            charges.filter(({ subscription, state }) => state === 'open' && subscription === s?.id),
          ).toEqual([]);
      }
    }));

  it('nothing is held by what has ended, is paused or is disputed, but for what is kept for good or paid for since', () =>
    holds((book, before, _, at) => {
      for (const s of book.subscriptions) {
        const open = openOf(book, s.id, at);
        expect(open.length).toBeLessThanOrEqual(1);
        const isKept = s.paidThrough === null || OFFERS[s.offer]?.after === 'keep';
        if (s.state === 'paused' || (s.state === 'ended' && !isKept)) expect(open).toEqual([]);
        const wasDisputed = before.subscriptions.some(
          ({ id, disputes }) => id === s.id && disputes.length > 0,
        );
        const wasOpen = wasDisputed && openOf(before, s.id, at).length > 0;
        const isPaid = book.payments.length > before.payments.length;
        if (s.disputes.length > 0 && !wasOpen && !isPaid) expect(open).toEqual([]);
      }
    }));
});
