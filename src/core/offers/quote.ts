import { addLength, localDate, startOfDate } from '../calendar';
import type { Discount } from '../billing/book';
import { afterCharge, discounted } from '../billing/discount';
import { compare, type Instant, type LocalDate } from '../instants';
import type { Offer } from './offer';
import { expand, type AccessInterval, type Charge } from './schedule';

export type Quote = {
  charges: Charge[];
  access: AccessInterval[];
  /** Due at the instant of joining, in minor units. */
  dueToday: number;
  next: Charge | null;
  /** Everything due before the same local time a year later. */
  firstYearTotal: number;
  /** False where nothing of the offer is left: its dates have passed. */
  hasAnything: boolean;
};

/** What a member who joins at `start` pays in a year: the same figures for the Desk's preview, the join page and checkout. */
export function quoteOffer(
  offer: Offer,
  start: Instant,
  zone: string,
  skipTrial = false,
  discount: Discount | null = null,
): Quote {
  const horizon = addLength(start, { n: 1, unit: 'year' }, zone);
  const { charges: full, access } = expand(offer, start, zone, horizon, skipTrial);
  const charges = lessDiscount(full, discount);
  return {
    charges,
    access,
    dueToday: charges.filter((charge) => charge.at === start).reduce((sum, charge) => sum + charge.amount, 0),
    next: charges.find((charge) => compare(charge.at, start) > 0) ?? null,
    firstYearTotal: charges.reduce((sum, charge) => sum + charge.amount, 0),
    hasAnything: access.length > 0,
  };
}

/** The charges less a discount, which each above zero uses; the joining fee is never reduced. */
function lessDiscount(charges: Charge[], discount: Discount | null): Charge[] {
  let left = discount;
  return charges.map((charge) => {
    const price = charge.amount - charge.joiningFee;
    const amount = discounted(left, price) + charge.joiningFee;
    left = afterCharge(left, price);
    return { ...charge, amount };
  });
}

/** The instant of joining on a chosen day: now if that is today, otherwise noon. */
export function joiningInstant(day: LocalDate, now: Instant, zone: string): Instant {
  return day === localDate(now, zone)
    ? now
    : addLength(startOfDate(day, zone), { n: 12, unit: 'hour' }, zone);
}
