import type { LocalDate } from '../calendar';

/** What of a tier decides whether somebody can join by it today. Dates are local dates of the site; both ends count. */
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

/** Whether somebody can join today, and why not. `taken` counts those who hold the tier and those who are paying for it now. */
export function joiningState(terms: JoiningTerms, taken: number, today: LocalDate): JoiningState {
  const placesLeft = terms.places === null ? null : Math.max(0, terms.places - taken);
  const state = (): JoiningState['state'] => {
    if (terms.isRetired || terms.joining === 'closed') return 'closed';
    if (terms.onSaleUntil !== null && today > terms.onSaleUntil) return 'over';
    if (terms.onSaleFrom !== null && today < terms.onSaleFrom) return 'not-yet';
    if (placesLeft === 0) return 'sold-out';
    return terms.joining;
  };
  return { state: state(), placesLeft };
}

/** "12 of 30 left", "1 of 30 left"; empty where there is no limit. */
export function placesWords(places: number | null, placesLeft: number | null): string {
  return places === null || placesLeft === null ? '' : `${placesLeft} of ${places} left`;
}
