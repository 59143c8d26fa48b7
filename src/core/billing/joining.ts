import { isBefore } from '../instants';
import { named, type Charge, type Discount, type Method, type Subscription } from './book';
import { ask, begin, beginsAs, charge, firstPeriod, paid, write, type Answer } from './charging';
import { drop, withdraw } from './ending';
import { RUNNING } from './states';
import { renewableFrom, renewalAt } from './renewal';
import { switchTo } from './switching';
import {
  askedOf,
  current,
  isAsked,
  isKept,
  isOn,
  lastAttempt,
  offerOf,
  refuse,
  refuseDisputed,
  refuseUnderWay,
  runningHere,
  summaryOf,
  type Work,
} from './work';

/** Joins by an offer; while a subscription of the ladder runs, that is a switch. */
export function join(work: Work, offer: string, discount: Discount | null, method: Method | null): void {
  const runs = runningHere(work);
  if (runs && !standsBeside(work, runs)) return switchTo(work, offer);
  // Also beside what is kept for good one thing begins at a time.
  if (work.book.subscriptions.some((one) => one.state === 'pending' && isOn(work, one))) refuse('pending');
  const s = begin(work, offer, joins(work, method, discount));
  charge(work, s, 'first', firstPeriod(work, s));
}

/** Nothing more is charged for it and its tier is kept: what is joined beside it takes nothing from it. */
export const standsBeside = (work: Work, s: Subscription): boolean =>
  s.paidThrough !== null && s.state === 'active' && !s.switchesTo && !s.movesTo && isKept(work, s);

/** How a joining begins: with the fee, and with a trial where the person has had none on this ladder. */
export const joins = (work: Work, method: Method | null, discount: Discount | null) => ({
  begunBy: 'first' as const,
  skipTrial: summaryOf(work).hadTrial,
  skipFee: false,
  replaces: runningHere(work)?.id ?? null,
  discount,
  method,
});

/** A further length of what runs, or, after a lapse, another subscription, without trial and with the joining fee. */
export function renew(work: Work, method?: Method | null): void {
  const s = current(work);
  if (!s) {
    const last = work.book.subscriptions.findLast(
      (one) => one.beganAt !== null && one.track === work.track && one.slot === work.slot,
    );
    if (!last || !offerOf(work, last).renewal) return refuse('nothing-runs');
    const again = begin(work, last.offer, {
      ...joins(work, method === undefined ? last.method : method, null),
      skipTrial: true,
    });
    return charge(work, again, 'first', firstPeriod(work, again));
  }
  refuseUnderWay(work);
  if (s.state !== 'active' && s.state !== 'cancelling') return refuse(s.state);
  refuseDisputed(s);
  const from = renewableFrom(work, s);
  if (from === null || s.paidThrough === null) return refuse('not-renewed');
  if (isBefore(work.now, from)) refuse('too-early');
  charge(work, s, 'renewal', renewalAt(work, s, s.paidThrough));
}

/** The member pays what is unpaid. */
export function payNow(work: Work): void {
  const s = current(work);
  if (!s) return refuse('nothing-runs');
  refuseDisputed(s);
  refuseUnderWay(work);
  if (!s.unpaid) return refuse('nothing-unpaid');
  // The payer is on the wallet's page: what they decide there pays, or does not.
  if (work.book.checkouts.some((one) => one.subscription === s.id && one.state === 'approving'))
    return refuse('pending');
  ask(work, named(work.book.charges, s.unpaid), s.method, true);
}

/**
 * Another method from now on. A transfer that is awaited is asked for by it at once, and is still good where that is
 * declined; so is what is overdue.
 */
export function changeMethod(work: Work, s: Subscription, method: Method): void {
  if (s.state === 'ended') refuse('ended');
  const open = work.book.charges.find((one) => one.subscription === s.id && one.state === 'open');
  const asked = open && askedOf(open);
  if (asked && (asked.until === null || method.nature === 'transfer')) refuse('under-way');
  if (!asked) refuseUnderWay(work);
  s.method = method;
  if (!open || s.disputes.length > 0) return;
  if (asked) withdraw(open);
  if (asked || s.state === 'overdue') ask(work, open, method, true);
}

/**
 * Begins what a checkout is for, once more where its payment was declined: the charge of before is dropped, and what is
 * written is what was shown now.
 */
export function beginAgain(
  work: Work,
  s: Subscription,
  offer: string,
  beginning: Parameters<typeof beginsAs>[2],
): void {
  for (const one of work.book.charges) if (one.subscription === s.id && one.state === 'open') drop(work, one);
  Object.assign(s, { state: 'pending', endedAt: null, unpaid: null }, beginsAs(work, offer, beginning));
}

/** The first charge of a checkout; written, and not asked for yet. */
export const writeFirst = (work: Work, s: Subscription, unused: Charge['unused'] = []): Charge =>
  write(work, s, s.begunBy === 'switch' ? 'switch' : 'first', firstPeriod(work, s), { unused });

/**
 * A declined payment turns out to have succeeded. It pays for what still runs, and restarts what ended unpaid; after any
 * other end, or where another subscription runs by now, the money is returned.
 */
export function lateSuccess(work: Work, late: Charge | undefined, answer: Answer = {}): void {
  if (!late || late.kind === 'resume') return refuse('nothing-unpaid');
  if (late.subscription === null) return paid(work, late, answer);
  const s = named(work.book.subscriptions, late.subscription);
  refuseDisputed(s);
  if (work.book.charges.some((one) => isAsked(one) && one.subscription === s.id)) refuse('under-way');
  // What runs by now is not ended by money that comes for something else.
  const runs = work.book.subscriptions.find(
    (one) => one.id !== s.id && isOn(s, one) && RUNNING.has(one.state),
  );
  if (late.kind === 'first' && runs && !standsBeside(work, runs)) return takeUnusable(work, late, answer);
  if (late.state === 'dropped' && s.endedUnpaid && s.unpaid === late.id && !current(work))
    late.state = 'open';
  paid(work, late, answer);
}

/** The charge of the last attempt that was declined, where it was not paid since. */
export function lastDeclined({ book }: Work): Charge | undefined {
  const all = book.charges.flatMap((one) => {
    const attempt = lastAttempt(one);
    return one.state !== 'paid' && attempt?.state === 'declined' ? [{ one, at: attempt.at }] : [];
  });
  return all.reduce<(typeof all)[number] | undefined>(
    (a, b) => (a && isBefore(b.at, a.at) ? a : b),
    undefined,
  )?.one;
}

/** Money arrived for something that can no longer begin: it is recorded, and returned. */
export function takeUnusable(work: Work, one: Charge, answer: Answer): void {
  if (askedOf(one)) refuse('under-way');
  if (one.state === 'open') drop(work, one);
  paid(work, one, answer);
}
