import { addLength, earliest, isBefore, type Instant } from '../calendar';
import { isPaid } from '../offers/offer';
import type { Effect, Event, State, Subscription, Terms, Transition } from './subscription';
import { movedOn, renewalOf, takenUp, upcomingPeriod } from './upcoming';

/** A subscription that has not begun: what joining starts from. */
export function pendingSubscription(startedAt: Instant, skipTrial: boolean, skipFee = false): Subscription {
  return {
    state: 'pending',
    startedAt,
    skipTrial,
    takesUp: { step: 0, n: 0 },
    skipFee,
    numberFrom: 0,
    period: null,
    paidThrough: null,
    dueAt: null,
    failures: 0,
    firstFailedAt: null,
    endedAt: null,
    pauses: false,
    disputedAt: null,
  };
}

type Handler = (subscription: Subscription, terms: Terms, now: Instant, event: Event) => Transition;
/** What is done, and the states in which it can leave the subscription. */
type Entry = [Handler, ...State[]];

const ENDS: Partial<Record<Event['type'], Entry>> = {
  'end-now': [endNow, 'ended'],
  switched: [giveWay, 'ended'],
  'dispute-lost': [loseDispute, 'ended'],
};

/** The whole life of a subscription: what each state does with each event. What is not here is refused. */
export const LIFE: Record<State, Partial<Record<Event['type'], Entry>>> = {
  pending: { due: [charge, 'pending'], paid: [settle, 'trial', 'active'] },
  trial: {
    ...ENDS,
    due: [advance, 'trial', 'active', 'paused', 'ended'],
    paid: [settle, 'trial', 'active'],
    failed: [fail, 'overdue', 'ended'],
    cancel: [cancel, 'cancelling', 'ended'],
    'undo-cancel': [nothingToUndo, 'trial'],
    pause: [pause, 'trial'],
    resume: [undoPause, 'trial'],
    'dispute-opened': [openDispute, 'trial'],
    'dispute-won': [winDispute, 'trial', 'active'],
  },
  active: {
    ...ENDS,
    due: [advance, 'active', 'paused', 'ended'],
    paid: [settle, 'active'],
    failed: [fail, 'overdue', 'ended'],
    cancel: [cancel, 'cancelling', 'ended'],
    'undo-cancel': [nothingToUndo, 'active'],
    pause: [pause, 'active'],
    resume: [undoPause, 'active'],
    renewed: [renew, 'active'],
    'dispute-opened': [openDispute, 'active'],
    'dispute-won': [winDispute, 'active'],
  },
  overdue: {
    ...ENDS,
    due: [charge, 'overdue'],
    paid: [settle, 'trial', 'active'],
    failed: [fail, 'overdue', 'ended'],
    cancel: [endNow, 'ended'],
    'dispute-opened': [openDispute, 'overdue'],
    'dispute-won': [winDispute, 'overdue'],
  },
  paused: {
    ...ENDS,
    resume: [askToResume, 'paused'],
    paid: [resume, 'trial', 'active'],
    cancel: [endNow, 'ended'],
    'dispute-opened': [openDispute, 'paused'],
    'dispute-won': [winDispute, 'paused'],
  },
  cancelling: {
    ...ENDS,
    due: [endOfPaid, 'ended'],
    'undo-cancel': [undoCancel, 'trial', 'active'],
    renewed: [renew, 'active'],
    'dispute-opened': [openDispute, 'cancelling'],
    'dispute-won': [winDispute, 'cancelling'],
  },
  // What was kept for good can still be taken back; a payment that comes late begins anew.
  ended: {
    paid: [beginAnew, 'trial', 'active'],
    'end-now': [giveBack, 'ended'],
    'dispute-opened': [openDispute, 'ended'],
    'dispute-won': [winDispute, 'ended'],
    'dispute-lost': [loseDispute, 'ended'],
  },
};

/**
 * What an event does to a subscription at an instant: the subscription afterwards, and what else must be done.
 * Pure. Refuses, with a reason in words, what the state does not allow.
 */
export function transition(subscription: Subscription, event: Event, terms: Terms, now: Instant): Transition {
  const entry = LIFE[subscription.state][event.type];
  if (!entry)
    return { ok: false, reason: `A subscription that is ${subscription.state} cannot take “${event.type}”.` };
  if (subscription.disputedAt && STOPPED_BY_DISPUTE.has(event.type))
    return { ok: false, reason: 'A payment of it is disputed: nothing goes on until that is decided.' };
  return entry[0](subscription, terms, now, event);
}

const STOPPED_BY_DISPUTE: ReadonlySet<Event['type']> = new Set(['due', 'pause', 'resume']);

const done = (subscription: Subscription, ...effects: Effect[]): Transition => ({
  ok: true,
  subscription,
  effects,
});

function advance(subscription: Subscription, terms: Terms, now: Instant): Transition {
  const moved = movedOn(subscription, terms);
  const next = upcomingPeriod(subscription, terms);
  if (subscription.pauses && (moved ?? next)) return beginPause(subscription);
  if (moved) return done(moved.subscription, { do: 'move' }, { do: 'tell', notice: 'moved' });
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

/** How everything ends before its time. */
function stop(subscription: Subscription, now: Instant): Subscription {
  return { ...subscription, state: 'ended', dueAt: null, endedAt: now, pauses: false, disputedAt: null };
}

function giveWay(subscription: Subscription, _terms: Terms, now: Instant): Transition {
  return done(stop(subscription, now), { do: 'release', at: now }, { do: 'tell', notice: 'switched' });
}

function charge(subscription: Subscription, terms: Terms): Transition {
  const period = upcomingPeriod(subscription, terms);
  if (!period) return { ok: false, reason: 'Nothing is left to charge under this offer.' };
  return done(subscription, { do: 'charge', period });
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
      { ...stop(subscription, now), failures, firstFailedAt },
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
    { ...subscription, state: 'cancelling', dueAt: subscription.paidThrough, pauses: false },
    { do: 'hold-until', until: subscription.paidThrough },
    { do: 'tell', notice: 'cancelled' },
  );
}

function endNow(subscription: Subscription, _terms: Terms, now: Instant): Transition {
  return done(stop(subscription, now), { do: 'release', at: now }, { do: 'tell', notice: 'ended' });
}

/** Ends what is still held although nothing more was due. */
function giveBack(subscription: Subscription, terms: Terms, now: Instant): Transition {
  if (
    terms.offer.after !== 'keep' &&
    subscription.paidThrough !== null &&
    !isBefore(now, subscription.paidThrough)
  )
    return { ok: false, reason: 'It has ended already.' };
  return done(
    stop(subscription, subscription.endedAt ?? now),
    { do: 'release', at: now },
    { do: 'tell', notice: 'ended' },
  );
}

function pause(subscription: Subscription, terms: Terms): Transition {
  if (subscription.pauses) return { ok: false, reason: 'A pause has been asked for already.' };
  if (!upcomingPeriod(subscription, terms) && !movedOn(subscription, terms))
    return { ok: false, reason: 'Nothing more will be charged, so there is nothing to pause.' };
  return done(
    { ...subscription, pauses: true },
    { do: 'hold-until', until: subscription.paidThrough },
    { do: 'tell', notice: 'pause-asked' },
  );
}

function undoPause(subscription: Subscription, terms: Terms): Transition {
  if (!subscription.pauses) return { ok: false, reason: 'It is not paused.' };
  const back = { ...subscription, pauses: false };
  return done(back, { do: 'hold-until', until: openEnd(back, terms) }, { do: 'tell', notice: 'resumed' });
}

function beginPause(subscription: Subscription): Transition {
  return done(
    { ...subscription, state: 'paused', pauses: false, dueAt: null },
    { do: 'hold-until', until: subscription.paidThrough },
    { do: 'tell', notice: 'paused' },
  );
}

/** The next period begins now. It opens once it is paid for: until then the pause goes on. */
function askToResume(subscription: Subscription, terms: Terms, now: Instant): Transition {
  const again = takenUp(subscription, terms, now);
  const period = upcomingPeriod(again, terms);
  if (!period) return { ok: false, reason: 'Nothing of this offer is left: its dates have passed.' };
  return period.amount > 0
    ? done(subscription, { do: 'charge', period })
    : resume(subscription, terms, now, { type: 'paid', period });
}

function resume(subscription: Subscription, terms: Terms, now: Instant, event: Event): Transition {
  return takeUpAgain(subscription, terms, now, event, 'resumed');
}

/** Money that comes when all is over: the period it is for begins now. */
function beginAnew(subscription: Subscription, terms: Terms, now: Instant, event: Event): Transition {
  if (subscription.disputedAt)
    return { ok: false, reason: 'A payment of it is disputed: nothing goes on until that is decided.' };
  return takeUpAgain({ ...subscription, endedAt: null }, terms, now, event, 'begun-anew');
}

function takeUpAgain(
  subscription: Subscription,
  terms: Terms,
  now: Instant,
  event: Event,
  notice: 'resumed' | 'begun-anew',
): Transition {
  const settled = settle(takenUp(subscription, terms, now), terms, now, event);
  return settled.ok ? { ...settled, effects: [...settled.effects, { do: 'tell', notice }] } : settled;
}

function openDispute(subscription: Subscription, _terms: Terms, now: Instant): Transition {
  if (subscription.disputedAt) return done(subscription);
  return done({ ...subscription, disputedAt: now }, { do: 'tell', notice: 'dispute-opened' });
}

/** It goes on by its own calendar; periods that went by wholly while nothing was open are not charged. */
function winDispute(subscription: Subscription, terms: Terms, now: Instant): Transition {
  if (!subscription.disputedAt) return { ok: false, reason: 'Nothing of it is disputed.' };
  const free = { ...subscription, disputedAt: null };
  const current =
    free.state === 'trial' || free.state === 'active' ? skipGonePeriods(free, terms, now) : free;
  return done(current, { do: 'tell', notice: 'dispute-won' });
}

function loseDispute(subscription: Subscription, _terms: Terms, now: Instant): Transition {
  const since = subscription.disputedAt ?? now;
  return done(
    stop(subscription, subscription.endedAt ?? now),
    { do: 'release', at: since },
    { do: 'tell', notice: 'dispute-lost' },
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
