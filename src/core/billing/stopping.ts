import { isBefore } from '../calendar';
import type { Subscription } from './book';
import { charge, undoCancel } from './charging';
import { placeFrom } from './due';
import { end } from './ending';
import { nextAt } from '../offers/place';
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
  type Work,
} from './work';

/** Ends at the end of what is paid; at once where it is overdue or paused. */
export function cancel(work: Work): void {
  const s = toCancel(work);
  if (s.state === 'pending' || s.state === 'overdue' || s.state === 'paused') return end(work, s);
  if (s.state === 'cancelling') refuse('already');
  if (isKept(work, s)) refuse('nothing to cancel');
  Object.assign(s, { state: 'cancelling', switchesTo: null, pauses: false });
  changed(s);
}

export function cancelNow(work: Work): void {
  const s = toCancel(work);
  if (s.state !== 'pending' && isKept(work, s)) refuse('nothing to cancel');
  end(work, s);
}

/** A first payment that is awaited can be cancelled too; nothing else that is under way can. */
function toCancel(work: Work): Subscription {
  const s = current(work) ?? refuse('nothing to cancel');
  if (s.state !== 'pending') refuseUnderWay(work);
  return s;
}

export function undo(work: Work): void {
  const s = running(work);
  refuseUnderWay(work);
  if (s.state !== 'cancelling') return refuse('nothing to undo');
  undoCancel(work, s);
}

/** From the end of what is paid. */
export function pause(work: Work): void {
  const s = running(work);
  refuseUnderWay(work);
  if (s.state !== 'trial' && s.state !== 'active') return refuse(s.state);
  refuseDisputed(s);
  if (s.pauses) refuse('already');
  if (s.paidThrough === null || (!nextOf(work, s) && !s.switchesTo)) refuse('nothing to pause');
  s.pauses = true;
  changed(s);
}

/** Withdraws a pause that has not begun; else the next period begins now, once it is paid. */
export function resume(work: Work): void {
  const s = running(work);
  refuseUnderWay(work);
  if (s.pauses) {
    s.pauses = false;
    return changed(s);
  }
  if (s.state !== 'paused') return refuse('not paused');
  refuseDisputed(s);
  if (s.switchesTo) return beginDown(work, s);
  const { now, terms } = work;
  const next = s.movesTo
    ? nextAt(placeMoved(work, s, s.movesTo, now), offerNamed(work, s.movesTo), terms.zone)
    : nextAt(placeFrom(work, s, now), offerOf(work, s), terms.zone);
  if (!next || (next.to !== null && isBefore(next.to, now))) return refuse('nothing left');
  charge(work, s, 'resume', next);
}
