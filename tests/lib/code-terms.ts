import type { CodeTerms } from '../../src/core/tiers/codes';

/** A code that does nothing yet, on no conditions. */
export const NO_TERMS: CodeTerms = {
  admits: [],
  discount: null,
  currency: null,
  tierIds: [],
  gives: null,
  mostUses: null,
  mostPerPerson: null,
  firstDay: null,
  lastDay: null,
  newMembersOnly: false,
  isOn: true,
};
