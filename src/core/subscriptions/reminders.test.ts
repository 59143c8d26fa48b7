import { expect, it } from 'vitest';
import type { Offer } from '../offers/offer';
import { reminderOf } from './reminders';
import type { Subscription, Terms } from './subscription';

const joined = '2027-03-01T12:00:00Z';
const subscription: Subscription = {
  state: 'trial',
  startedAt: joined,
  skipTrial: false,
  takesUp: { step: 0, n: 0 },
  skipFee: false,
  numberFrom: 0,
  period: { step: 0, n: 0 },
  paidThrough: '2027-03-15T12:00:00Z',
  dueAt: '2027-03-15T12:00:00Z',
  failures: 0,
  firstFailedAt: null,
  endedAt: null,
  pauses: false,
  disputedAt: null,
};
const offer = (days: number, every: 'month' | 'year'): Offer => ({
  tier: 'observer',
  currency: 'GBP',
  steps: [
    { kind: 'trial', amount: 0, lasts: { n: days, unit: 'day' } },
    { kind: 'repeat', amount: 600, every: { n: 1, unit: every }, times: null },
  ],
  after: 'end',
});
const terms = (of: Offer): Terms => ({ offer: of, zone: 'Europe/London', retryDays: [1], graceDays: 7 });
const active = { ...subscription, state: 'active' as const, period: { step: 1, n: 0 } };

it('tells three days before a trial turns into a charge', () => {
  expect(reminderOf(subscription, terms(offer(14, 'month')))).toMatchObject({
    kind: 'trial-ends',
    remindAt: '2027-03-12T12:00:00Z',
    at: '2027-03-15T12:00:00Z',
    period: { amount: 600 },
  });
});

it('says nothing of a trial as short as that, and nothing where nothing is charged any more', () => {
  expect(reminderOf(subscription, terms(offer(3, 'month')))).toBeNull();
  expect(reminderOf({ ...subscription, state: 'cancelling' }, terms(offer(14, 'month')))).toBeNull();
});

it('tells two weeks before a yearly charge, in the hour of the zone, and never of a monthly one', () => {
  expect(reminderOf(active, terms(offer(14, 'year')))).toMatchObject({
    kind: 'renewal-soon',
    // A year after the trial's end, less two weeks; the clocks change after that.
    remindAt: '2028-03-01T12:00:00Z',
    at: '2028-03-15T12:00:00Z',
  });
  expect(reminderOf(active, terms(offer(14, 'month')))).toBeNull();
});
