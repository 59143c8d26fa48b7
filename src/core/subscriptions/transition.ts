import { addLength, earliest, isBefore, type Instant } from '../calendar';
import { isPaid } from '../offers/offer';
import type { Effect, Event, State, Subscription, Terms, Transition } from './subscription';
import { movedOn, renewalOf, upcomingPeriod } from './upcoming';

/** A subscription that has not begun: what joining starts from. */
export function pendingSubscription(startedAt: Instant, skipTrial: boolean, skipFee = false): Subscription {
  return {
    state: 'pending',
    startedAt,
    skipTrial,
    skipFee,
    numberFrom: 0,
    period: null,
    paidThrough: null,
    dueAt: null,
    failures: 0,
    firstFailedAt: null,
    endedAt: null,
  };
}

type Handler = (subscription: Subscription, terms: Terms, now: Instant, event: Event) => Transition;

/** The whole life of a subscription: what each state does with each event. What is not here is refused. */
const TABLE: Record<State, Partial<Record<Event['type'], Handler>>> = {
  pending: { due: charge, paid: settle },
  trial: {
    due: advance,
    paid: settle,
    failed: fail,
    cancel,
    'undo-cancel': nothingToUndo,
    switched: giveWay,
  },
  active: {
    due: advance,
    paid: settle,
    failed: fail,
    cancel,
    'undo-cancel': nothingToUndo,
    renewed: renew,
    switched: giveWay,
  },
  overdue: { due: charge, paid: settle, failed: fail, cancel: endNow, switched: giveWay },
  paused: {},
  cancelling: { due: endOfPaid, 'undo-cancel': undoCancel, renewed: renew, switched: giveWay },
  ended: {},
};

/**
 * What an event does to a subscription at an instant: the subscription afterwards, and what else must be done.
 * Pure. Refuses, with a reason in words, what the state does not allow.
 */
export function transition(subscription: Subscription, event: Event, terms: Terms, now: Instant): Transition {
  const handler = TABLE[subscription.state][event.type];
  if (!handler)
    return { ok: false, reason: `A subscription that is ${subscription.state} cannot take “${event.type}”.` };
  return handler(subscription, terms, now, event);
}

const done = (subscription: Subscription, ...effects: Effect[]): Transition => ({
  ok: true,
  subscription,
  effects,
});

function advance(subscription: Subscription, terms: Terms, now: Instant): Transition {
  const moved = movedOn(subscription, terms);
  if (moved) return done(moved.subscription, { do: 'move' }, { do: 'tell', notice: 'moved' });
  const next = upcomingPeriod(subscription, terms);
  if (!next) return finish(subscription, terms);
  return next.amount > 0
    ? charge(subscription, terms)
    : settle(subscription, terms, now, { type: 'paid', period: next });
}

function renew(subscription: Subscription, terms: Terms, _now: Instant, event: Event): Transition {
  const renewal = renewalOf(subscription, terms);
  if (event.type !== 'renewed' || !renewal) return { ok: false, reason: 'This is not renewed.' };
  const { period } = event;
  const renewed: Subscription = {
    ...subscription,
    state: 'active',
    numberFrom: renewal.number,
    period: { step: period.step, n: 0 },
    paidThrough: period.to,
    dueAt: period.to,
  };
  return done(
    renewed,
    { do: 'hold', tier: period.tier, from: period.from, until: period.to },
    { do: 'tell', notice: 'renewed' },
  );
}

function giveWay(subscription: Subscription, _terms: Terms, now: Instant): Transition {
  return done(
    { ...subscription, state: 'ended', dueAt: null, endedAt: now },
    { do: 'hold-until', until: now },
    { do: 'tell', notice: 'switched' },
  );
}

function charge(subscription: Subscription, terms: Terms): Transition {
  const period = upcomingPeriod(subscription, terms);
  if (!period) return { ok: false, reason: 'Nothing is left to charge under this offer.' };
  return done(subscription, { do: 'charge', period, attempt: subscription.failures + 1 });
}

function settle(subscription: Subscription, terms: Terms, now: Instant, event: Event): Transition {
  if (event.type !== 'paid') return { ok: false, reason: 'Only a payment settles a period.' };
  const { period } = event;
  const settled: Subscription = {
    ...subscription,
    state: period.kind === 'trial' ? 'trial' : 'active',
    period: { step: period.step, n: period.n },
    paidThrough: period.to,
    dueAt: period.to,
    failures: 0,
    firstFailedAt: null,
  };
  const current = subscription.state === 'overdue' ? skipGonePeriods(settled, terms, now) : settled;
  return done(current, { do: 'hold', tier: period.tier, from: period.from, until: openEnd(current, terms) });
}

/** After a late success the original calendar goes on; periods wholly gone are not charged. */
function skipGonePeriods(subscription: Subscription, terms: Terms, now: Instant): Subscription {
  let current = subscription;
  for (
    let next = upcomingPeriod(current, terms);
    next?.to && !isBefore(now, next.to);
    next = upcomingPeriod(current, terms)
  ) {
    current = { ...current, period: { step: next.step, n: next.n }, paidThrough: next.to, dueAt: next.to };
  }
  return current;
}

/** While more is to come, access has no end of its own: a charge due and not yet processed shuts nobody out. */
function openEnd(subscription: Subscription, terms: Terms): Instant | null {
  if (upcomingPeriod(subscription, terms)) return null;
  return terms.offer.after === 'keep' ? null : subscription.paidThrough;
}

function finish(subscription: Subscription, terms: Terms): Transition {
  const ended: Subscription = {
    ...subscription,
    state: 'ended',
    dueAt: null,
    endedAt: subscription.paidThrough,
  };
  if (terms.offer.after === 'keep') return done(ended, { do: 'tell', notice: 'finished' });
  return done(ended, { do: 'hold-until', until: subscription.paidThrough }, { do: 'tell', notice: 'ended' });
}

function fail(subscription: Subscription, terms: Terms, now: Instant): Transition {
  const failures = subscription.failures + 1;
  const firstFailedAt = subscription.firstFailedAt ?? now;
  const graceEnd = addLength(firstFailedAt, { n: terms.graceDays, unit: 'day' }, terms.zone);
  const retryAfter = terms.retryDays[failures - 1];
  if (retryAfter === undefined) {
    return done(
      { ...subscription, state: 'ended', failures, firstFailedAt, dueAt: null, endedAt: now },
      { do: 'hold-until', until: earliest(graceEnd, now) },
      { do: 'tell', notice: 'ended-unpaid' },
    );
  }
  const dueAt = addLength(firstFailedAt, { n: retryAfter, unit: 'day' }, terms.zone);
  return done(
    { ...subscription, state: 'overdue', failures, firstFailedAt, dueAt },
    { do: 'hold-until', until: graceEnd },
    { do: 'tell', notice: 'payment-failed' },
  );
}

function cancel(subscription: Subscription, terms: Terms, now: Instant): Transition {
  if (subscription.paidThrough === null) {
    if (isPaid(terms.offer))
      return { ok: false, reason: 'This is paid for good: nothing more will be charged.' };
    return endNow(subscription, terms, now);
  }
  return done(
    { ...subscription, state: 'cancelling', dueAt: subscription.paidThrough },
    { do: 'hold-until', until: subscription.paidThrough },
    { do: 'tell', notice: 'cancelled' },
  );
}

function endNow(subscription: Subscription, _terms: Terms, now: Instant): Transition {
  return done(
    { ...subscription, state: 'ended', dueAt: null, endedAt: now },
    { do: 'hold-until', until: now },
    { do: 'tell', notice: 'ended' },
  );
}

function endOfPaid(subscription: Subscription): Transition {
  return done(
    { ...subscription, state: 'ended', dueAt: null, endedAt: subscription.paidThrough },
    { do: 'tell', notice: 'ended' },
  );
}

function undoCancel(subscription: Subscription, terms: Terms, now: Instant): Transition {
  const { paidThrough, period } = subscription;
  if (paidThrough === null || !isBefore(now, paidThrough))
    return { ok: false, reason: 'It has already ended. Joining again takes a minute.' };
  const kind = period && terms.offer.steps[period.step]?.kind;
  const back: Subscription = {
    ...subscription,
    state: kind === 'trial' ? 'trial' : 'active',
    dueAt: paidThrough,
  };
  return done(
    back,
    { do: 'hold-until', until: openEnd(back, terms) },
    { do: 'tell', notice: 'cancel-undone' },
  );
}

function nothingToUndo(): Transition {
  return { ok: false, reason: 'It is not cancelled: there is nothing to undo.' };
}
