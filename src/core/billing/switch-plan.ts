import { isBefore, type Instant } from '../instants';
import type { Offer } from '../offers/offer';
import { prorate } from '../prorate';
import type { Subscription, SwitchPlan, UnusedCredit } from './book';
import { worthOf } from './credit';
import { directionOf } from './direction';
import {
  daysAfter,
  ladderOf,
  offerNamed,
  offerOf,
  refuse,
  refuseDisputed,
  stretchesOf,
  summaryOf,
  type Work,
} from './work';

/** Higher rung: up; lower: down; on the same rung a longer period is up, and what is equal is down. */
export function directionTo(work: Work, s: Subscription, to: string): 'up' | 'down' {
  const { rungs } = ladderOf(work);
  const placed = (offer: Offer) => ({ rung: rungs.indexOf(offer.tier), offer });
  return directionOf(placed(offerOf(work, s)), placed(offerNamed(work, to)));
}

/** How a switch would be done now, and what is credited. @throws Refused */
export function planSwitch(work: Work, s: Subscription, to: string): SwitchPlan {
  const { now } = work;
  const { downAtOnce, creditUnused } = ladderOf(work);
  if (to === s.offer) refuse('same');
  if (offerOf(work, s).currency !== offerNamed(work, to).currency) refuse('currency');
  refuseDisputed(s);
  const direction = directionTo(work, s, to);
  const until = direction === 'up' ? waitUntil(work) : null;
  if (until && isBefore(now, until)) refuse('wait');
  if (direction === 'down' && s.state === 'cancelling') refuse('cancelling');
  const isStopped = s.state === 'overdue' || s.state === 'paused';
  const atOnce =
    s.state === 'overdue' ||
    direction === 'up' ||
    (s.state !== 'paused' && (downAtOnce || s.paidThrough === null));
  return { direction, atOnce, unused: atOnce && creditUnused && !isStopped ? unusedOf(work, s) : [] };
}

/** The end of the wait before a first switch up; null where there is none. */
export function waitUntil(work: Work): Instant | null {
  const { joinedAt, hasSwitchedUp } = summaryOf(work);
  return hasSwitchedUp || joinedAt === null ? null : daysAfter(work, joinedAt, ladderOf(work).waitDays);
}

/** Credit for each stretch that is not over: by its unused days, or in full where it has not begun. A trial gives none. */
function unusedOf(work: Work, s: Subscription): UnusedCredit[] {
  const { book, now, context } = work;
  return stretchesOf(work, s).flatMap(({ charge, period, from, to, ...rest }) => {
    if (to === null || !isBefore(now, to) || period.kind === 'trial') return [];
    const worth = worthOf(book, { charge, period, from, to, ...rest });
    const amount = isBefore(now, from) ? worth : prorate(worth, from, to, now, context.zone).credit;
    return amount > 0 ? [{ charge, amount }] : [];
  });
}
