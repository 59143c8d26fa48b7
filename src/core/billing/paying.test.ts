import { describe, expect, it } from 'vitest';
import { monthly } from '../../../tests/lib/offers';
import { matches, VISITOR, type PersonFacts } from '../access/facts';
import type { Instant } from '../instants';
import type { Offer } from '../offers/offer';
import { emptyBook, type BillingContext, type Book } from './book';
import type { Event } from './event';
import { step } from './step';

const JAN = '2027-01-01T10:00:00Z';
const trial: Offer = {
  ...monthly('observer', 600),
  steps: [{ kind: 'trial', amount: 0, lasts: { n: 14, unit: 'day' } }, ...monthly('observer', 600).steps],
};
const instalments: Offer = {
  ...monthly('maker', 4500),
  steps: [{ kind: 'repeat', amount: 4500, every: { n: 1, unit: 'month' }, times: 2 }],
  after: 'keep',
};
const free: Offer = { ...monthly('gazer', 0), steps: [{ kind: 'once', amount: 0, lasts: 'forever' }] };
const context: BillingContext = {
  zone: 'Europe/London',
  offers: { monthly: monthly('observer', 600), trial, instalments, free },
  ladders: {
    sky: {
      rungs: ['gazer', 'observer', 'maker'],
      creditUnused: true,
      waitDays: 0,
      downAtOnce: false,
    },
  },
  retryDays: [1, 3, 5],
  graceDays: 2,
  newId: (() => {
    let made = 0;
    return () => `id${(made += 1)}`;
  })(),
};

/** Whether a member counts as paying after these events. The card is declined from `declined` on. */
function pays(at: Instant, events: [Instant, Event][], declined: Instant = '2099-01-01T00:00:00Z'): boolean {
  let book: Book = emptyBook();
  const take = (when: Instant, event: Event): void => {
    const taken = step(book, event, context, when);
    if (!taken.ok) throw new Error(`${event.do}: ${taken.why}`);
    book = taken.book;
    for (const ask of taken.asks)
      if (ask.do === 'collect') take(when, { do: when < declined ? 'paid' : 'declined', charge: ask.charge });
  };
  for (const [when, event] of events) take(when, event);
  const held = book.holdings.filter(({ from, to }) => from <= at && (to === null || to > at));
  const person: PersonFacts = {
    ...VISITOR,
    signedIn: true,
    joinedAt: JAN,
    tiers: held.map(({ tier, from, isPaid }) => ({ tier, since: from, paid: isPaid })),
  };
  return matches({ kind: 'paying' }, person);
}

const join = (offer: string): [Instant, Event] => [
  JAN,
  { do: 'join', offer, method: { nature: 'card' }, track: 'sky', slot: '' },
];
const FEB = '2027-02-01T10:00:00Z';
const due = (at: Instant): [Instant, Event] => [at, { do: 'due' }];

describe('who counts as paying', () => {
  it('includes members in a trial of a paid offer, but not holders of a free tier', () => {
    expect(pays('2027-01-05T00:00:00Z', [join('trial')])).toBe(true);
    expect(pays('2027-01-05T00:00:00Z', [join('free')])).toBe(false);
    expect(pays('2027-01-05T00:00:00Z', [])).toBe(false);
  });

  it('excludes gifts, and includes imports marked as paid', () => {
    const given: Event = { do: 'give', kind: 'tier', tier: 'observer', to: null, isPaid: true };
    const imported: Event = { do: 'import', kind: 'tier', tier: 'observer', from: JAN, to: null };
    expect(pays(FEB, [[JAN, given]])).toBe(false);
    expect(pays(FEB, [[JAN, { ...imported, isPaid: true }]])).toBe(true);
    expect(pays(FEB, [[JAN, imported]])).toBe(false);
  });

  it('includes members who paid every instalment and keep the tier', () => {
    const all: [Instant, Event][] = [join('instalments'), due(FEB), due('2027-03-01T10:00:00Z')];
    expect(pays('2028-01-01T00:00:00Z', all)).toBe(true);
  });

  it('includes members in grace after a failed payment, until the grace ends', () => {
    const failed: [Instant, Event][] = [join('monthly'), due(FEB)];
    expect(pays('2027-02-03T09:00:00Z', failed, FEB)).toBe(true);
    expect(pays('2027-02-03T11:00:00Z', [...failed, due('2027-02-03T10:00:00Z')], FEB)).toBe(false);
  });

  it('excludes paused members once the paid period ends', () => {
    const paused: [Instant, Event][] = [join('monthly'), ['2027-01-10T10:00:00Z', { do: 'pause' }]];
    expect(pays('2027-01-20T10:00:00Z', paused)).toBe(true);
    expect(pays('2027-02-02T10:00:00Z', [...paused, due(FEB)])).toBe(false);
  });
});
