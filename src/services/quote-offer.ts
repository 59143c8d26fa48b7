import { addLength, compare, type Instant } from '@/core/calendar';
import { expand, type Charge } from '@/core/offers/schedule';
import type { Offer } from '@/core/offers/offer';

export type Quote = {
  charges: Charge[];
  /** Due at the instant of joining, in minor units. */
  dueToday: number;
  next: Charge | null;
  firstYearTotal: number;
  firstYearCount: number;
  /** False where nothing of the offer is left: its dates have passed. */
  hasAnything: boolean;
};

/** What somebody who joins at `start` pays in a year: the same figures for the Desk's preview, the join page and checkout. */
export function quoteOffer(offer: Offer, start: Instant, zone: string, skipTrial: boolean): Quote {
  const horizon = addLength(start, { n: 1, unit: 'year' }, zone);
  const { charges, access } = expand(offer, start, zone, horizon, skipTrial);
  return {
    charges,
    dueToday: charges.filter((charge) => charge.at === start).reduce((sum, charge) => sum + charge.amount, 0),
    next: charges.find((charge) => compare(charge.at, start) > 0) ?? null,
    firstYearTotal: charges.reduce((sum, charge) => sum + charge.amount, 0),
    firstYearCount: charges.length,
    hasAnything: access.length > 0,
  };
}
