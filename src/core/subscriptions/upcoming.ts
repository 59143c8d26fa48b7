import { addLength, type Instant } from '../calendar';
import { isRenewable, type Offer } from '../offers/offer';
import { nextAt } from '../offers/place';
import { nextPeriod, type Period } from '../offers/schedule';
import type { Subscription, Terms } from './subscription';

/** The period that begins after the last settled one; undefined where the schedule is finished. */
export function upcomingPeriod(subscription: Subscription, terms: Terms): Period | undefined {
  return periodAfter(subscription, terms, subscription.period);
}

/**
 * The period that a payment made at `now` is for. What is paused or has ended takes its schedule up again at that
 * moment; everything else keeps its calendar.
 */
export function periodToPay(subscription: Subscription, terms: Terms, now: Instant): Period | undefined {
  return upcomingPeriod(takenUp(subscription, terms, now), terms);
}

/** The subscription with its schedule taken up again at `now`, where it had stopped; else as it is. */
export function takenUp(subscription: Subscription, terms: Terms, now: Instant): Subscription {
  const { period, state } = subscription;
  if ((state !== 'paused' && state !== 'ended') || period === null) return subscription;
  const { steps, joiningFee } = terms.offer;
  const isFeePaid =
    joiningFee?.due === 'start' || steps.slice(0, period.step + 1).some((step) => step.amount > 0);
  return {
    ...subscription,
    startedAt: now,
    skipFee: subscription.skipFee || isFeePaid,
    takesUp: { step: period.step, n: period.n + 1 },
  };
}

function periodAfter(
  { startedAt: anchor, takesUp: from, skipTrial, skipFee }: Subscription,
  { offer, zone }: Terms,
  last: Subscription['period'],
): Period | undefined {
  return nextAt({ anchor, from, last, skipTrial, skipFee }, offer, zone);
}

/** The offer as it is charged to this subscription. */
export function offerOf({ skipFee }: Subscription, { offer }: Terms): Offer {
  return skipFee ? { ...offer, joiningFee: undefined } : offer;
}

/**
 * The subscription as it begins under the offer it moves to, at the end of what is paid: without trial and without
 * joining fee. Null where it does not move, or where nothing of that offer is left.
 */
export function movedOn(
  subscription: Subscription,
  terms: Terms,
): { subscription: Subscription; terms: Terms } | null {
  const { paidThrough, period } = subscription;
  if (!terms.movesTo || paidThrough === null) return null;
  const moved: Subscription = {
    ...subscription,
    state: 'active',
    startedAt: paidThrough,
    takesUp: { step: 0, n: 0 },
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
  const { paidThrough, state, disputedAt } = subscription;
  const last = offer.steps.length - 1;
  const step = offer.steps[last];
  const isLast = subscription.period?.step === last;
  if (!offer.renewal || !isRenewable(offer) || !isLast || paidThrough === null || disputedAt) return null;
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

/** The next charge above zero that will fall due as things stand; null where none will. */
export function nextCharge(subscription: Subscription, terms: Terms): { at: Instant; period: Period } | null {
  const { state, pauses, disputedAt } = subscription;
  if (state === 'cancelling' || state === 'ended' || state === 'paused') return null;
  if (pauses || disputedAt) return null;
  if (state === 'overdue') {
    const period = upcomingPeriod(subscription, terms);
    return period ? { at: subscription.dueAt ?? period.from, period } : null;
  }
  const moved = movedOn(subscription, terms);
  if (moved) return nextCharge(moved.subscription, moved.terms);
  let last = subscription.period;
  for (;;) {
    const period = periodAfter(subscription, terms, last);
    if (!period) return null;
    if (period.amount > 0) return { at: period.from, period };
    const step = terms.offer.steps[period.step];
    // An endless step without a price never comes to a charge.
    if (period.to === null || (step?.kind === 'repeat' && step.times === null)) return null;
    last = { step: period.step, n: period.n };
  }
}
