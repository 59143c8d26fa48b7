import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { monthly } from '../../../tests/lib/offers';
import { life } from '../../../tests/lib/random-life';
import { latest, type Instant } from '../instants';
import { emptyBook, type Book, type Charge, type BillingContext } from './book';
import { nextDue } from './due';
import type { Event } from './event';
import { figuresOfNext, figuresOfSwitch } from './figures';
import { playBook, contextOf } from './play';
import { RUNNING } from './states';
import { step } from './step';

/** The next charge above zero where nothing else happens and every payment succeeds, and when; null where none comes. */
function charged(start: Book, from: Instant, context: BillingContext): { one: Charge; at: Instant } | null {
  let book = start;
  for (let steps = 0; steps < 30; steps++) {
    const due = nextDue(book);
    if (!due) return null;
    const at = latest(due, from);
    const taken = step(book, { do: 'due' }, context, at);
    if (!taken.ok) throw new Error(taken.why);
    const one = taken.book.charges.find(
      ({ id, amount }) =>
        amount > 0 && !book.charges.some((known) => known.id === id && known.state !== 'open'),
    );
    if (one) return { one, at };
    book = taken.book;
  }
  return null;
}

/** Ladders that credit, both ways: the next charge is often paid by it. */
const crediting = life.map((one) => ({
  ...one,
  settings: { ...one.settings, creditUnused: true, downAtOnce: true, waitDays: 0 },
}));

describe('the next charge that is shown', () => {
  it('is the one that is made: its day, its amount, and what of it money is asked for', () => {
    let compared = 0;
    fc.assert(
      fc.property(crediting, (lived) => {
        let made = 0;
        const context = { ...contextOf(lived), newId: () => `new ${(made += 1)}` };
        playBook(
          lived,
          (book, at) => {
            const s = book.subscriptions.find(({ state }) => RUNNING.has(state));
            const isUnderWay = book.charges.some(({ state }) => state === 'open');
            if (!s || isUnderWay) return;
            const shown = figuresOfNext(book, s, context, at);
            const next = charged(book, at, context);
            if (!shown) return expect(next?.one.kind ?? 'none', JSON.stringify(next)).toBe('none');
            expect(shown).toEqual(
              next && {
                at: next.at,
                amount: next.one.amount,
                credit: next.one.amount - next.one.due,
                due: next.one.due,
              },
            );
            compared += 1;
          },
          emptyBook(),
        );
      }),
      { numRuns: 300 },
    );
    expect(compared).toBeGreaterThan(200);
  });
});

describe('credit in what is shown', () => {
  let made = 0;
  const ladder = { creditUnused: true, waitDays: 0 };
  const context: BillingContext = {
    zone: 'Europe/London',
    offers: {
      observer: monthly('observer', 600),
      warden: monthly('warden', 1500),
      polisher: {
        ...monthly('polisher', 700),
        steps: [
          { kind: 'trial', amount: 0, lasts: { n: 7, unit: 'day' } },
          ...monthly('polisher', 700).steps,
        ],
      },
      grinder: monthly('grinder', 900),
    },
    ladders: {
      sky: { ...ladder, rungs: ['observer', 'warden'], downAtOnce: true },
      mirrors: { ...ladder, rungs: ['polisher', 'grinder'], downAtOnce: false },
    },
    retryDays: [1],
    graceDays: 2,
    newId: () => `${(made += 1)}`,
  };
  const method = { nature: 'card' } as const;
  /** Takes events; every charge is paid at once. */
  const taken = (book: Book, at: Instant, event: Event): Book => {
    const done = step(book, event, context, at);
    if (!done.ok) throw new Error(`${event.do}: ${done.why}`);
    const [ask] = done.asks;
    return ask?.do === 'collect' ? taken(done.book, at, { do: 'paid', charge: ask.charge }) : done.book;
  };
  const [JOINED, SWITCHED] = ['2027-01-01T10:00:00Z', '2027-01-17T10:00:00Z'] as const;
  const joined = (book: Book, offer: string, track: string, at: Instant): Book =>
    taken(book, at, { do: 'join', offer, method, track, slot: '' });
  const runsOn = (book: Book, track: string) =>
    book.subscriptions.find((one) => one.track === track && one.state !== 'ended')!;
  /** 15 of 31 days of £15 are £7.26; £6 of it paid the month that began with the switch down. */
  const before = joined(emptyBook(), 'warden', 'sky', JOINED);
  const withCredit = taken(before, SWITCHED, {
    do: 'switch',
    subscription: runsOn(before, 'sky').id,
    to: 'observer',
    method,
  });

  it('is taken off the next charge', () => {
    const next = figuresOfNext(withCredit, runsOn(withCredit, 'sky'), context, SWITCHED);
    expect(next).toEqual({ at: '2027-02-17T10:00:00Z', amount: 600, credit: 126, due: 474 });
  });

  it('is taken off the first charge after a trial', () => {
    const book = joined(withCredit, 'polisher', 'mirrors', SWITCHED);
    const next = figuresOfNext(book, runsOn(book, 'mirrors'), context, SWITCHED);
    expect(next).toEqual({ at: '2027-01-24T10:00:00Z', amount: 700, credit: 126, due: 574 });
  });

  it('is told with a switch that waits for the end of what is paid', () => {
    // Joined before there was credit.
    const two = joined(before, 'grinder', 'mirrors', JOINED);
    const book = taken(two, SWITCHED, {
      do: 'switch',
      subscription: runsOn(two, 'sky').id,
      to: 'observer',
      method,
    });
    const s = runsOn(book, 'mirrors');
    const quoted = taken(book, SWITCHED, { do: 'quote', subscription: s.id, to: 'polisher' });
    expect(figuresOfSwitch(quoted, s, quoted.quote!, context, SWITCHED)).toMatchObject({
      atOnce: false,
      startsAt: '2027-02-01T10:00:00Z',
      amount: 700,
      credit: 126,
      due: 574,
    });
  });
});
