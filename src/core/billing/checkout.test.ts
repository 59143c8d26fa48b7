import { describe, expect, it } from 'vitest';
import { monthly } from '../../../tests/lib/offers';
import type { Offer } from '../offers/offer';
import { emptyBook, type Book, type Method, type BillingContext } from './book';
import { obstacle } from './checkout';
import type { Event } from './event';
import { figuresOfCheckout, looking } from './figures';
import { step } from './step';
import type { Instant } from '../instants';

const NOW = '2027-01-31T10:00:00Z';
const LATER = '2027-02-10T10:00:00Z';
const [card, wallet, transfer]: Method[] = [
  { nature: 'card' },
  { nature: 'wallet' },
  { nature: 'transfer', waitDays: 4 },
];
let made = 0;
const context: BillingContext = {
  zone: 'Europe/London',
  offers: {
    gazer: monthly('gazer', 0),
    observer: monthly('observer', 600),
    warden: monthly('warden', 1500),
  },
  ladders: {
    sky: { rungs: ['gazer', 'observer', 'warden'], creditUnused: true, waitDays: 0, downAtOnce: false },
  },
  retryDays: [1],
  graceDays: 2,
  newId: () => `${(made += 1)}`,
};
const HERE = { track: 'sky', slot: '' };

type Pressed = {
  offer?: string;
  method?: Method | null;
  id?: string;
  byQuote?: boolean;
  due?: number | null;
};
const press = ({
  offer = 'observer',
  method = card!,
  id = 'c',
  byQuote = false,
  due = null,
}: Pressed): Event => ({
  do: 'submit',
  ...HERE,
  checkout: id,
  offer,
  method,
  byQuote,
  due,
});
function after(book: Book, ...events: Event[]): Book {
  return events.reduce((before, event) => {
    const taken = step(before, event, context, NOW);
    if (!taken.ok) throw new Error(`${event.do}: ${taken.why}`);
    return taken.book;
  }, book);
}
const refusal = (book: Book, event: Event, at: Instant = NOW): string => {
  const taken = step(book, event, context, at);
  return taken.ok ? 'done' : taken.why;
};
const stateOf = ({ checkouts }: Book): string[] => checkouts.map(({ state }) => state);
const open = (book: Book): string => book.charges.findLast(({ state }) => state === 'open')?.id ?? '';
/** What the page is told, for a checkout of its own or one that is not begun yet. */
const inTheWay = (book: Book, offer: string, id: string | null = null) =>
  obstacle(looking(book, context, NOW, HERE), offer, id);

describe('a checkout', () => {
  it('charges a card, and is done once it is paid', () => {
    const charging = after(emptyBook(), press({}));
    expect(stateOf(charging)).toEqual(['charging']);
    const done = after(charging, { do: 'paid', charge: open(charging) });
    expect(stateOf(done)).toEqual(['done']);
    expect(refusal(done, press({}))).toBe('already');
    expect(inTheWay(done, 'observer')).toBe('held');
  });

  it('can be pressed again after it was declined: the same subscription, and a charge with a number of its own', () => {
    const charging = after(emptyBook(), press({}));
    const declined = after(charging, { do: 'declined', charge: open(charging), code: 'no-funds' });
    expect(stateOf(declined)).toEqual(['open']);
    const again = after(declined, press({ offer: 'warden' }));
    expect(again.charges.map(({ number, state, due }) => [number, state, due])).toEqual([
      [1, 'dropped', 600],
      [2, 'open', 1500],
    ]);
    expect(again.subscriptions.map(({ offer }) => offer)).toEqual(['warden']);
  });

  it('that begins something free is done at once', () => {
    expect(stateOf(after(emptyBook(), press({ offer: 'gazer', method: null })))).toEqual(['done']);
    expect(refusal(emptyBook(), press({ method: null }))).toBe('no-method');
  });

  it('waits at a wallet’s page, and comes back open where the payer said no', () => {
    const approving = after(emptyBook(), press({ method: wallet }));
    expect(stateOf(approving)).toEqual(['approving']);
    const refused = after(approving, { do: 'not-approved', checkout: 'c' });
    expect(stateOf(refused)).toEqual(['open']);
    expect(refusal(refused, { do: 'approved', checkout: 'c', bill: { ref: 'b' } })).toBe('nothing-pending');
    const paid = after(refused, press({ method: wallet }), {
      do: 'approved',
      checkout: 'c',
      bill: { ref: 'b' },
    });
    expect(stateOf(paid)).toEqual(['done']);
    expect(paid.payments.length).toBe(1);
  });

  it('awaits a transfer, for which another method can be chosen: the charge stays, the transfer is withdrawn', () => {
    const awaiting = after(emptyBook(), press({ method: transfer }));
    expect(stateOf(awaiting)).toEqual(['awaiting']);
    const charge = open(awaiting);
    const byCard = after(awaiting, press({ method: card }));
    expect(stateOf(byCard)).toEqual(['charging']);
    expect(byCard.charges.map(({ id, attempts }) => [id, attempts.map(({ state }) => state)])).toEqual([
      [charge, ['withdrawn', 'asked']],
    ]);
    // Refused, the transfer that was promised is awaited as before.
    expect(stateOf(after(byCard, { do: 'declined', charge, code: 'no-funds' }))).toEqual(['awaiting']);
  });

  it('gives way to another of the same place, and expires with what it would have begun', () => {
    const approving = after(emptyBook(), press({ method: wallet }));
    const other = after(approving, press({ offer: 'warden', id: 'd' }));
    expect(stateOf(other)).toEqual(['open', 'charging']);
    expect(other.subscriptions.map(({ state }) => state)).toEqual(['ended', 'pending']);
    const expired = after(approving, { do: 'expire', checkout: 'c' });
    expect(stateOf(expired)).toEqual(['expired']);
    expect(expired.charges.map(({ state }) => state)).toEqual(['dropped']);
    expect(refusal(expired, press({}))).toBe('expired');
    expect(refusal(other, { do: 'expire', checkout: 'd' })).toBe('under-way');
  });

  it('takes no other amount than the one that was shown', () => {
    expect(
      figuresOfCheckout(
        emptyBook(),
        { ...HERE, checkout: 'c', offer: 'observer', method: card!, byQuote: false },
        context,
        NOW,
      ),
    ).toMatchObject({ due: 600, credit: 0 });
    expect(refusal(emptyBook(), press({ due: 0 }))).toBe('another-price');
    expect(refusal(emptyBook(), press({ due: 600 }))).toBe('done');
  });
});

describe('an obstacle to a checkout', () => {
  const charging = after(emptyBook(), press({}));
  const held = after(charging, { do: 'paid', charge: open(charging) });

  it('is another that is under way at the same place, but not its own', () => {
    expect(inTheWay(charging, 'warden', 'another')).toBe('elsewhere');
    expect(inTheWay(charging, 'observer', 'c')).toBe('under-way');
    const awaiting = after(emptyBook(), press({ method: transfer }));
    expect(inTheWay(awaiting, 'observer', 'c')).toBeNull();
    expect(inTheWay(awaiting, 'observer', 'another')).toBe('elsewhere');
  });

  it('is a renewal after the end, which has no checkout of its own', () => {
    const night: Offer = {
      ...monthly('observer', 0),
      steps: [{ kind: 'once', amount: 500, lasts: { n: 1, unit: 'day' } }],
      renewal: { daysBefore: 1 },
    };
    const own = { ...context, offers: { ...context.offers, night } };
    const asked = step(emptyBook(), press({ offer: 'night' }), own, NOW);
    if (!asked.ok) throw new Error(asked.why);
    const { subscription } = asked.book.charges[0]!;
    const events: [Instant, Event][] = [
      [NOW, { do: 'paid', charge: open(asked.book) }],
      [LATER, { do: 'due', subscription: subscription! }],
      [LATER, { do: 'renew', subscription: subscription! }],
    ];
    const renewing = events.reduce((before, [at, event]) => {
      const taken = step(before, event, own, at);
      if (!taken.ok) throw new Error(`${event.do}: ${taken.why}`);
      return taken.book;
    }, asked.book);
    expect(renewing.subscriptions.map(({ state }) => state)).toEqual(['ended', 'pending']);
    expect(obstacle(looking(renewing, own, LATER, HERE), 'observer', null)).toBe('under-way');
    // Declined, it gives way to what is chosen next; its money, should it come late, is returned.
    const charge = open(renewing);
    const declined = step(renewing, { do: 'declined', charge, code: 'no-funds' }, own, LATER);
    const other = declined.ok && step(declined.book, press({ id: 'd' }), own, LATER);
    if (!other || !other.ok) throw new Error('refused');
    expect(other.book.subscriptions.map(({ state }) => state)).toEqual(['ended', 'ended', 'pending']);
    const done = step(other.book, { do: 'paid', charge: open(other.book) }, own, LATER);
    const late = done.ok && step(done.book, { do: 'late-success', charge }, own, LATER);
    if (!late || !late.ok) throw new Error('refused');
    expect(late.book.subscriptions.at(-1)?.state).toBe('active');
    expect(late.book.payments.map(({ isReturned }) => isReturned)).toEqual([false, false, true]);
  });

  it('is a subscription that runs already, a dispute, and an offer that is gone', () => {
    expect(inTheWay(emptyBook(), 'observer')).toBeNull();
    expect(inTheWay(held, 'observer')).toBe('held');
    expect(inTheWay(held, 'warden')).toBeNull();
    const disputed = after(held, { do: 'dispute', payment: held.payments[0]?.id });
    expect(inTheWay(disputed, 'warden')).toBe('disputed');
    expect(inTheWay(emptyBook(), 'gone')).toBe('no-offer');
  });

  it('is no quote for a switch, one that is void, or one where nothing runs', () => {
    expect(refusal(held, press({ offer: 'warden', id: 'd' }))).toBe('held');
    const id = held.subscriptions[0]?.id;
    const quoted = after(held, { do: 'quote', subscription: id, to: 'warden' });
    expect(refusal(quoted, press({ offer: 'warden', id: 'd', byQuote: true }))).toBe('done');
    expect(refusal(quoted, press({ offer: 'warden', id: 'd', byQuote: true }), LATER)).toBe('quote-void');
    const changed = after(quoted, {
      do: 'refund',
      payment: held.payments[0]?.id,
      amount: 100,
      access: 'keep',
    });
    const done = after(changed, { do: 'refunded', refund: changed.refunds[0]?.id ?? '' });
    expect(refusal(done, press({ offer: 'warden', id: 'd', byQuote: true }))).toBe('quote-void');
    expect(refusal(emptyBook(), press({ byQuote: true }))).toBe('quote-void');
  });

  it('is what a wallet approved for a switch, once anything has happened since', () => {
    const id = held.subscriptions[0]?.id ?? '';
    const approving = after(
      held,
      { do: 'quote', subscription: id, to: 'warden' },
      press({ offer: 'warden', id: 'd', byQuote: true, method: wallet }),
    );
    const bill = { ref: 'b' };
    expect(refusal(approving, { do: 'approved', checkout: 'd', bill })).toBe('done');
    const cancelled = after(approving, { do: 'cancel', subscription: id }, { do: 'undo', subscription: id });
    expect(refusal(cancelled, { do: 'approved', checkout: 'd', bill })).toBe('quote-void');
  });
});

it('while the payer is on the wallet’s page, what a transfer left unpaid is not paid in another way', () => {
  const awaited = after(emptyBook(), press({ method: transfer }));
  const declined = after(awaited, { do: 'declined', charge: open(awaited), code: 'not-paid' });
  const payNow: Event = { do: 'pay-now', subscription: declined.subscriptions[0]!.id };
  const approving = after(declined, payNow, press({ offer: 'warden', method: wallet }));
  expect(stateOf(approving)).toEqual(['approving']);
  expect(refusal(approving, payNow)).toBe('pending');
});

describe('a bill that a wallet made by itself', () => {
  const paid = after(emptyBook(), press({ method: wallet }), {
    do: 'approved',
    checkout: 'c',
    bill: { ref: 'first' },
  });
  const { id, dueAt } = paid.subscriptions[0]!;
  const billedAt = (book: Book, at: Instant) =>
    step(book, { do: 'billed', subscription: id, ref: at }, context, at);

  it.each([
    ['in the first half of what is paid', '2027-02-13T00:00:00Z', 'nothing-due'],
    ['in the second half', '2027-02-15T00:00:00Z', null],
    ['at its end', '2027-02-28T10:00:00Z', null],
  ] as const)('%s: %s', (_, at, why) => {
    const taken = billedAt(paid, at);
    expect(taken.ok ? null : taken.why).toBe(why);
    // Its calendar stays as it was.
    if (taken.ok)
      expect([dueAt, taken.book.subscriptions[0]?.dueAt]).toEqual([
        '2027-02-28T10:00:00Z',
        '2027-03-31T09:00:00Z',
      ]);
  });

  it('that fails opens nothing while a payment is disputed', () => {
    const at = '2027-02-20T00:00:00Z';
    const fails = (book: Book, ref: string) => {
      const taken = step(book, { do: 'billed', subscription: id, ref, code: 'no-funds' }, context, at);
      if (!taken.ok) throw new Error(taken.why);
      return taken.book;
    };
    const once = fails(paid, 'once');
    const disputed = step(once, { do: 'dispute', payment: once.payments[0]!.id }, context, at);
    const held = (book: Book) => book.holdings.at(-1)?.to;
    expect(disputed.ok && held(disputed.book)).toBe(at);
    expect(disputed.ok && held(fails(disputed.book, 'twice'))).toBe(at);
  });

  it('pays one period ahead, and no second one', () => {
    const taken = billedAt(paid, '2027-02-20T00:00:00Z');
    expect(taken.ok && billedAt(taken.book, '2027-02-21T00:00:00Z')).toMatchObject({ why: 'nothing-due' });
  });
});
