import { expect, it } from 'vitest';
import type { Offer } from '../offers/offer';
import { billingAhead } from './billing';
import type { Subscription, Terms } from './subscription';

const subscription: Subscription = {
  state: 'active',
  startedAt: '2027-01-31T12:00:00Z',
  skipTrial: false,
  takesUp: { step: 0, n: 0 },
  skipFee: false,
  numberFrom: 0,
  period: { step: 0, n: 1 },
  paidThrough: '2027-03-31T11:00:00Z',
  dueAt: '2027-03-31T11:00:00Z',
  failures: 0,
  firstFailedAt: null,
  endedAt: null,
  pauses: false,
  disputedAt: null,
};
const monthly: Offer = {
  tier: 'observer',
  currency: 'GBP',
  joiningFee: { amount: 1000, due: 'first-payment' },
  steps: [{ kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: null }],
  after: 'end',
};
const terms = (offer: Offer, movesTo?: Offer): Terms => ({
  offer,
  movesTo,
  zone: 'Europe/London',
  retryDays: [1],
  graceDays: 7,
});
const NOW = '2027-03-10T12:00:00Z';

it('goes on with the calendar that runs, from the next period, without the fee that was paid', () => {
  expect(billingAhead(subscription, terms(monthly), NOW)).toEqual({
    stages: [{ amount: 600, first: 600, every: { n: 1, unit: 'month' }, times: null }],
    startsAt: '2027-03-31T11:00:00Z',
    // Two of the months that began on 31 January are settled, so that the next ends on 30 April, not on the 28th.
    takesUp: { from: '2027-01-31T12:00:00Z', n: 2 },
  });
});

it('what is owed is billed now', () => {
  const overdue = {
    ...subscription,
    state: 'overdue' as const,
    failures: 1,
    firstFailedAt: subscription.paidThrough,
  };
  expect(billingAhead(overdue, terms(monthly), '2027-04-02T12:00:00Z')).toMatchObject({
    startsAt: '2027-04-02T12:00:00Z',
    takesUp: { from: '2027-01-31T12:00:00Z', n: 2 },
  });
});

it('in a trial the first payment comes with the fee', () => {
  const offer: Offer = {
    ...monthly,
    steps: [{ kind: 'trial', amount: 0, lasts: { n: 60, unit: 'day' } }, ...monthly.steps],
  };
  const trial = {
    ...subscription,
    state: 'trial' as const,
    period: { step: 0, n: 0 },
    paidThrough: '2027-04-01T11:00:00Z',
  };
  expect(billingAhead(trial, terms(offer), NOW)).toEqual({
    stages: [{ amount: 600, first: 1600, every: { n: 1, unit: 'month' }, times: null }],
    startsAt: '2027-04-01T11:00:00Z',
    takesUp: { from: '2027-04-01T11:00:00Z', n: 0 },
  });
});

it('instalments keep their number, also where they were taken up after a pause', () => {
  const offer: Offer = {
    ...monthly,
    joiningFee: undefined,
    steps: [{ ...monthly.steps[0]!, times: 4 } as Offer['steps'][0]],
  };
  expect(billingAhead(subscription, terms(offer), NOW)).toMatchObject({
    stages: [{ times: 4 }],
    takesUp: { n: 2 },
  });
  const resumed = { ...subscription, takesUp: { step: 0, n: 2 }, startedAt: NOW, period: { step: 0, n: 2 } };
  expect(billingAhead(resumed, terms(offer), NOW)).toMatchObject({
    stages: [{ times: 2 }],
    takesUp: { from: NOW, n: 1 },
  });
  const last = { ...subscription, period: { step: 0, n: 3 } };
  expect(billingAhead(last, terms(offer), NOW)).toBeNull();
});

it('where it moves to another offer, bills that one from the end of what is paid', () => {
  const dearer: Offer = { ...monthly, steps: [{ ...monthly.steps[0]!, amount: 700 }] };
  expect(billingAhead(subscription, terms(monthly, dearer), NOW)).toEqual({
    stages: [{ amount: 700, first: 700, every: { n: 1, unit: 'month' }, times: null }],
    startsAt: '2027-03-31T11:00:00Z',
    takesUp: { from: '2027-03-31T11:00:00Z', n: 0 },
  });
});
