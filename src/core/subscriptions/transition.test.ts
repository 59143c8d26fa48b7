import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addLength, compare } from '../calendar';
import type { Offer } from '../offers/offer';
import type { Period } from '../offers/schedule';
import type { Event, Subscription, Terms } from './subscription';
import { lifePage } from './diagram';
import { LIFE, pendingSubscription, transition } from './transition';
import { nextCharge, periodToPay, renewalOf, upcomingPeriod } from './upcoming';

const monthly: Offer = {
  tier: 'observer',
  currency: 'GBP',
  after: 'end',
  steps: [
    { kind: 'trial', amount: 0, lasts: { n: 14, unit: 'day' } },
    { kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: null },
  ],
};
const instalments: Offer = {
  tier: 'mirror-makers',
  currency: 'GBP',
  after: 'keep',
  steps: [{ kind: 'repeat', amount: 4500, every: { n: 1, unit: 'month' }, times: 2 }],
};
const START = '2027-01-10T12:00:00Z';
const terms = (offer: Offer): Terms => ({
  offer,
  zone: 'Europe/London',
  retryDays: [1, 3, 5, 7],
  graceDays: 7,
});
const days = (at: string, n: number): string => addLength(at, { n, unit: 'day' }, 'Europe/London');

function must(subscription: Subscription, event: Event, t: Terms, now: string) {
  const next = transition(subscription, event, t, now);
  if (!next.ok) throw new Error(next.reason);
  return next;
}

/** Pays for the period that comes next. */
function paid(subscription: Subscription, t: Terms, now: string) {
  return must(subscription, { type: 'paid', period: upcomingPeriod(subscription, t)! }, t, now);
}

const EVENTS = [
  'due',
  'paid',
  'failed',
  'cancel',
  'undo-cancel',
  'end-now',
  'pause',
  'resume',
  'dispute-opened',
  'dispute-won',
  'dispute-lost',
] as const;

function eventOf(type: (typeof EVENTS)[number], period: Period | undefined): Event {
  if (type === 'paid' && period) return { type, period };
  return type === 'failed' ? { type, reason: 'declined' } : ({ type } as Event);
}

const joined = (offer: Offer): Subscription =>
  paid(pendingSubscription(START, false), terms(offer), START).subscription;

describe('a subscription', () => {
  it('begins in trial, holds its tier without an end, and is due when the trial ends', () => {
    const begun = paid(pendingSubscription(START, false), terms(monthly), START);
    expect(begun.subscription).toMatchObject({
      state: 'trial',
      dueAt: '2027-01-24T12:00:00Z',
      paidThrough: '2027-01-24T12:00:00Z',
    });
    expect(begun.effects).toEqual([{ do: 'hold', tier: 'observer', from: START, until: null }]);
  });

  it('asks for money when the trial is over, and is active once it came', () => {
    const due = must(joined(monthly), { type: 'due' }, terms(monthly), '2027-01-24T12:00:00Z');
    expect(due.effects).toMatchObject([{ do: 'charge', period: { step: 1, n: 0, amount: 600 } }]);
    const settled = paid(due.subscription, terms(monthly), '2027-01-24T12:00:00Z').subscription;
    expect(settled).toMatchObject({ state: 'active', dueAt: '2027-02-24T12:00:00Z', failures: 0 });
  });

  it('is overdue after a failure, tried again 1, 3, 5 and 7 days after the first, and ended by the last', () => {
    const t = terms(monthly);
    let subscription = joined(monthly);
    const first = '2027-01-24T12:00:00Z';
    const seen: (string | null)[] = [];
    for (const wait of [0, 1, 3, 5, 7]) {
      const failed = must(subscription, { type: 'failed', reason: 'no-funds' }, t, days(first, wait));
      subscription = failed.subscription;
      seen.push(subscription.dueAt);
      expect(failed.effects).toContainEqual({ do: 'hold-until', until: days(first, 7) });
    }
    expect(seen).toEqual([days(first, 1), days(first, 3), days(first, 5), days(first, 7), null]);
    expect(subscription).toMatchObject({ state: 'ended', endedAt: days(first, 7) });
  });

  it('keeps its calendar after a late success, and skips periods wholly gone', () => {
    const weekly: Offer = {
      ...monthly,
      steps: [{ kind: 'repeat', amount: 150, every: { n: 1, unit: 'day' }, times: null }],
    };
    const t = terms(weekly);
    const failed = must(
      joined(weekly),
      { type: 'failed', reason: 'no-funds' },
      t,
      days(START, 1),
    ).subscription;
    const late = paid(failed, t, days(START, 4)).subscription;
    expect(late).toMatchObject({ state: 'active', dueAt: days(START, 4), period: { step: 0, n: 3 } });
  });

  it('ends at the end of what is paid when cancelled, unless that is taken back', () => {
    const t = terms(monthly);
    const cancelled = must(joined(monthly), { type: 'cancel' }, t, days(START, 3));
    expect(cancelled.subscription).toMatchObject({ state: 'cancelling', dueAt: '2027-01-24T12:00:00Z' });
    expect(cancelled.effects).toContainEqual({ do: 'hold-until', until: '2027-01-24T12:00:00Z' });
    expect(nextCharge(cancelled.subscription, t)).toBeNull();
    const back = must(cancelled.subscription, { type: 'undo-cancel' }, t, days(START, 4));
    expect(back.subscription.state).toBe('trial');
    expect(back.effects).toContainEqual({ do: 'hold-until', until: null });
    expect(transition(cancelled.subscription, { type: 'undo-cancel' }, t, days(START, 15)).ok).toBe(false);
    expect(must(cancelled.subscription, { type: 'due' }, t, days(START, 14)).subscription).toMatchObject({
      state: 'ended',
      endedAt: '2027-01-24T12:00:00Z',
    });
  });

  it('ends at once when cancelled while overdue', () => {
    const overdue = must(
      joined(monthly),
      { type: 'failed', reason: 'declined' },
      terms(monthly),
      days(START, 14),
    ).subscription;
    expect(must(overdue, { type: 'cancel' }, terms(monthly), days(START, 15)).subscription).toMatchObject({
      state: 'ended',
      endedAt: days(START, 15),
    });
  });

  it('keeps the tier for good after the last instalment, where the offer says so', () => {
    const t = terms(instalments);
    const second = paid(joined(instalments), t, '2027-02-10T12:00:00Z').subscription;
    const finished = must(second, { type: 'due' }, t, second.dueAt!);
    expect(finished.subscription.state).toBe('ended');
    expect(finished.effects).toEqual([{ do: 'tell', notice: 'finished' }]);
    const ending = must(second, { type: 'due' }, terms({ ...instalments, after: 'end' }), second.dueAt!);
    expect(ending.effects).toContainEqual({ do: 'hold-until', until: second.paidThrough });
  });

  it('that is paid for good cannot be cancelled; a free one simply ends', () => {
    const forGood: Offer = { ...monthly, steps: [{ kind: 'once', amount: 40_000, lasts: 'forever' }] };
    expect(transition(joined(forGood), { type: 'cancel' }, terms(forGood), START).ok).toBe(false);
    const free: Offer = { ...forGood, steps: [{ kind: 'once', amount: 0, lasts: 'forever' }] };
    expect(must(joined(free), { type: 'cancel' }, terms(free), START).subscription.state).toBe('ended');
  });

  it('never forgets what is due while it runs, and owes nothing once ended, whatever happens', () => {
    const events = fc.array(fc.constantFrom(...EVENTS), { maxLength: 25 });
    fc.assert(
      fc.property(events, fc.constantFrom(monthly, instalments), (types, offer) => {
        const t = terms(offer);
        let subscription = joined(offer);
        for (const type of types) {
          const now = subscription.dueAt ?? subscription.paidThrough ?? START;
          const period = periodToPay(subscription, t, now);
          if (!period && (type === 'paid' || type === 'failed')) continue;
          const next = transition(subscription, eventOf(type, period), t, now);
          if (next.ok) {
            expect(LIFE[subscription.state][type]).toContain(next.subscription.state);
            subscription = next.subscription;
          }
          const isStill = subscription.state === 'ended' || subscription.state === 'paused';
          expect(subscription.dueAt === null).toBe(isStill);
          expect((subscription.endedAt !== null) === (subscription.state === 'ended')).toBe(true);
          expect(subscription.state !== 'overdue' || subscription.failures > 0).toBe(true);
          const coming = nextCharge(subscription, t);
          if (coming) expect(compare(coming.at, START)).toBeGreaterThanOrEqual(0);
        }
      }),
    );
  });
});

describe('moved to another offer', () => {
  const dearer: Offer = {
    ...monthly,
    joiningFee: { amount: 1000, due: 'start' },
    steps: [monthly.steps[0]!, { kind: 'repeat', amount: 900, every: { n: 1, unit: 'year' }, times: null }],
  };
  const moving: Terms = { ...terms(monthly), movesTo: dearer };

  it('goes over at the end of what is paid, without trial or fee, under keys that were never used', () => {
    const active = paid(joined(monthly), terms(monthly), '2027-01-24T12:00:00Z').subscription;
    expect(nextCharge(active, moving)).toMatchObject({ at: '2027-02-24T12:00:00Z', period: { amount: 900 } });
    const moved = must(active, { type: 'due' }, moving, '2027-02-24T12:00:00Z');
    expect(moved.effects).toEqual([{ do: 'move' }, { do: 'tell', notice: 'moved' }]);
    expect(moved.subscription).toMatchObject({
      startedAt: '2027-02-24T12:00:00Z',
      skipTrial: true,
      skipFee: true,
      period: null,
      numberFrom: 1,
    });
    const due = must(moved.subscription, { type: 'due' }, terms(dearer), '2027-02-24T12:00:00Z');
    expect(due.effects).toMatchObject([
      { do: 'charge', period: { step: 1, n: 0, amount: 900, joiningFee: 0 } },
    ]);
    expect(paid(moved.subscription, terms(dearer), '2027-02-24T12:00:00Z').subscription).toMatchObject({
      state: 'active',
      paidThrough: '2028-02-24T12:00:00Z',
    });
  });

  it('stays where it is when nothing of the other offer is left', () => {
    const over: Offer = { ...monthly, steps: [{ kind: 'once', amount: 1, lasts: { until: '2026-01-01' } }] };
    const due = must(
      joined(monthly),
      { type: 'due' },
      { ...terms(monthly), movesTo: over },
      '2027-01-24T12:00:00Z',
    );
    expect(due.effects).toMatchObject([{ do: 'charge', period: { amount: 600 } }]);
  });
});

describe('a single payment that can be renewed', () => {
  const year: Offer = {
    tier: 'observer',
    currency: 'GBP',
    after: 'end',
    renewal: { daysBefore: 30 },
    steps: [{ kind: 'once', amount: 6000, lasts: { n: 1, unit: 'year' } }],
  };

  it('begins where the old time ends, and has a key of its own each time', () => {
    const held = joined(year);
    const renewal = renewalOf(held, terms(year))!;
    expect(renewal).toMatchObject({
      from: '2027-12-11T12:00:00Z',
      number: 1,
      period: { from: '2028-01-10T12:00:00Z', to: '2029-01-10T12:00:00Z', amount: 6000 },
    });
    const renewed = must(
      held,
      { type: 'renewed', period: renewal.period },
      terms(year),
      '2027-12-20T12:00:00Z',
    );
    expect(renewed.subscription).toMatchObject({
      state: 'active',
      paidThrough: '2029-01-10T12:00:00Z',
      numberFrom: 1,
    });
    expect(renewed.effects[0]).toMatchObject({
      do: 'hold',
      from: '2028-01-10T12:00:00Z',
      until: '2029-01-10T12:00:00Z',
    });
    expect(renewalOf(renewed.subscription, terms(year))).toMatchObject({ number: 2 });
  });

  it('can be renewed after it was cancelled, and ends in time where it is not renewed', () => {
    const cancelled = must(
      joined(year),
      { type: 'cancel' },
      terms(year),
      '2027-12-20T12:00:00Z',
    ).subscription;
    expect(renewalOf(cancelled, terms(year))).not.toBeNull();
    expect(must(joined(year), { type: 'due' }, terms(year), '2028-01-10T12:00:00Z').subscription.state).toBe(
      'ended',
    );
  });

  it('is nothing for offers that are not renewed, and for what has ended', () => {
    expect(
      renewalOf(joined({ ...year, renewal: undefined }), terms({ ...year, renewal: undefined })),
    ).toBeNull();
    expect(renewalOf(joined(monthly), terms(monthly))).toBeNull();
    expect(renewalOf({ ...joined(year), state: 'ended' }, terms(year))).toBeNull();
  });
});

it('gives way at once to what it is switched to', () => {
  const gone = must(joined(monthly), { type: 'switched' }, terms(monthly), '2027-01-20T12:00:00Z');
  expect(gone.subscription).toMatchObject({ state: 'ended', endedAt: '2027-01-20T12:00:00Z', dueAt: null });
  expect(gone.effects[0]).toEqual({ do: 'release', at: '2027-01-20T12:00:00Z' });
});

describe('a pause', () => {
  const t = terms(monthly);
  const active = paid(joined(monthly), t, '2027-01-24T12:00:00Z').subscription;
  const asked = must(active, { type: 'pause' }, t, '2027-02-01T12:00:00Z').subscription;
  const END = '2027-02-24T12:00:00Z';

  it('begins at the end of what is paid, without access and without charges, and can be taken back until then', () => {
    expect(asked).toMatchObject({ state: 'active', dueAt: END });
    expect(nextCharge(asked, t)).toBeNull();
    const back = must(asked, { type: 'resume' }, t, '2027-02-02T12:00:00Z');
    expect(back.effects).toContainEqual({ do: 'hold-until', until: null });
    expect(nextCharge(back.subscription, t)?.at).toBe(END);
    const paused = must(asked, { type: 'due' }, t, END);
    expect(paused.subscription).toMatchObject({ state: 'paused', dueAt: null });
    expect(paused.effects).toContainEqual({ do: 'hold-until', until: END });
  });

  it('ends with the next period beginning at once, once that is paid; from there the calendar goes on', () => {
    const paused = must(asked, { type: 'due' }, t, END).subscription;
    const now = '2027-05-31T09:00:00Z';
    const resumed = must(paused, { type: 'resume' }, t, now);
    expect(resumed.subscription.state).toBe('paused');
    expect(resumed.effects).toMatchObject([
      { do: 'charge', period: { step: 1, n: 1, from: now, amount: 600 } },
    ]);
    const again = must(paused, { type: 'paid', period: periodToPay(paused, t, now)! }, t, now);
    expect(again.subscription).toMatchObject({
      state: 'active',
      period: { step: 1, n: 1 },
      paidThrough: '2027-06-30T09:00:00Z',
    });
    expect(upcomingPeriod(again.subscription, t)).toMatchObject({ n: 2, to: '2027-07-31T09:00:00Z' });
  });

  it('leaves as many instalments as there were, and charges no joining fee twice', () => {
    const four: Offer = {
      ...instalments,
      joiningFee: { amount: 1000, due: 'first-payment' },
      steps: [{ kind: 'repeat', amount: 4500, every: { n: 1, unit: 'month' }, times: 4 }],
    };
    const two = paid(joined(four), terms(four), '2027-02-10T12:00:00Z').subscription;
    let current = must(two, { type: 'pause' }, terms(four), '2027-02-11T12:00:00Z').subscription;
    current = must(current, { type: 'due' }, terms(four), current.dueAt!).subscription;
    const amounts: number[] = [];
    for (let now = '2027-08-01T12:00:00Z'; ; now = current.dueAt!) {
      const period = periodToPay(current, terms(four), now);
      if (!period) break;
      amounts.push(period.amount);
      current = must(current, { type: 'paid', period }, terms(four), now).subscription;
    }
    expect(amounts).toEqual([4500, 4500]);
    expect(current).toMatchObject({ period: { step: 0, n: 3 }, paidThrough: '2027-10-01T12:00:00Z' });
  });

  it('is refused where nothing more is due, or a payment is', () => {
    const forGood: Offer = { ...monthly, steps: [{ kind: 'once', amount: 40_000, lasts: 'forever' }] };
    expect(transition(joined(forGood), { type: 'pause' }, terms(forGood), START).ok).toBe(false);
    const overdue = must(active, { type: 'failed', reason: 'declined' }, t, END).subscription;
    expect(transition(overdue, { type: 'pause' }, t, END).ok).toBe(false);
  });
});

describe('a dispute', () => {
  const t = terms(monthly);
  const active = paid(joined(monthly), t, '2027-01-24T12:00:00Z').subscription;
  const open = must(active, { type: 'dispute-opened' }, t, '2027-02-01T12:00:00Z').subscription;

  it('stops charges while it is open, and once won goes on by the old calendar, without what went by', () => {
    expect(transition(open, { type: 'due' }, t, '2027-02-24T12:00:00Z').ok).toBe(false);
    expect(nextCharge(open, t)).toBeNull();
    const won = must(open, { type: 'dispute-won' }, t, '2027-04-30T12:00:00Z').subscription;
    expect(won).toMatchObject({ state: 'active', disputedAt: null, dueAt: '2027-04-24T11:00:00Z' });
  });

  it('ends what it was about when it is lost, from the day it was opened', () => {
    const lost = must(open, { type: 'dispute-lost' }, t, '2027-04-30T12:00:00Z');
    expect(lost.subscription).toMatchObject({ state: 'ended', disputedAt: null });
    expect(lost.effects).toContainEqual({ do: 'release', at: '2027-02-01T12:00:00Z' });
  });

  it('takes back what was kept for good', () => {
    const it = terms(instalments);
    const second = paid(joined(instalments), it, '2027-02-10T12:00:00Z').subscription;
    const kept = must(second, { type: 'due' }, it, second.dueAt!).subscription;
    const disputed = must(kept, { type: 'dispute-opened' }, it, '2027-06-01T12:00:00Z').subscription;
    expect(must(disputed, { type: 'dispute-lost' }, it, '2027-07-01T12:00:00Z').effects).toContainEqual({
      do: 'release',
      at: '2027-06-01T12:00:00Z',
    });
  });
});

it('begins anew, without trial, where a payment succeeds after the end', () => {
  const t = terms(monthly);
  let subscription = joined(monthly);
  for (const wait of [0, 1, 3, 5, 7])
    subscription = must(
      subscription,
      { type: 'failed', reason: 'no-funds' },
      t,
      days('2027-01-24T12:00:00Z', wait),
    ).subscription;
  expect(subscription.state).toBe('ended');
  const now = '2027-03-05T12:00:00Z';
  const anew = must(subscription, { type: 'paid', period: periodToPay(subscription, t, now)! }, t, now);
  expect(anew.subscription).toMatchObject({
    state: 'active',
    endedAt: null,
    failures: 0,
    paidThrough: '2027-04-05T11:00:00Z',
  });
  expect(anew.effects).toContainEqual({ do: 'hold', tier: 'observer', from: now, until: null });
});

it('ends at once where staff or a refund end it, whatever state it is in', () => {
  const t = terms(monthly);
  const active = paid(joined(monthly), t, '2027-01-24T12:00:00Z').subscription;
  const now = '2027-02-01T12:00:00Z';
  for (const subscription of [active, must(active, { type: 'cancel' }, t, now).subscription])
    expect(must(subscription, { type: 'end-now' }, t, now)).toMatchObject({
      subscription: { state: 'ended', endedAt: now },
      effects: [{ do: 'release', at: now }, { do: 'tell' }],
    });
});

it('is drawn in docs/subscription-life.md as the table has it', () => {
  expect(readFileSync('docs/subscription-life.md', 'utf8')).toBe(lifePage());
});
