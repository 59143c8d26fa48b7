import { addLength, earliest, isBefore, type Instant } from '../calendar';
import { isPaid, isRenewable, type Offer } from '../offers/offer';
import { nextPeriod, type Period } from '../offers/schedule';
import type { Effect, Event, State, Subscription, Terms, Transition } from './subscription';

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

/** The period that begins after the last settled one; undefined where the schedule is finished. */
export function upcomingPeriod(subscription: Subscription, terms: Terms): Period | undefined {
  return nextPeriod(
    offerOf(subscription, terms),
    subscription.startedAt,
    terms.zone,
    subscription.skipTrial,
    subscription.period,
  );
}

/** The offer as it is charged to this subscription. */
function offerOf({ skipFee }: Subscription, { offer }: Terms): Offer {
  return skipFee ? { ...offer, joiningFee: undefined } : offer;
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

/**
 * The subscription as it begins under the offer it moves to, at the end of what is paid: without trial and without
 * joining fee. Null where it does not move, or where nothing of that offer is left.
 */
function movedOn(
  subscription: Subscription,
  terms: Terms,
): { subscription: Subscription; terms: Terms } | null {
  const { paidThrough, period } = subscription;
  if (!terms.movesTo || paidThrough === null) return null;
  const moved: Subscription = {
    ...subscription,
    state: 'active',
    startedAt: paidThrough,
    skipTrial: true,
    skipFee: true,
    numberFrom: subscription.numberFrom + numbersUsed(terms.offer, period),
    period: null,
    dueAt: paidThrough,
  };
  const under: Terms = { ...terms, offer: terms.movesTo, movesTo: undefined };
  return upcomingPeriod(moved, under) ? { subscription: moved, terms: under } : null;
}

/** How many numbers the periods of a schedule have used up, whatever their step. */
function numbersUsed({ steps }: Offer, period: Subscription['period']): number {
  if (!period) return 1;
  const before = steps.slice(0, period.step).map((step) => (step.kind === 'repeat' ? (step.times ?? 1) : 1));
  return Math.max(period.n + 1, ...before);
}

/**
 * The further length that somebody who holds a single payment could pay for now, and the day from which they may.
 * Early, it begins where the old one ends. Null where the offer is not renewed.
 */
export function renewalOf(
  subscription: Subscription,
  terms: Terms,
): { from: Instant; period: Period; number: number } | null {
  const { offer, zone } = terms;
  const { paidThrough, state } = subscription;
  const last = offer.steps.length - 1;
  const step = offer.steps[last];
  const isLast = subscription.period?.step === last;
  if (!offer.renewal || !isRenewable(offer) || !isLast || paidThrough === null) return null;
  if (step?.kind !== 'once' || (state !== 'active' && state !== 'cancelling')) return null;
  const again: Offer = { tier: offer.tier, currency: offer.currency, steps: [step], after: 'end' };
  const period = nextPeriod(again, paidThrough, zone, true, null);
  if (!period) return null;
  return {
    from: addLength(paidThrough, { n: -offer.renewal.daysBefore, unit: 'day' }, zone),
    period: { ...period, step: last },
    number: subscription.numberFrom + numbersUsed(offer, subscription.period),
  };
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

/** The next charge above zero that will fall due as things stand; null where none will. */
export function nextCharge(subscription: Subscription, terms: Terms): { at: Instant; period: Period } | null {
  if (['cancelling', 'ended', 'paused'].includes(subscription.state)) return null;
  if (subscription.state === 'overdue') {
    const period = upcomingPeriod(subscription, terms);
    return period ? { at: subscription.dueAt ?? period.from, period } : null;
  }
  const moved = movedOn(subscription, terms);
  if (moved) return nextCharge(moved.subscription, moved.terms);
  const offer = offerOf(subscription, terms);
  let last = subscription.period;
  for (;;) {
    const period = nextPeriod(offer, subscription.startedAt, terms.zone, subscription.skipTrial, last);
    if (!period) return null;
    if (period.amount > 0) return { at: period.from, period };
    const step = offer.steps[period.step];
    // An endless step without a price never comes to a charge.
    if (period.to === null || (step?.kind === 'repeat' && step.times === null)) return null;
    last = { step: period.step, n: period.n };
  }
}
