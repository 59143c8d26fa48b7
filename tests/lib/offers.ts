import type { Event } from '../../src/core/billing/event';
import type { Offer } from '../../src/core/offers/offer';

/** So much a month for a tier, in minor units, until it is cancelled. */
export const monthly = (tier: string, amount: number): Offer => ({
  tier,
  currency: 'GBP',
  steps: [{ kind: 'repeat', amount, every: { n: 1, unit: 'month' }, times: null }],
  after: 'end',
});

/** Three days of a pass, paid by card. */
export const PASS: Extract<Event, { do: 'buy' }> = {
  do: 'buy',
  kind: 'pass',
  item: 'comet',
  lasts: { n: 3, unit: 'day' },
  amount: 400,
  currency: 'GBP',
  method: { nature: 'card' },
};
