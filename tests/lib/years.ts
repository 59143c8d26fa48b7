import fc from 'fast-check';
import { addLength } from '../../src/core/calendar';
import { isBefore, toMs, type Instant } from '../../src/core/instants';
import type { Offer } from '../../src/core/offers/offer';
import {
  emptyBook,
  type Book,
  type LadderRules,
  type Method,
  type BillingContext,
} from '../../src/core/billing/book';
import { nextDueOf } from '../../src/core/billing/due';
import { RUNNING } from '../../src/core/billing/states';
import type { Event } from '../../src/core/billing/event';
import { step } from '../../src/core/billing/step';
import { askedOf, isAsked, isOn } from '../../src/core/billing/work';
import { PASS } from './offers';

/** One person with two ladders, and a tier off any that may be held several times: everything in one book. */
export const START = '2027-01-31T10:00:00Z';
const ZONE = 'Europe/London';
const every = (tier: string, amount: number, more: Partial<Offer> = {}): Offer => ({
  tier,
  currency: 'GBP',
  steps: [{ kind: 'repeat', amount, every: { n: 1, unit: 'month' }, times: null }],
  after: 'end',
  ...more,
});
const once = (tier: string, amount: number, days: number | null): Offer => ({
  tier,
  currency: 'GBP',
  steps: [{ kind: 'once', amount, lasts: days === null ? 'forever' : { n: days, unit: 'day' } }],
  after: 'end',
  ...(days !== null && { renewal: { daysBefore: 5 } }),
});
const trial = (offer: Offer): Offer => ({
  ...offer,
  steps: [{ kind: 'trial', amount: 0, lasts: { n: 7, unit: 'day' } }, ...offer.steps],
});
const instalments = (tier: string): Offer => ({
  ...every(tier, 1500, { after: 'keep' }),
  steps: [{ kind: 'repeat', amount: 1500, every: { n: 1, unit: 'week' }, times: 2 }],
});
export const OFFERS: Record<string, Offer> = {
  gazer: once('gazer', 0, null),
  observer: trial(every('observer', 600)),
  warden: every('warden', 1500, { joiningFee: { amount: 1000, due: 'first-payment' } }),
  'warden-2': every('warden', 1800),
  keeper: instalments('keeper'),
  polisher: every('polisher', 700),
  grinder: once('grinder', 2000, 20),
  hide: once('hide', 500, 10),
  // A trial need not come first, nor be free.
  tester: {
    ...every('polisher', 0),
    steps: [
      { kind: 'once', amount: 300, lasts: { n: 10, unit: 'day' } },
      { kind: 'trial', amount: 100, lasts: { n: 7, unit: 'day' } },
      { kind: 'repeat', amount: 400, every: { n: 1, unit: 'week' }, times: null },
    ],
  },
  taster: {
    ...every('grinder', 0),
    steps: [
      { kind: 'once', amount: 0, lasts: { n: 5, unit: 'day' } },
      { kind: 'trial', amount: 0, lasts: { n: 5, unit: 'day' } },
      { kind: 'repeat', amount: 0, every: { n: 1, unit: 'week' }, times: null },
    ],
  },
  patron: every('patron', 0),
  sampler: {
    ...every('grinder', 0),
    steps: [
      { kind: 'trial', amount: 100, lasts: { n: 7, unit: 'day' } },
      { kind: 'repeat', amount: 500, every: { n: 1, unit: 'week' }, times: null },
    ],
  },
  treat: {
    ...every('grinder', 0),
    steps: [
      { kind: 'trial', amount: 100, lasts: { n: 7, unit: 'day' } },
      { kind: 'repeat', amount: 0, every: { n: 1, unit: 'week' }, times: null },
    ],
  },
  turner: {
    ...every('grinder', 0),
    steps: [
      { kind: 'once', amount: 300, lasts: { n: 10, unit: 'day' } },
      { kind: 'trial', amount: 0, lasts: { n: 7, unit: 'day' } },
      { kind: 'repeat', amount: 400, every: { n: 1, unit: 'week' }, times: null },
    ],
  },
};
const ladder = (rungs: string[]): LadderRules => ({
  rungs,
  creditUnused: true,
  waitDays: 0,
  downAtOnce: false,
});
const LADDERS = {
  sky: ladder(['gazer', 'observer', 'warden', 'keeper', 'patron']),
  mirrors: ladder(['polisher', 'grinder']),
  hide: ladder(['hide']),
};
const TRACK_OF: Record<string, string> = {
  polisher: 'mirrors',
  grinder: 'mirrors',
  tester: 'mirrors',
  sampler: 'mirrors',
  treat: 'mirrors',
  turner: 'mirrors',
  taster: 'mirrors',
  hide: 'hide',
};

const METHODS: Method[] = [{ nature: 'card' }, { nature: 'wallet' }, { nature: 'transfer', waitDays: 4 }];

type Move =
  | { do: 'press'; offer: string; slot: number; method: number; again: boolean }
  | { do: 'answer'; well: boolean; which: number }
  | { do: 'approve'; well: boolean; which: number }
  | { do: 'days'; days: number }
  | { do: 'late'; which: number }
  | { do: 'bill'; which: number; well: boolean }
  | { do: 'deed'; what: number; who: number; which: number };

const nat = fc.nat({ max: 30 });
const move: fc.Arbitrary<Move> = fc.oneof(
  fc.record({
    do: fc.constant('press' as const),
    offer: fc.constantFrom(...Object.keys(OFFERS).filter((id) => id !== 'warden-2')),
    slot: fc.nat({ max: 1 }),
    method: fc.nat({ max: 2 }),
    again: fc.boolean(),
  }),
  { weight: 3, arbitrary: fc.record({ do: fc.constant('answer' as const), well: fc.boolean(), which: nat }) },
  fc.record({ do: fc.constant('approve' as const), well: fc.boolean(), which: nat }),
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constant('days' as const), days: fc.integer({ min: 1, max: 25 }) }),
  },
  fc.record({ do: fc.constant('late' as const), which: nat }),
  fc.record({ do: fc.constant('bill' as const), well: fc.boolean(), which: nat }),
  { weight: 3, arbitrary: fc.record({ do: fc.constant('deed' as const), what: nat, who: nat, which: nat }) },
);

const nth = <T>(list: T[], n: number): T | undefined => list[n % Math.max(1, list.length)];

/** A person's years, taken event by event as services do: what is asked for is answered at some later time, or never. */
export class Years {
  book: Book = emptyBook();
  now: Instant = START;
  private made = 0;
  readonly context: BillingContext;

  constructor(private readonly tell: (before: Book, after: Book, event: Event, at: Instant) => void) {
    const newId = () => `${(this.made += 1)}`;
    this.context = { zone: ZONE, offers: OFFERS, ladders: LADDERS, retryDays: [1, 3], graceDays: 2, newId };
  }

  take(event: Event, at = this.now): boolean {
    const before = this.book;
    const taken = step(before, event, this.context, at);
    if (!taken.ok) return false;
    this.book = taken.book;
    this.tell(before, taken.book, event, at);
    for (const ask of taken.asks)
      if (ask.do === 'refund') this.take({ do: 'refunded', refund: ask.refund }, at);
    return true;
  }

  /** What falls due by itself up to an instant; transfers are given up at their last day. */
  until(end: Instant): void {
    for (let rounds = 0; rounds < 200; rounds++) {
      const next = this.book.subscriptions.flatMap((s) => {
        const at = nextDueOf(this.book, s);
        return at && !isBefore(end, at) ? [{ at, event: { do: 'due' as const, subscription: s.id } }] : [];
      });
      const given = this.book.charges.flatMap((one) => {
        const until = one.state === 'open' ? askedOf(one)?.until : null;
        return until && !isBefore(end, until)
          ? [{ at: until, event: { do: 'declined' as const, charge: one.id, code: 'not-paid' } }]
          : [];
      });
      const first = [...next, ...given].sort((a, b) => toMs(a.at) - toMs(b.at))[0];
      if (!first || !this.take(first.event, first.at)) break;
    }
    this.now = end;
  }

  move(one: Move): void {
    const { book } = this;
    const asked = book.charges.filter(isAsked);
    if (one.do === 'days') this.until(addLength(this.now, { n: one.days, unit: 'day' }, ZONE));
    else if (one.do === 'answer') {
      const charge = nth(asked, one.which);
      if (charge)
        this.take(
          one.well
            ? { do: 'paid', charge: charge.id }
            : { do: 'declined', charge: charge.id, code: 'declined' },
        );
    } else if (one.do === 'approve') {
      const checkout = nth(
        book.checkouts.filter(({ state }) => state === 'approving'),
        one.which,
      );
      if (!checkout) return;
      const bill = { ref: `bill${(this.made += 1)}`, ...(!one.well && { code: 'no-funds' }) };
      if (!this.take({ do: 'approved', checkout: checkout.id, bill }))
        this.take({ do: 'not-approved', checkout: checkout.id });
    } else if (one.do === 'late') {
      const declined = book.charges.filter(({ attempts }) => attempts.at(-1)?.state === 'declined');
      const charge = nth(declined, one.which);
      if (charge && !this.take({ do: 'late-success', charge: charge.id }))
        this.take({ do: 'unusable', charge: charge.id });
    } else if (one.do === 'bill') {
      const s = nth(
        book.subscriptions.filter(({ method, state }) => method?.nature === 'wallet' && RUNNING.has(state)),
        one.which,
      );
      if (s)
        this.take({
          do: 'billed',
          subscription: s.id,
          ref: `bill${(this.made += 1)}`,
          ...(!one.well && { code: 'no-funds' }),
        });
    } else if (one.do === 'press') this.press(one);
    else this.deed(one);
  }

  press({ offer, slot: n, method, again }: Extract<Move, { do: 'press' }>): void {
    const track = TRACK_OF[offer] ?? 'sky';
    const slot = track === 'hide' ? `slot ${n}` : '';
    const here = this.book.checkouts.filter((one) => isOn(one, { track, slot }) && one.state !== 'done');
    const known = again ? here.at(-1) : undefined;
    const checkout = known?.id ?? `checkout ${(this.made += 1)}`;
    const runs = this.book.subscriptions.find((s) => isOn(s, { track, slot }) && RUNNING.has(s.state));
    const byQuote = runs !== undefined && this.take({ do: 'quote', subscription: runs.id, to: offer });
    const plan = byQuote ? this.book.quote?.plan : undefined;
    if (runs && plan && !plan.atOnce) {
      this.take({ do: 'switch', subscription: runs.id, to: offer, quote: true });
      return;
    }
    const place = { track, slot, checkout, offer };
    this.take({ do: 'submit', ...place, method: METHODS[method] ?? null, byQuote, due: null });
  }

  private deed({ what, who, which }: Extract<Move, { do: 'deed' }>): void {
    const s = nth(this.book.subscriptions.slice(-4), who);
    if (!s) return;
    const subscription = s.id;
    const payment = nth(this.book.payments.slice(-5), which)?.id;
    const checkout = nth(this.book.checkouts.slice(-3), which)?.id;
    const held = nth(
      this.book.holdings.filter(({ why }) => why !== 'subscription'),
      which,
    )?.id;
    const deeds: (Event | undefined)[] = [
      { do: 'cancel', subscription },
      { do: 'cancel-now', subscription },
      { do: 'undo', subscription },
      { do: 'pause', subscription },
      { do: 'resume', subscription },
      { do: 'resume', subscription },
      { do: 'renew', subscription },
      { do: 'pay-now', subscription },
      { do: 'take-back', subscription },
      { do: 'take-away', subscription },
      { do: 'method', subscription, method: METHODS[which % 3] ?? { nature: 'card' } },
      { do: 'move', subscription, to: 'warden-2' },
      payment
        ? { do: 'refund', payment, amount: which % 2 ? 'all' : 100, access: which % 3 ? 'take' : 'keep' }
        : undefined,
      payment ? { do: 'refunded-there', payment, amount: 50, ref: `${which}` } : undefined,
      payment ? { do: 'dispute', payment } : undefined,
      payment ? { do: 'dispute-won', payment } : undefined,
      payment ? { do: 'dispute-won', payment } : undefined,
      payment ? { do: 'dispute-lost', payment } : undefined,
      checkout ? { do: 'expire', checkout } : undefined,
      PASS,
      {
        do: 'give',
        kind: 'tier',
        tier: 'observer',
        to: addLength(this.now, { n: which + 1, unit: 'day' }, ZONE),
      },
      held ? { do: 'extend', holding: held, to: null } : undefined,
      held ? { do: 'take', holding: held } : undefined,
      which % 4 === 0 ? { do: 'erase' } : undefined,
    ];
    const event = nth(deeds, what);
    if (event && (event.do !== 'move' || s.offer === 'warden')) this.take(event);
  }
}

export const years = fc.array(move, { minLength: 10, maxLength: 45 });
