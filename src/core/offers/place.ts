import type { Instant } from '../instants';
import type { Offer } from './offer';
import { nextPeriod, type Period } from './schedule';

/** Where a subscription is in its offer: the calendar of `anchor` takes the offer up at `from`. */
export type Place = {
  anchor: Instant;
  from: { step: number; n: number };
  /** The last period that began, by its position in the offer, and its end where that is known; null before the first of this calendar. */
  last: { step: number; n: number; to?: Instant | null } | null;
  skipTrial: boolean;
  /** It begins without joining fee, or has paid it. */
  skipFee: boolean;
};

/** The period that comes next; undefined where the schedule is finished. */
export function nextAt(place: Place, whole: Offer, zone: string): Period | undefined {
  const { anchor, from, last, skipTrial } = place;
  const offer = place.skipFee ? { ...whole, joiningFee: undefined } : whole;
  if (from.step === 0 && from.n === 0) return nextPeriod(offer, anchor, zone, skipTrial, last, last?.to);
  const [first, ...later] = offer.steps.slice(from.step);
  if (!first) return undefined;
  const left = first.kind === 'repeat' ? (first.times ?? Infinity) - from.n : 1 - from.n;
  const [steps, skipped] =
    left <= 0
      ? [later, { step: from.step + 1, n: 0 }]
      : [
          [first.kind === 'repeat' && first.times !== null ? { ...first, times: left } : first, ...later],
          from,
        ];
  const here = last && {
    step: last.step - skipped.step,
    n: last.n - (last.step === skipped.step ? skipped.n : 0),
  };
  const isAhead = here !== null && (here.step < 0 || (here.step === 0 && here.n < 0));
  const next = nextPeriod({ ...offer, steps }, anchor, zone, skipTrial, isAhead ? null : here, last?.to);
  return next && { ...next, step: next.step + skipped.step, n: next.n + (next.step === 0 ? skipped.n : 0) };
}

/** The same place on a calendar that counts from `at`: what is next begins there. */
export function beginningAt(place: Place, at: Instant, next: { step: number; n: number }): Place {
  return { ...place, anchor: at, from: { step: next.step, n: next.n }, last: null };
}
