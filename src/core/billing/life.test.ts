import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { life } from '../../../tests/lib/random-life';
import { Years, years } from '../../../tests/lib/years';
import { addLength } from '../calendar';
import { emptyBook, type Book } from './book';
import { CHECKOUT_LIFE, edge, edgesTaken, LIFE, refuseUnknownEdges } from './life';
import { lifePage } from './life-page';
import { playBook, type Life } from './play';
import type { EventName } from './event';

const SEED = 20270131;
const seen = new Set<string>();
const note = (before: Book, after: Book, event: EventName): void => {
  for (const { line } of edgesTaken(before, after, event)) seen.add(line);
};

/** Lives of the kind that worked examples tell, and years with checkouts, wallets and transfers; the same ones each time. */
function liveMany(): void {
  fc.assert(
    fc.property(years, (moves) => {
      const one = new Years((before, after, event) => note(before, after, event.do));
      for (const move of moves) one.move(move);
    }),
    { numRuns: RUNS.years, seed: SEED },
  );
  fc.assert(
    fc.property(life, (one) => {
      played(one);
    }),
    { numRuns: RUNS.lives, seed: SEED },
  );
}
const RUNS = { years: 3_000, lives: 3_000 };

function played(one: Life): void {
  let before = emptyBook();
  const tell = (book: Book, _: string, event: { do: EventName }): void => {
    note(before, book, event.do);
    before = book;
  };
  playBook(one, tell, emptyBook());
}

const all = Object.entries({ subscription: LIFE, checkout: CHECKOUT_LIFE }).flatMap(([what, table]) =>
  Object.entries(table).flatMap(([from, ways]) =>
    Object.entries(ways as Record<string, EventName[]>).flatMap(([to, events]) =>
      events.map((event) => edge(what, from, to, event)),
    ),
  ),
);
/** One told life: for ways that are seldom gone. */
class Told extends Years {
  constructor() {
    super((before, after, event) => note(before, after, event.do));
  }

  private get last() {
    return this.book.subscriptions.at(-1)!;
  }

  private get runs() {
    return this.book.subscriptions.findLast(({ state }) => state !== 'ended' && state !== 'pending')!;
  }

  /** Presses the button of a checkout; by card where nothing else is said. */
  buys(offer: string, method = 0): this {
    this.press({ do: 'press', offer, slot: 0, method, again: false });
    return this;
  }

  /** Presses the button of the same checkout once more. */
  buysBy(offer: string, method: number): this {
    this.press({ do: 'press', offer, slot: 0, method, again: true });
    return this;
  }

  answers(isWell = true): this {
    this.move({ do: 'answer', well: isWell, which: 0 });
    return this;
  }

  approves(): this {
    this.move({ do: 'approve', well: true, which: 0 });
    return this;
  }

  does(what: 'cancel' | 'pause' | 'resume' | 'renew' | 'take-away'): this {
    this.take({ do: what, subscription: this.runs.id });
    return this;
  }

  days(days: number): this {
    this.move({ do: 'days', days });
    return this;
  }

  /** Time passes while nobody does what falls due. */
  sleeps(days: number): this {
    this.now = addLength(this.now, { n: days, unit: 'day' }, 'Europe/London');
    return this;
  }

  switches(to: string): this {
    this.take({ do: 'switch', subscription: this.runs.id, to });
    return this;
  }

  joins(offer: string, track: string): this {
    this.take({ do: 'join', offer, track, slot: '' });
    return this;
  }

  /** A dispute of the newest payment, or how it was decided. */
  hears(what: 'dispute' | 'dispute-won' | 'dispute-lost'): this {
    this.take({ do: what, payment: this.book.payments.at(-1)?.id });
    return this;
  }

  billed(isWell = true): this {
    this.take({ do: 'billed', subscription: this.last.id, ref: 'b', ...(!isWell && { code: 'no-funds' }) });
    return this;
  }

  succeedsLate(): this {
    this.move({ do: 'late', which: 0 });
    return this;
  }

  isRefunded(): this {
    this.take({ do: 'refund', payment: this.book.payments.at(-1)?.id, amount: 'all', access: 'take' });
    return this;
  }

  isErased(): this {
    this.take({ do: 'erase' });
    return this;
  }

  isOwed(amount: number): this {
    const owed = { id: 'gift', payment: null, charge: null, currency: 'GBP', given: amount };
    this.book = { ...this.book, credits: [{ ...owed, spent: 0, reserved: 0, void: 0 }] };
    return this;
  }
}
const told = (): Told => new Told();
/** Runs until what is paid has ended and nobody has paid on: overdue. */
const overdue = (offer: string, days: number) => told().buys(offer).answers().days(days).answers(false);

function tellSome(): void {
  const paused = (offer: string, days: number) => told().buys(offer).answers().does('pause').days(days);
  told().buys('warden').answers().switches('observer').does('pause').days(40).does('resume');
  told().buys('warden').answers().switches('gazer').does('pause').days(40).does('resume');
  paused('turner', 12).does('resume');
  paused('tester', 12).does('resume').answers();
  paused('polisher', 40).does('resume').answers();
  // A wallet bills what is resumed; and may bill a little ahead of our clock, while the period of before still runs.
  told().buys('polisher', 1).approves().does('pause').days(40).does('resume').billed();
  told().buys('tester', 1).approves().does('pause').days(12).does('resume').billed();
  told().buys('polisher', 1).approves().days(27).billed(false).isRefunded();
  told().buys('grinder', 1).approves().days(1).does('cancel').days(14).does('renew').billed();
  paused('polisher', 40).does('take-away');
  paused('polisher', 40).isErased();
  paused('polisher', 40).buys('taster');
  paused('polisher', 40).buys('grinder', 1).approves();
  told().buys('warden').answers().switches('observer').hears('dispute').days(40).hears('dispute-won');
  told().buys('warden').answers().does('pause').hears('dispute').days(40).hears('dispute-won');
  told().buys('turner').answers().hears('dispute').days(12).hears('dispute-won');
  told().buys('sampler').answers(false).succeedsLate();
  told().buys('turner', 2).buysBy('turner', 0).answers(false).buysBy('turner', 1).succeedsLate();
  told().buys('sampler').answers().hears('dispute').hears('dispute-lost');
  told().buys('sampler').answers().does('pause').hears('dispute').days(9).hears('dispute-won');
  told().buys('sampler').answers().switches('polisher').hears('dispute').days(9).hears('dispute-won');
  told().buys('treat').answers().hears('dispute').days(9).hears('dispute-won');
  told().buys('tester', 1).approves().days(9).billed(false).billed();
  overdue('polisher', 32).does('take-away');
  overdue('polisher', 32).isErased();
  overdue('polisher', 32).buys('grinder').answers();
  told().buys('tester', 1).approves().days(9).billed(false).days(1).billed(false).days(2).billed(false);
  overdue('warden', 32).joins('patron', 'sky');
  overdue('warden', 32).buys('patron');
  overdue('polisher', 32).buys('grinder', 1).approves();
  const cancelled = () => told().buys('hide').answers().does('cancel').days(6);
  cancelled().does('renew').answers();
  cancelled().isOwed(5000).does('renew');
  told().buys('warden').answers().does('cancel').hears('dispute').hears('dispute-lost');
  told().buys('warden').answers().does('cancel').hears('dispute').sleeps(40).hears('dispute-won');
  told().buys('warden').answers().does('cancel').switches('patron');
  told().buys('warden').answers().does('cancel').buys('patron');
  told().buys('polisher').answers().does('cancel').buys('grinder', 1).approves();
}
liveMany();
tellSome();

describe('the tables of states', () => {
  it.each(all)('%s', (line) => {
    expect([...seen]).toContain(line);
  });

  it('are all there is: a step that takes another way is not stored', () => {
    const book = emptyBook();
    const done = {
      id: 'c',
      track: 'sky',
      slot: '',
      subscription: null,
      at: '2027-01-01T00:00:00Z' as const,
      replacedEvents: null,
    };
    const [was, is] = (['done', 'open'] as const).map((state) => ({
      ...book,
      checkouts: [{ ...done, state }],
    }));
    expect(() => refuseUnknownEdges(was!, is!, 'submit')).toThrow('checkout: done → open by submit');
  });

  it('are in the docs as they are here', () => {
    expect(readFileSync('docs/subscription-life.md', 'utf8')).toBe(lifePage());
  });
});
