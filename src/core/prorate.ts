import { daysBetween, localDate } from './calendar';
import type { Instant } from './instants';
import { share } from './money';

export type Proration = { totalDays: number; unusedDays: number; credit: number };

/**
 * Credit for the unused days of a paid period: `amount × unused ÷ all`, rounded half up, in minor units.
 * Days are local dates in `zone`; today counts as unused. 0 where the period has no end or no whole day.
 */
export function prorate(
  amount: number,
  from: Instant,
  to: Instant | null,
  at: Instant,
  zone: string,
): Proration {
  if (to === null) return { totalDays: 0, unusedDays: 0, credit: 0 };
  const last = localDate(to, zone);
  const totalDays = Math.max(0, daysBetween(localDate(from, zone), last));
  const unusedDays = Math.min(totalDays, Math.max(0, daysBetween(localDate(at, zone), last)));
  return { totalDays, unusedDays, credit: totalDays === 0 ? 0 : share(amount, unusedDays, totalDays) };
}
