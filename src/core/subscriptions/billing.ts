import { isBefore, localDate, type Instant } from '../calendar';
import { billingStages, type BillingStage } from '../offers/carries';
import type { Period } from '../offers/schedule';
import type { Subscription, Terms } from './subscription';
import { movedOn, offerOf, upcomingPeriod } from './upcoming';

/** What a wallet is to bill for a subscription that runs already. */
export type BillingAhead = {
  stages: BillingStage[];
  /** Its first bill: when the next period begins, or now where that one is owed. */
  startsAt: Instant;
  /** The calendar of the first stage: when it began, and how many of its periods are settled. */
  takesUp: { from: Instant; n: number };
};

/**
 * The rest of a subscription's schedule as a wallet bills it, from the first period that is not settled, on the calendar
 * it has. Where it moves to another offer, that one's. Null where nothing is left to bill.
 */
export function billingAhead(subscription: Subscription, terms: Terms, now: Instant): BillingAhead | null {
  const moved = movedOn(subscription, terms);
  const [runs, under] = moved ? [moved.subscription, moved.terms] : [subscription, terms];
  const next = upcomingPeriod(runs, under);
  if (!next) return null;
  const first = firstOfStep(runs, under, next);
  const offer = offerOf(runs, under);
  const isFeeAhead =
    next.joiningFee > 0 ||
    (next.amount === 0 &&
      offer.joiningFee?.due === 'first-payment' &&
      offer.steps.slice(0, next.step + 1).every((step) => step.amount === 0));
  const rest = {
    ...offer,
    joiningFee: isFeeAhead ? offer.joiningFee : undefined,
    steps: offer.steps.slice(next.step),
  };
  const stages = billingStages(rest, false, localDate(next.from, under.zone));
  const [stage] = stages;
  if (!stage || stages.every(({ amount, first: bill }) => amount === 0 && bill === 0)) return null;
  const settled = next.n - first.n;
  // A step taken up after a pause has fewer periods left than the offer gives it.
  const gone = first.n;
  const cut = stage.times === null || gone === 0 ? stage : { ...stage, times: stage.times - gone };
  return {
    stages: [cut, ...stages.slice(1)],
    startsAt: isBefore(next.from, now) ? now : next.from,
    takesUp: { from: first.from, n: settled },
  };
}

/** The period with which the step of another period began. */
function firstOfStep(subscription: Subscription, terms: Terms, of: Period): Period {
  let period = upcomingPeriod({ ...subscription, period: null }, terms);
  while (period && period.step < of.step)
    period = upcomingPeriod({ ...subscription, period: { step: period.step, n: period.n } }, terms);
  return period ?? of;
}
