import { isBefore } from '../instants';
import { nextAt } from '../offers/place';
import type { Period } from '../offers/schedule';
import type { Subscription } from './book';
import { lastHolding } from './access';
import { charge, undoCancel } from './charging';
import { placeFrom } from './due';
import { end } from './ending';
import { beginDown, placeMoved } from './switching';
import {
  changed,
  current,
  isKept,
  nextOf,
  offerNamed,
  offerOf,
  refuse,
  refuseDisputed,
  refuseUnderWay,
  running,
  tell,
  type Work,
} from './work';

/** Ends at the end of what is paid; at once where it is overdue or paused. */
export function cancel(work: Work): void {
  const s = toCancel(work);
  if (s.state === 'pending' || s.state === 'overdue' || s.state === 'paused') return end(work, s);
  if (s.state === 'cancelling') refuse('already');
  if (isKept(work, s)) refuse('nothing-to-cancel');
  Object.assign(s, { state: 'cancelling', switchesTo: null, pauses: false });
  changed(work, s);
  tell(work, 'cancelled', s);
}

export function cancelNow(work: Work): void {
  const s = toCancel(work);
  if (s.state !== 'pending' && isKept(work, s)) refuse('nothing-to-cancel');
  end(work, s);
}

/** Staff end it and what is held by it, also where that was kept for good. @throws Refused where nothing is held by it now */
export function takeAway(work: Work, s: Subscription): void {
  refuseUnderWay(work);
  const held = lastHolding(work.book, s.id);
  const isHeld = held !== undefined && (held.to === null || isBefore(work.now, held.to));
  if (s.state === 'ended' && !isHeld) refuse('ended');
  end(work, s);
}

/** A first payment that is awaited can be cancelled too; nothing else that is under way can. */
function toCancel(work: Work): Subscription {
  const s = current(work) ?? refuse('nothing-to-cancel');
  if (s.state !== 'pending') refuseUnderWay(work);
  return s;
}

export function undo(work: Work): void {
  const s = running(work);
  refuseUnderWay(work);
  if (s.state !== 'cancelling') return refuse('not-cancelled');
  undoCancel(work, s);
  tell(work, 'cancel-undone', s);
}

/** From the end of what is paid. */
export function pause(work: Work): void {
  const s = running(work);
  refuseUnderWay(work);
  if (s.state !== 'trial' && s.state !== 'active') return refuse(s.state);
  refuseDisputed(s);
  if (s.pauses) refuse('already');
  if (s.paidThrough === null || (!nextOf(work, s) && !s.switchesTo)) refuse('nothing-to-pause');
  s.pauses = true;
  changed(work, s);
  tell(work, 'pause-asked', s);
}

/** Withdraws a pause that has not begun; else the next period begins now, once it is paid. */
export function resume(work: Work): void {
  const s = running(work);
  refuseUnderWay(work);
  if (s.pauses) {
    s.pauses = false;
    changed(work, s);
    return tell(work, 'pause-undone', s);
  }
  if (s.state !== 'paused') return refuse('not-paused');
  refuseDisputed(s);
  if (s.switchesTo) return beginDown(work, s);
  charge(work, s, 'resume', resumedAt(work, s) ?? refuse('nothing-left'));
}

/** The period that begins when it is resumed now; undefined where a date has passed. */
export function resumedAt(work: Work, s: Subscription): Period | undefined {
  const { now, context } = work;
  const next = s.movesTo
    ? nextAt(placeMoved(work, s, s.movesTo, now), offerNamed(work, s.movesTo), context.zone)
    : nextAt(placeFrom(work, s, now), offerOf(work, s), context.zone);
  return next && (next.to === null || !isBefore(next.to, now)) ? next : undefined;
}
