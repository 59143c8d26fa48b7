import { earliest, fromMs, isBefore, latest, toMs, type Instant } from '../instants';
import { beginningAt, nextAt, type Place } from '../offers/place';
import { holdUntil, lastHolding } from './access';
import { own, type Book, type Charge, type Subscription } from './book';
import { ask, attemptOf, charge, declined, paid } from './charging';
import { end, finish } from './ending';
import { beginDown, placeMoved } from './switching';
import {
  askedOf,
  changed,
  daysAfter,
  isAsked,
  isKept,
  isOn,
  nextOf,
  offerNamed,
  offerOf,
  refuse,
  stretchesOf,
  tell,
  underWay,
  type Work,
} from './work';

/** When a subscription next does something by itself; null where nothing is to come, or a charge of its ladder is under way. */
export function nextDueOf({ charges, subscriptions }: Book, s: Subscription): Instant | null {
  if (s.dueAt === null) return null;
  const isHere = (id: string | null): boolean => subscriptions.some((one) => one.id === id && isOn(s, one));
  if (charges.some((one) => isAsked(one) && isHere(one.subscription))) return null;
  // What an event makes fall due in the past happens when that event did.
  return s.changedAt === null ? s.dueAt : latest(s.dueAt, s.changedAt);
}

/**
 * When the worker next has something to do: for an attempt that was asked for, at once, in case nobody is at work on it; for a
 * transfer at its last day; else for what falls due.
 */
export function nextWorkAt(book: Book, s: Subscription): { at: Instant | null; isAsked: boolean } {
  const mine = book.charges.find((one) => one.subscription === s.id && askedOf(one));
  const asked = mine && askedOf(mine);
  if (asked) return { at: asked.until ?? asked.at, isAsked: asked.until === null };
  return { at: nextDueOf(book, s), isAsked: false };
}

/** When something next falls due by itself in the whole book; null where nothing will. */
export function nextDue(book: Book): Instant | null {
  const all = book.subscriptions.flatMap((one) => nextDueOf(book, one) ?? []);
  return all.length === 0 ? null : all.reduce((a, b) => (isBefore(b, a) ? b : a));
}

/** Does what has fallen due here: a retry, or what comes at the end of what is paid. */
export function due(work: Work): void {
  const { book, now } = work;
  if (underWay(work)) refuse('under-way');
  const s = book.subscriptions.find(
    (one) => isOn(work, one) && one.dueAt !== null && !isBefore(now, one.dueAt),
  );
  if (!s) return refuse('nothing-due');
  const unpaid = book.charges.find(
    ({ state, subscription, kind }) =>
      state === 'open' && subscription === s.id && (kind === 'period' || kind === 'down'),
  );
  if (!unpaid) return endOfPaid(work, s, s.dueAt ?? now);
  if (s.disputes.length === 0) return ask(work, unpaid, s.method);
  s.dueAt = null;
}

/** What is paid has ended, at `at`. */
export function endOfPaid(work: Work, s: Subscription, at: Instant): void {
  if (s.state === 'cancelling') return end(work, s);
  const next = nextOf(work, s);
  if (!next && !s.switchesTo && !nextMoved(work, s, at)) return finish(work, s);
  if (s.disputes.length > 0) {
    s.dueAt = null;
  } else if (s.pauses) {
    Object.assign(s, { state: 'paused', pauses: false, dueAt: null });
    holdUntil(work, s, work.now);
    changed(work, s);
    tell(work, 'paused', s);
  } else if (s.switchesTo) beginDown(work, s);
  else chargeNext(work, s, at, next);
}

const nextMoved = (work: Work, s: Subscription, at: Instant) =>
  s.movesTo
    ? nextAt(placeMoved(work, s, s.movesTo, at), offerNamed(work, s.movesTo), work.context.zone)
    : undefined;

/** Charges the next period, under the version that it moves to. */
export function chargeNext(work: Work, s: Subscription, at: Instant, expected = nextOf(work, s)): void {
  const isMove = s.movesTo !== null && nextMoved(work, s, at) !== undefined;
  if (s.movesTo && isMove) {
    s.place = placeMoved(work, s, s.movesTo, at);
    s.offer = s.movesTo;
    s.movesTo = null;
  }
  const next = isMove ? nextOf(work, s) : expected;
  if (next) charge(work, s, 'period', next, { isMove });
  else finish(work, s);
}

/** Its place where its next period begins at `at`, and the calendar counts on from there. */
export function placeFrom(work: Work, s: Subscription, at: Instant): Place {
  const { last, from } = s.place;
  return beginningAt(s.place, at, nextOf(work, s) ?? (last ? { step: last.step, n: last.n + 1 } : from));
}

/**
 * A wallet's calendar may run ahead of ours, since it counts from its approval and we from when that reached us: a bill in
 * the second half of what is paid, or on its last day, is for what follows.
 */
function isForNext(work: Work, s: Subscription, dueAt: Instant): boolean {
  const paidFrom = stretchesOf(work, s).at(-1)?.from ?? dueAt;
  const half = fromMs((toMs(paidFrom) + toMs(dueAt)) / 2);
  return !isBefore(work.now, earliest(half, daysAfter(work, dueAt, -1)));
}

/**
 * A wallet has billed by itself: the bill is for the oldest unpaid charge, and where none is written yet, for the period
 * that is about to begin. @throws Refused where everything is paid: that bill is for nothing
 */
export function billed(work: Work, s: Subscription, answer: { ref: string; code?: string }): void {
  const { book } = work;
  const isOpen = ({ subscription, state }: Charge) => subscription === s.id && state === 'open';
  if (!book.charges.some(isOpen)) {
    const { dueAt, disputes, state } = s;
    if (dueAt === null || !isForNext(work, s, dueAt)) return refuse('nothing-due');
    if (disputes.length > 0 || (state !== 'trial' && state !== 'active')) return refuse('nothing-due');
    endOfPaid(work, s, dueAt);
  }
  const one = book.charges.find(isOpen);
  if (!one) return refuse('nothing-due');
  if (!askedOf(one)) attemptOf(work, one, s.method);
  // Nobody is to be asked for what has been billed.
  work.asks = work.asks.filter((ask) => ask.do !== 'collect' || ask.charge !== one.id);
  if (answer.code) declined(work, one, answer);
  else paid(work, one, answer);
}

/** Where nothing more can come, what is held ends with what is paid, whether or not the work that is due has been done. */
export function closeEnds(work: Work): void {
  for (const s of work.book.subscriptions) {
    if (s.state !== 'trial' && s.state !== 'active' && s.state !== 'cancelling') continue;
    const held = lastHolding(work.book, s.id);
    if (s.disputes.length > 0 || s.paidThrough === null || !held) continue;
    const { track, slot } = s;
    const isOver =
      (s.state === 'cancelling' || s.pauses || !goesOn(work, s)) &&
      !underWay({ book: work.book, track, slot });
    if (held.to === null && isOver) holdUntil(work, s, latest(s.paidThrough, work.now));
    else if (held.to !== null && !isOver && isBefore(work.now, held.to))
      own(work.book.holdings, held).to = null;
  }
}

const goesOn = (work: Work, s: Subscription): boolean => {
  const step = offerOf(work, s).steps[s.place.last?.step ?? 0];
  if (step?.kind === 'repeat' && step.times === null) return true;
  return s.switchesTo !== null || s.movesTo !== null || nextOf(work, s) !== undefined || isKept(work, s);
};
