import { isBefore } from '../calendar';
import { isRenewable } from '../offers/offer';
import { named, type Charge, type Discount } from './book';
import { ask, begin, charge, firstPeriod, paid } from './charging';
import { end } from './ending';
import { renewalAt } from './renewal';
import { switchTo } from './switching';
import {
  current,
  daysAfter,
  isAsked,
  offerOf,
  refuse,
  refuseDisputed,
  refuseUnderWay,
  stretchesOf,
  type Work,
} from './work';

/** Joins by an offer; while a subscription of the ladder runs, that is a switch. */
export function join(work: Work, offer: string, discount: Discount | null): void {
  const already = current(work);
  if (already?.state === 'pending') refuse('pending');
  if (already) return switchTo(work, offer);
  beginFirst(work, offer, work.book.hadTrial, discount);
}

function beginFirst(work: Work, offer: string, skipTrial: boolean, discount: Discount | null = null): void {
  const s = begin(work, offer, { skipTrial, skipFee: false, discount });
  charge(work, s, 'first', firstPeriod(work, s));
}

/** A further length of what runs, or, after a lapse, another subscription, without trial and with the joining fee. */
export function renew(work: Work): void {
  const s = current(work);
  if (!s) {
    const last = work.book.subscriptions.findLast((one) => one.beganAt !== null);
    if (!last || !offerOf(work, last).renewal) return refuse('nothing runs');
    return beginFirst(work, last.offer, true);
  }
  refuseUnderWay(work);
  if (s.state !== 'active' && s.state !== 'cancelling') return refuse(s.state);
  refuseDisputed(s);
  const offer = offerOf(work, s);
  const isLast = stretchesOf(work, s).at(-1)?.period.step === offer.steps.length - 1;
  if (!offer.renewal || !isRenewable(offer) || s.paidThrough === null || !isLast)
    return refuse('not renewed');
  if (isBefore(work.now, daysAfter(work, s.paidThrough, -offer.renewal.daysBefore))) refuse('too early');
  charge(work, s, 'renewal', renewalAt(work, s, s.paidThrough));
}

/** A checkout that was never paid has expired. */
export function expire(work: Work): void {
  const s = current(work);
  if (s?.state !== 'pending') return refuse('nothing pending');
  refuseUnderWay(work);
  end(work, s);
}

/** The member pays what is unpaid. */
export function payNow(work: Work): void {
  const s = current(work);
  if (!s) return refuse('nothing runs');
  refuseDisputed(s);
  refuseUnderWay(work);
  if (!s.unpaid) return refuse('nothing unpaid');
  ask(work, named(work.book.charges, s.unpaid));
}

/**
 * A declined payment turns out to have succeeded. It pays for what still runs, and restarts what ended unpaid; after any
 * other end, or where another subscription runs by now, the money is returned.
 */
export function lateSuccess(work: Work): void {
  const late = lastDeclined(work);
  if (!late || late.kind === 'resume') return refuse('nothing unpaid');
  const s = named(work.book.subscriptions, late.subscription);
  refuseDisputed(s);
  if (work.book.charges.some((one) => isAsked(one) && one.subscription === s.id)) refuse('under way');
  if (late.state === 'dropped' && s.endedUnpaid && s.unpaid === late.id && !current(work))
    late.state = 'open';
  paid(work, late);
}

/** The charge of the last attempt that was declined, where it was not paid since. */
function lastDeclined({ book }: Work): Charge | undefined {
  const all = book.charges.flatMap((one) => {
    const attempt = one.attempts.at(-1);
    return one.state !== 'paid' && attempt?.state === 'declined' ? [{ one, at: attempt.at }] : [];
  });
  return all.reduce<(typeof all)[number] | undefined>(
    (a, b) => (a && isBefore(b.at, a.at) ? a : b),
    undefined,
  )?.one;
}
