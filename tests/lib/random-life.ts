import fc from 'fast-check';
import { addLength } from '../../src/core/calendar';
import { fromMs, toMs } from '../../src/core/instants';
import type { Life } from '../../src/core/billing/play';
import type { Offer } from '../../src/core/offers/offer';

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
export const life: fc.Arbitrary<Life> = fc
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
