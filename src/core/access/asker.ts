import type { Decision } from './decide';

/** The kinds of person that a doorstep meets. */
export const ASKERS = ['visitor', 'wrong-tier', 'must-wait', 'lapsed', 'payment-failed'] as const;
export type Asker = (typeof ASKERS)[number];

/** What someone held, or has not paid for: the tiers of it that would open what is asked about at once. */
export type Had = { lapsed: boolean; unpaid: boolean };

/** As whom a person is met who is not let in: what they can do at once comes before waiting. */
export function askerOf(signedIn: boolean, state: Decision['state'], had: Had): Asker {
  if (!signedIn) return 'visitor';
  if (had.unpaid) return 'payment-failed';
  if (had.lapsed) return 'lapsed';
  return state === 'later' ? 'must-wait' : 'wrong-tier';
}
