import type { Offer } from '../../src/core/offers/offer';

/** So much a month for a tier, in minor units, until it is cancelled. */
export const monthly = (tier: string, amount: number): Offer => ({
  tier,
  currency: 'GBP',
  steps: [{ kind: 'repeat', amount, every: { n: 1, unit: 'month' }, times: null }],
  after: 'end',
});
