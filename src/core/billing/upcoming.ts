import { addLength, localDate } from '../calendar';
import { isBefore, type Instant, type Length } from '../instants';
import { afterCharge, discounted } from './discount';
import { billingStages, type BillingStage } from '../offers/carries';
import type { Offer } from '../offers/offer';
import { nextAt, type Place } from '../offers/place';
import type { Period } from '../offers/schedule';
import type { Subscription, BillingContext } from './book';
import { placeMoved } from './switching';

/** What coming charges are worked out from. */
export type Schedule = Pick<BillingContext, 'zone' | 'offers'>;

/** Where it will be once the current period ends: under its own offer, or the one it changes to. */
function ahead(s: Subscription, context: Schedule): { offer: string; place: Place } {
  const { paidThrough, switchesTo, movesTo } = s;
  if (switchesTo && paidThrough) {
    const from = { step: 0, n: 0 };
    const place = { anchor: paidThrough, from, last: null, skipTrial: true, skipFee: true };
    return { offer: switchesTo, place };
  }
  if (movesTo && paidThrough)
    return { offer: movesTo, place: placeMoved({ context }, s, movesTo, paidThrough) };
  return { offer: s.offer, place: s.place };
}

/** What is charged next, less a discount and before credit, and when; minor units. Null where nothing more will be. */
export function nextCharge(
  s: Subscription,
  context: Schedule,
): { at: Instant; amount: number; period: Period } | null {
  const { state, pauses, disputes } = s;
  if (state === 'cancelling' || state === 'ended' || state === 'paused' || pauses || disputes.length > 0)
    return null;
  const { offer: id, place } = ahead(s, context);
  const offer = context.offers[id];
  if (!offer) return null;
  const discount = id === s.offer ? s.discount : null;
  for (let here = place; ;) {
    const period = nextAt(here, offer, context.zone);
    if (!period) return null;
    const amount = discounted(discount, period.amount - period.joiningFee) + period.joiningFee;
    // What is overdue is asked for again, whatever its calendar says.
    if (amount > 0)
      return { at: state === 'overdue' ? (s.dueAt ?? period.from) : period.from, amount, period };
    if (isEndlesslyFree(offer, period)) return null;
    const skipFee = here.skipFee || period.joiningFee > 0;
    here = { ...here, skipFee, last: { step: period.step, n: period.n, to: period.to } };
  }
}

/** So many charges are worked out ahead, at most. */
const MOST_AHEAD = 60;

/** The charges until an instant as things are: none fails, and nothing is cancelled. Minor units, before credit. */
export function chargesAhead(
  s: Subscription,
  context: Schedule,
  until: Instant,
): { at: Instant; amount: number }[] {
  const charges: { at: Instant; amount: number }[] = [];
  for (let here = s; charges.length < MOST_AHEAD;) {
    const next = nextCharge(here, context);
    if (!next || !isBefore(next.at, until)) break;
    const { at, amount, period } = next;
    charges.push({ at, amount });
    const { offer, place } = ahead(here, context);
    const isSame = offer === here.offer;
    here = {
      ...here,
      state: 'active',
      offer,
      switchesTo: null,
      movesTo: null,
      discount: isSame ? afterCharge(here.discount, period.amount - period.joiningFee) : null,
      place: {
        ...place,
        skipFee: place.skipFee || period.joiningFee > 0,
        last: { step: period.step, n: period.n, to: period.to },
      },
    };
  }
  return charges;
}

const isEndlesslyFree = (offer: Offer, { step: index, to, amount }: Period): boolean => {
  const step = offer.steps[index];
  return to === null || (amount === 0 && step?.kind === 'repeat' && step.times === null);
};

/** Days before the first charge after a trial, and before one that comes after a long period, at which a member is told. */
const TRIAL_DAYS = 3;
const RENEWAL_DAYS = 14;
/** A period of this many days or more is long: who pays monthly is not written to each time. */
const LONG_DAYS = 60;
const DAYS: Record<Length['unit'], number> = { hour: 1 / 24, day: 1, week: 7, month: 30, year: 365 };

export type Reminder = {
  kind: 'trial-ends' | 'renewal-soon';
  /** When to tell. */
  remindAt: Instant;
  /** What will be charged, and when. */
  at: Instant;
  amount: number;
  period: Period;
};

/** The reminder that comes before the next charge of a subscription; null where none does. */
export function reminderOf(s: Subscription, context: Schedule): Reminder | null {
  const { state, beganAt, place } = s;
  if ((state !== 'trial' && state !== 'active') || beganAt === null) return null;
  const next = nextCharge(s, context);
  if (!next) return null;
  const isTrial = state === 'trial';
  const step = context.offers[s.offer]?.steps[place.last?.step ?? 0];
  const lasts = step?.kind === 'repeat' ? step.every : step?.lasts;
  const isLong = typeof lasts === 'object' && ('until' in lasts || lasts.n * DAYS[lasts.unit] >= LONG_DAYS);
  if (!isTrial && !isLong) return null;
  const remindAt = addLength(
    next.at,
    { n: -(isTrial ? TRIAL_DAYS : RENEWAL_DAYS), unit: 'day' },
    context.zone,
  );
  // So short a trial was announced at joining.
  if (!isBefore(beganAt, remindAt)) return null;
  return { kind: isTrial ? 'trial-ends' : 'renewal-soon', remindAt, ...next };
}

/** What a wallet is to bill for a subscription that runs already. */
export type BillingAhead = {
  /** Of `context.offers`: what it bills. */
  offer: string;
  stages: BillingStage[];
  /** Its first bill: when the next period begins, or now where that one is owed. */
  startsAt: Instant;
  /** The calendar of the first stage: when it began, and how many of its periods are settled. */
  takesUp: { from: Instant; n: number };
};

/**
 * The rest of a subscription's schedule as a wallet bills it, from the first period that is not settled, on the calendar
 * it has. Where it goes over to another offer, that one's. Null where nothing is left to bill.
 */
export function billingAhead(s: Subscription, context: Schedule, now: Instant): BillingAhead | null {
  const { offer: id, place } = ahead(s, context);
  const whole = context.offers[id];
  const next = whole && nextAt(place, whole, context.zone);
  if (!next) return null;
  const first = firstOfStep(place, whole, context.zone, next);
  const isFeeAhead =
    next.joiningFee > 0 ||
    (next.amount === 0 &&
      !place.skipFee &&
      whole.joiningFee?.due === 'first-payment' &&
      whole.steps.slice(0, next.step + 1).every((step) => step.amount === 0));
  const rest = {
    ...whole,
    joiningFee: isFeeAhead ? whole.joiningFee : undefined,
    steps: whole.steps.slice(next.step),
  };
  const stages = billingStages(rest, false, localDate(next.from, context.zone));
  const [stage] = stages;
  if (!stage || stages.every(({ amount, first: bill }) => amount === 0 && bill === 0)) return null;
  // A step resumed after a pause has fewer periods left than the offer gives it.
  const cut = stage.times === null || first.n === 0 ? stage : { ...stage, times: stage.times - first.n };
  return {
    offer: id,
    stages: [cut, ...stages.slice(1)],
    startsAt: isBefore(next.from, now) ? now : next.from,
    takesUp: { from: first.from, n: next.n - first.n },
  };
}

/** The period with which the step of another period began, on this calendar. */
function firstOfStep(place: Place, offer: Offer, zone: string, of: Period): Period {
  let here: Place = { ...place, last: null };
  let period = nextAt(here, offer, zone);
  while (period && period.step < of.step) {
    here = { ...here, last: { step: period.step, n: period.n, to: period.to } };
    period = nextAt(here, offer, zone);
  }
  return period ?? of;
}
