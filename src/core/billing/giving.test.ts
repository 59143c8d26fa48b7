import { describe, expect, it } from 'vitest';
import { monthly, PASS } from '../../../tests/lib/offers';
import { intervals } from './access';
import { emptyBook, type Book, type Method, type BillingContext } from './book';
import type { Event } from './event';
import { step } from './step';
import type { Instant } from '../instants';

const [JAN, FEB, MARCH, APRIL] = [
  '2027-01-01T10:00:00Z',
  '2027-02-01T10:00:00Z',
  '2027-03-01T10:00:00Z',
  '2027-04-01T09:00:00Z',
] as const;
const card: Method = { nature: 'card' };
const contextOf = (name: string): BillingContext => {
  let made = 0;
  return {
    zone: 'Europe/London',
    offers: { observer: monthly('observer', 600), warden: monthly('warden', 1500) },
    ladders: {
      sky: { rungs: ['observer', 'warden'], creditUnused: true, waitDays: 0, downAtOnce: true },
      mirrors: { rungs: ['polisher'], creditUnused: true, waitDays: 0, downAtOnce: false },
    },
    retryDays: [1],
    graceDays: 2,
    newId: () => `${name}${(made += 1)}`,
  };
};

/** One book, event by event; gateways say yes to everything. */
class Life {
  book: Book = emptyBook();
  readonly context: BillingContext;
  constructor(name = '') {
    this.context = contextOf(name);
  }

  take(at: Instant, event: Event): string {
    const taken = step(this.book, event, this.context, at);
    if (!taken.ok) return taken.why;
    this.book = taken.book;
    for (const ask of taken.asks)
      this.take(
        at,
        ask.do === 'collect' ? { do: 'paid', charge: ask.charge } : { do: 'refunded', refund: ask.refund },
      );
    return 'done';
  }

  join(at: Instant, offer = 'observer'): string {
    return this.take(at, { do: 'join', offer, method: card, track: 'sky', slot: '' });
  }

  held(at = APRIL): string[] {
    return intervals(this.book, at).map(
      ({ tier, from, to, since }) =>
        `${tier} ${from.slice(5, 10)}–${to?.slice(5, 10) ?? ''}${since ? ` since ${since.slice(5, 10)}` : ''}`,
    );
  }
}

describe('what is given', () => {
  it('opens a tier until its day, and can be extended, made endless or taken', () => {
    const life = new Life();
    expect(life.take(JAN, { do: 'give', kind: 'tier', tier: 'warden', to: MARCH })).toBe('done');
    expect(life.held()).toEqual(['warden 01-01–03-01']);
    const holding = life.book.holdings[0]?.id ?? '';
    expect(life.take(FEB, { do: 'extend', holding, to: null })).toBe('done');
    expect(life.held()).toEqual(['warden 01-01–']);
    // What is to end before now ends now: the past is not rewritten.
    expect(life.take(MARCH, { do: 'extend', holding, to: FEB })).toBe('done');
    expect(life.held()).toEqual(['warden 01-01–03-01']);
    expect(life.take(MARCH, { do: 'take', holding })).toBe('ended');
    expect(life.take(MARCH, { do: 'take', holding: 'another' })).toBe('nothing-to-take-back');
    expect(life.take(MARCH, { do: 'give', kind: 'tier', tier: 'warden', to: FEB })).toBe('nothing-left');
  });

  it('never counts as paid; an import may, says when it began, and a later joining continues it', () => {
    const life = new Life();
    life.take(FEB, { do: 'give', kind: 'tier', tier: 'warden', to: null, isPaid: true });
    life.take(FEB, { do: 'import', kind: 'tier', tier: 'observer', from: JAN, to: MARCH, isPaid: true });
    expect(life.book.holdings.map(({ isPaid, from }) => [isPaid, from])).toEqual([
      [false, FEB],
      [true, JAN],
    ]);
    // The gap between the import and the joining is shorter than the grace, so the wait for older posts does not begin anew.
    life.join('2027-03-02T10:00:00Z');
    expect(life.held()).toContain('observer 03-02– since 01-01');
  });

  it('is not what a subscription holds: that ends by its payments', () => {
    const life = new Life();
    life.join(JAN);
    const holding = life.book.holdings[0]?.id ?? '';
    expect(life.take(JAN, { do: 'take', holding })).toBe('nothing-to-take-back');
    expect(life.take(JAN, { do: 'extend', holding, to: null })).toBe('nothing-to-take-back');
  });
});

describe('what is bought once', () => {
  it('opens for as long as it lasts; its refund closes it', () => {
    const life = new Life();
    expect(life.take(JAN, PASS)).toBe('done');
    expect(life.book.payments.map(({ amount }) => amount)).toEqual([400]);
    expect(life.held()).toEqual(['comet 01-01–01-04']);
    const payment = life.book.payments[0]?.id;
    life.take('2027-01-02T10:00:00Z', { do: 'refund', payment, amount: 'all', access: 'take' });
    expect(life.held()).toEqual(['comet 01-01–01-02']);
    expect(life.book.purchases[0]?.state).toBe('ended');
  });

  it('is closed by a dispute that is lost, and stays where access is kept', () => {
    const life = new Life();
    life.take(JAN, PASS);
    const payment = life.book.payments[0]?.id;
    life.take('2027-01-02T10:00:00Z', { do: 'refund', payment, amount: 100, access: 'keep' });
    expect(life.held()).toEqual(['comet 01-01–01-04']);
    life.take('2027-01-02T10:00:00Z', { do: 'dispute', payment });
    life.take('2027-01-03T10:00:00Z', { do: 'dispute-lost', payment });
    expect(life.held()).toEqual(['comet 01-01–01-03']);
    expect(life.book.payments[0]).toMatchObject({ refunded: 100, lost: 300 });
  });

  it('has a refund made at the gateway in its book at once, also in a dispute, while staff cannot refund', () => {
    const life = new Life();
    life.take(JAN, PASS);
    const payment = life.book.payments[0]?.id ?? '';
    life.take(JAN, { do: 'dispute', payment });
    expect(life.take(JAN, { do: 'refund', payment, amount: 100, access: 'keep' })).toBe('disputed');
    expect(life.take(JAN, { do: 'refunded-there', payment, amount: 150, ref: 'r' })).toBe('done');
    expect(life.book.payments[0]).toMatchObject({ refunded: 150, lost: 0 });
    life.take(JAN, { do: 'dispute-lost', payment });
    expect(life.book.payments[0]).toMatchObject({ refunded: 150, lost: 250 });
  });

  it('needs a payment method, and opens nothing for its buyer where it is a gift card', () => {
    const life = new Life();
    expect(life.take(JAN, { ...PASS, method: null })).toBe('no-method');
    expect(life.take(JAN, { ...PASS, kind: 'gift-card', item: 'observer' })).toBe('done');
    expect(life.held()).toEqual([]);
    expect(life.book.purchases[0]).toMatchObject({ kind: 'gift-card', state: 'paid' });
  });

  it('is paid by credit before money', () => {
    const life = new Life();
    life.join(JAN, 'warden');
    // A switch down at once leaves credit: 15 of 31 days of £15 are £7.26 and pay £6 of the month that begins.
    const at = '2027-01-17T10:00:00Z';
    const subscription = life.book.subscriptions[0]?.id;
    expect(life.take(at, { do: 'switch', subscription, to: 'observer', method: card })).toBe('done');
    expect(life.take(at, PASS)).toBe('done');
    const one = life.book.charges.at(-1);
    expect([one?.amount, one?.due]).toEqual([400, 400 - 126]);
    expect(life.book.credits.map(({ given, spent }) => [given, spent])).toEqual([[726, 726]]);
  });
});

describe('two books of one person', () => {
  it('become one: money, access and what matters of the past', () => {
    const [ours, theirs] = [new Life('a'), new Life('b')];
    ours.take(FEB, { do: 'give', kind: 'tier', tier: 'polisher', to: null });
    theirs.join(JAN);
    expect(ours.take(FEB, { do: 'merge', book: theirs.book })).toBe('done');
    expect(ours.held()).toEqual(['observer 01-01–', 'polisher 02-01–']);
    expect(ours.book.payments).toEqual(theirs.book.payments);
    expect(ours.book.summaries).toEqual([
      { track: 'sky', hadTrial: false, joinedAt: JAN, hasSwitchedUp: false },
    ]);
    expect(ours.join(FEB)).not.toBe('done');
  });

  it('stay two where both run on one ladder', () => {
    const [ours, theirs] = [new Life('a'), new Life('b')];
    ours.join(JAN);
    theirs.join(FEB, 'warden');
    expect(ours.take(MARCH, { do: 'merge', book: theirs.book })).toBe('merge');
    theirs.take(MARCH, { do: 'cancel-now' });
    expect(ours.take(MARCH, { do: 'merge', book: theirs.book })).toBe('done');
    // The first joining is the earlier of the two.
    expect(ours.book.summaries[0]?.joinedAt).toBe(JAN);
  });
});

describe('who leaves for good', () => {
  it('loses everything at once, also what was given; the money’s history stays', () => {
    const life = new Life();
    life.join(JAN);
    life.take(JAN, { do: 'give', kind: 'tier', tier: 'polisher', to: null });
    expect(life.take(FEB, { do: 'erase' })).toBe('done');
    expect(life.held()).toEqual(['observer 01-01–02-01', 'polisher 01-01–02-01']);
    expect(life.book.subscriptions.map(({ state, dueAt }) => [state, dueAt])).toEqual([['ended', null]]);
    expect(life.book.payments.map(({ amount }) => amount)).toEqual([600]);
  });

  it('waits for a payment that is under way', () => {
    const life = new Life();
    const taken = step(
      life.book,
      { do: 'join', offer: 'observer', method: card, track: 'sky', slot: '' },
      life.context,
      JAN,
    );
    if (!taken.ok) throw new Error(taken.why);
    expect(step(taken.book, { do: 'erase' }, life.context, JAN)).toEqual({ ok: false, why: 'under-way' });
  });
});
