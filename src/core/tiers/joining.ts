import type { LocalDate } from '../instants';

/** The parts of a tier that decide whether people can join with it today. Dates are local dates of the site; both ends count. */
export type JoiningTerms = {
  joining: 'open' | 'by-code' | 'closed';
  onSaleFrom: LocalDate | null;
  onSaleUntil: LocalDate | null;
  /** The most who may hold it at a time; null where there is no limit. */
  places: number | null;
  isRetired: boolean;
};

export type JoiningState = {
  state: 'open' | 'by-code' | 'closed' | 'not-yet' | 'over' | 'sold-out';
  /** How many more may join; null where there is no limit. */
  placesLeft: number | null;
};

/** Whether a person can join today, and if not, why. `taken` counts those who hold the tier and those who are paying for it now. */
export function joiningState(context: JoiningTerms, taken: number, today: LocalDate): JoiningState {
  const placesLeft = context.places === null ? null : Math.max(0, context.places - taken);
  const state = (): JoiningState['state'] => {
    if (context.isRetired || context.joining === 'closed') return 'closed';
    if (context.onSaleUntil !== null && today > context.onSaleUntil) return 'over';
    if (context.onSaleFrom !== null && today < context.onSaleFrom) return 'not-yet';
    if (placesLeft === 0) return 'sold-out';
    return context.joining;
  };
  return { state: state(), placesLeft };
}

export const JOINING = ['open', 'by-code', 'closed'] as const;
export type Joining = (typeof JOINING)[number];

/** How a tier can be joined on a site that may be stricter: the stricter of the two. */
export const joiningOf = (site: Joining, tier: Joining): Joining =>
  JOINING[Math.max(JOINING.indexOf(site), JOINING.indexOf(tier))] ?? 'closed';

/** As for those who have joined, and go from one tier to another. */
export const OPEN: { joining: Joining } = { joining: 'open' };

/** What decides whether people can join with a tier, on a site that may be stricter than the tier. */
export const joiningTerms = (
  site: { joining: Joining },
  tier: Omit<JoiningTerms, 'isRetired'> & { retiredAt: string | null },
): JoiningTerms => ({
  ...tier,
  joining: joiningOf(site.joining, tier.joining),
  isRetired: tier.retiredAt !== null,
});
