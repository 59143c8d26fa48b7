import { addLength, endOfDate, isBefore, type Instant } from '../calendar';
import type { Offer, Step } from './offer';

/** One stretch of an offer with at most one charge, due at its start. `to` is null where it never ends. */
export type Period = {
  step: number;
  n: number;
  kind: Step['kind'];
  tier: string;
  from: Instant;
  to: Instant | null;
  /** All that is due at `from`, joining fee included, in minor units. */
  amount: number;
  joiningFee: number;
};

export type Charge = { at: Instant; amount: number; why: Step['kind']; joiningFee: number };
export type AccessInterval = { tier: string; from: Instant; to: Instant | null };

/**
 * Every period of an offer in order, for somebody who joined at `start`; endless where the offer is.
 * Each step's periods are counted from that step's own start in the site's `zone`.
 */
export function* periods(offer: Offer, start: Instant, zone: string, skipTrial: boolean): Generator<Period> {
  let cursor: Instant = start;
  let fee = offer.joiningFee?.amount ?? 0;
  const feeAtStart = offer.joiningFee?.due === 'start';
  for (const [index, step] of offer.steps.entries()) {
    if (step.kind === 'trial' && skipTrial) continue;
    const stepStart = cursor;
    const count = step.kind === 'repeat' ? (step.times ?? Infinity) : 1;
    for (let n = 0; n < count; n++) {
      const from = n === 0 ? stepStart : cursor;
      const to = periodEnd(step, stepStart, n, zone);
      // A step that is over when it is reached is as if absent; so is a day that a zone left out of its calendar.
      if (to !== null && !isBefore(from, to)) continue;
      const joiningFee = fee > 0 && (feeAtStart || step.amount > 0) ? fee : 0;
      fee -= joiningFee;
      const tier = step.tier ?? offer.tier;
      yield { step: index, n, kind: step.kind, tier, from, to, amount: step.amount + joiningFee, joiningFee };
      if (to === null) return;
      cursor = to;
    }
  }
}

function periodEnd(step: Step, stepStart: Instant, n: number, zone: string): Instant | null {
  if (step.kind === 'repeat') return addLength(stepStart, step.every, zone, n + 1);
  if (step.lasts === 'forever') return null;
  if ('until' in step.lasts) return endOfDate(step.lasts.until, zone);
  return addLength(stepStart, step.lasts, zone);
}

/**
 * What an offer means for somebody who joins at `start`: every charge due before `horizon`, in order, and
 * every access interval that begins before it. A period that straddles the horizon is whole; adjoining
 * intervals of one tier are one. Nothing is listed where nothing is due.
 * @param start instant of joining, UTC
 * @param zone the site's IANA zone, in which the calendar is counted
 * @param skipTrial for a returning person, who gets no second trial
 */
export function expand(offer: Offer, start: Instant, zone: string, horizon: Instant, skipTrial: boolean) {
  const charges: Charge[] = [];
  const access: AccessInterval[] = [];
  let last: Period | undefined;
  let exhausted = true;
  for (const period of periods(offer, start, zone, skipTrial)) {
    if (!isBefore(period.from, horizon)) {
      exhausted = false;
      break;
    }
    last = period;
    if (period.amount > 0) {
      charges.push({
        at: period.from,
        amount: period.amount,
        why: period.kind,
        joiningFee: period.joiningFee,
      });
    }
    append(access, { tier: period.tier, from: period.from, to: period.to });
  }
  const end = last?.to;
  if (exhausted && last && end && offer.after === 'keep' && isBefore(end, horizon)) {
    append(access, { tier: last.tier, from: end, to: null });
  }
  return { charges, access };
}

function append(access: AccessInterval[], next: AccessInterval): void {
  const previous = access.at(-1);
  if (previous && previous.tier === next.tier && previous.to === next.from) previous.to = next.to;
  else access.push(next);
}

/** The period that comes after the one named by `after`, or the first; undefined where the schedule is finished. */
export function nextPeriod(
  offer: Offer,
  start: Instant,
  zone: string,
  skipTrial: boolean,
  after: { step: number; n: number } | null,
): Period | undefined {
  for (const period of periods(offer, start, zone, skipTrial)) {
    if (!after || period.step > after.step || (period.step === after.step && period.n > after.n))
      return period;
  }
  return undefined;
}
