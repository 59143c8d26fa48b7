import type { Instant } from '../instants';
import { isRenewable, type Offer } from '../offers/offer';
import { nextPeriod, type Period } from '../offers/schedule';
import type { Subscription } from './book';
import { daysAfter, offerOf, refuse, stretchesOf, type Work } from './work';

/** Once more the last step of the offer, from an instant. @throws Refused where a date has passed */
export function renewalAt(work: Work, s: Subscription, from: Instant): Period {
  const offer = offerOf(work, s);
  const last = offer.steps.length - 1;
  const again: Offer = { ...offer, joiningFee: undefined, steps: offer.steps.slice(last) };
  const period = nextPeriod(again, from, work.context.zone, true, null);
  return period ? { ...period, step: last } : refuse('nothing-left');
}

/** From when it can be renewed; null where it cannot. */
export function renewableFrom(work: Work, s: Subscription): Instant | null {
  const offer = offerOf(work, s);
  const isLast = stretchesOf(work, s).at(-1)?.period.step === offer.steps.length - 1;
  if (!offer.renewal || !isRenewable(offer) || s.paidThrough === null || !isLast) return null;
  return daysAfter(work, s.paidThrough, -offer.renewal.daysBefore);
}
