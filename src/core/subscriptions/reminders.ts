import { addLength, isBefore, type Instant, type Length } from '../calendar';
import type { Period } from '../offers/schedule';
import type { Subscription, Terms } from './subscription';
import { nextCharge } from './upcoming';

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
  period: Period;
};

/** The reminder that comes before the next charge of a subscription; null where none does. */
export function reminderOf(subscription: Subscription, terms: Terms): Reminder | null {
  const { state, startedAt, period } = subscription;
  if (state !== 'trial' && state !== 'active') return null;
  const next = nextCharge(subscription, terms);
  if (!next) return null;
  const isTrial = state === 'trial';
  const step = terms.offer.steps[period?.step ?? 0];
  const lasts = step?.kind === 'repeat' ? step.every : step?.lasts;
  const isLong = typeof lasts === 'object' && ('until' in lasts || lasts.n * DAYS[lasts.unit] >= LONG_DAYS);
  if (!isTrial && !isLong) return null;
  const remindAt = addLength(next.at, { n: -(isTrial ? TRIAL_DAYS : RENEWAL_DAYS), unit: 'day' }, terms.zone);
  // A trial of so few days was told of at joining.
  if (!isBefore(startedAt, remindAt)) return null;
  return { kind: isTrial ? 'trial-ends' : 'renewal-soon', remindAt, ...next };
}
