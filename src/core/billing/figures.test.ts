import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { life } from '../../../tests/lib/random-life';
import { latest, type Instant } from '../calendar';
import { emptyBook, type Book, type Charge, type Terms } from './book';
import { nextDue } from './due';
import { figuresOfNext } from './figures';
import { playBook, termsOf } from './play';
import { RUNNING } from './states';
import { step } from './step';

/** The next charge above zero where nothing else happens and every payment succeeds, and when; null where none comes. */
function charged(start: Book, from: Instant, terms: Terms): { one: Charge; at: Instant } | null {
  let book = start;
  for (let steps = 0; steps < 30; steps++) {
    const due = nextDue(book);
    if (!due) return null;
    const at = latest(due, from);
    const taken = step(book, { do: 'due' }, terms, at);
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
    let [compared, credited] = [0, 0];
    fc.assert(
      fc.property(crediting, (lived) => {
        let made = 0;
        const terms = { ...termsOf(lived), newId: () => `new ${(made += 1)}` };
        playBook(
          lived,
          (book, at) => {
            const s = book.subscriptions.find(({ state }) => RUNNING.has(state));
            const isUnderWay = book.charges.some(({ state }) => state === 'open');
            if (!s || isUnderWay) return;
            const shown = figuresOfNext(book, s, terms, at);
            const next = charged(book, at, terms);
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
            if (shown.credit > 0) credited += 1;
          },
          emptyBook(),
        );
      }),
      { numRuns: 300 },
    );
    console.log(compared, credited);
    expect(Math.min(compared / 300, credited)).toBeGreaterThan(1);
  });
});
