import { isBefore, type Instant } from '../calendar';
import { holdUntil } from './access';
import { named, type Book, type Subscription } from './book';
import { ask, charge } from './charging';
import { end, finish } from './ending';
import { beginningAt, nextAt, type Place } from '../offers/place';
import { beginDown, placeMoved } from './switching';
import { changed, isAsked, nextOf, offerNamed, refuse, underWay, type Work } from './work';

/** When something next falls due by itself; null where nothing will, or where a charge is under way. */
export function nextDue({ charges, subscriptions }: Book): Instant | null {
  if (charges.some(isAsked)) return null;
  const all = subscriptions.flatMap((one) => one.dueAt ?? []);
  return all.length === 0 ? null : all.reduce((a, b) => (isBefore(b, a) ? b : a));
}

/** Does what has fallen due: a retry, or what comes at the end of what is paid. */
export function due(work: Work): void {
  const { book, now } = work;
  if (underWay(work)) refuse('under way');
  const s = book.subscriptions.find(({ dueAt }) => dueAt !== null && !isBefore(now, dueAt));
  if (!s) return refuse('nothing due');
  if (s.state !== 'overdue') return endOfPaid(work, s, s.dueAt ?? now);
  if (s.disputes.length === 0) return ask(work, named(book.charges, s.unpaid ?? ''));
  s.dueAt = null;
}

/** What is paid has ended, at `at`. */
export function endOfPaid(work: Work, s: Subscription, at: Instant): void {
  if (s.state === 'cancelling') return end(work, s);
  if (!nextOf(work, s) && !s.switchesTo && !nextMoved(work, s, at)) return finish(work, s);
  if (s.disputes.length > 0) {
    s.dueAt = null;
  } else if (s.pauses) {
    Object.assign(s, { state: 'paused', pauses: false, dueAt: null });
    holdUntil(work.book, s, work.now, work.now);
    changed(s);
  } else if (s.switchesTo) beginDown(work, s);
  else chargeNext(work, s, at);
}

const nextMoved = (work: Work, s: Subscription, at: Instant) =>
  s.movesTo
    ? nextAt(placeMoved(work, s, s.movesTo, at), offerNamed(work, s.movesTo), work.terms.zone)
    : undefined;

/** Charges the next period, under the version that it moves to. */
export function chargeNext(work: Work, s: Subscription, at: Instant): void {
  if (s.movesTo && nextMoved(work, s, at)) {
    s.place = placeMoved(work, s, s.movesTo, at);
    s.offer = s.movesTo;
    s.movesTo = null;
  }
  const next = nextOf(work, s);
  if (next) charge(work, s, 'period', next);
  else finish(work, s);
}

/** Its place where its next period begins at `at`, and the calendar counts on from there. */
export function placeFrom(work: Work, s: Subscription, at: Instant): Place {
  const { last, from } = s.place;
  return beginningAt(s.place, at, nextOf(work, s) ?? (last ? { step: last.step, n: last.n + 1 } : from));
}
