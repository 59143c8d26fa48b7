import { describe, expect, it } from 'vitest';
import type { Offer } from '../offers/offer';
import type { Subscription } from './book';
import { billingAhead, chargesAhead, nextCharge, reminderOf, type Schedule } from './upcoming';

const joined = '2027-01-31T12:00:00Z';
const s: Subscription = {
  id: 's',
  track: 'sky',
  slot: '',
  offer: 'o',
  state: 'active',
  begunBy: 'first',
  replaces: null,
  method: { nature: 'card' },
  place: {
    anchor: joined,
    from: { step: 0, n: 0 },
    last: { step: 0, n: 1 },
    skipTrial: false,
    skipFee: true,
  },
  beganAt: joined,
  endedAt: null,
  paidThrough: '2027-03-31T11:00:00Z',
  unpaid: null,
  firstFailedAt: null,
  dueAt: '2027-03-31T11:00:00Z',
  changedAt: null,
  pauses: false,
  switchesTo: null,
  movesTo: null,
  discount: null,
  disputes: [],
  endedUnpaid: false,
  charges: 2,
  events: 2,
};
const monthly: Offer = {
  tier: 'observer',
  currency: 'GBP',
  joiningFee: { amount: 1000, due: 'first-payment' },
  steps: [{ kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: null }],
  after: 'end',
};
const withTrial = (days: number, every: 'month' | 'year'): Offer => ({
  tier: 'observer',
  currency: 'GBP',
  steps: [
    { kind: 'trial', amount: 0, lasts: { n: days, unit: 'day' } },
    { kind: 'repeat', amount: 600, every: { n: 1, unit: every }, times: null },
  ],
  after: 'end',
});
const context = (o: Offer, more: Record<string, Offer> = {}): Schedule => ({
  zone: 'Europe/London',
  offers: { o, ...more },
});
const inTrial: Subscription = {
  ...s,
  state: 'trial',
  beganAt: '2027-03-01T12:00:00Z',
  place: { ...s.place, anchor: '2027-03-01T12:00:00Z', last: { step: 0, n: 0 }, skipFee: false },
  paidThrough: '2027-03-15T12:00:00Z',
};
const NOW = '2027-03-10T12:00:00Z';

describe('the next charge', () => {
  it('is that of the next period, less what a discount takes off it', () => {
    expect(nextCharge(s, context(monthly))).toMatchObject({ at: s.paidThrough, amount: 600 });
    expect(nextCharge({ ...s, discount: { share: 50, charges: 1 } }, context(monthly))).toMatchObject({
      amount: 300,
    });
  });

  it('is that of the offer to which it goes over, without trial and fee; none once nothing more comes', () => {
    const warden = { ...withTrial(14, 'month'), joiningFee: monthly.joiningFee, tier: 'warden' };
    const goes = { ...s, switchesTo: 'w' };
    expect(nextCharge(goes, context(monthly, { w: warden }))).toMatchObject({
      at: s.paidThrough,
      amount: 600,
      period: { tier: 'warden' },
    });
    for (const over of [{ state: 'cancelling' as const }, { pauses: true }, { disputes: ['p'] }])
      expect(nextCharge({ ...s, ...over }, context(monthly))).toBeNull();
  });

  it('comes after periods that are free, and never of what is free for ever', () => {
    expect(nextCharge(inTrial, context(withTrial(14, 'month')))).toMatchObject({
      at: '2027-03-15T12:00:00Z',
      amount: 600,
    });
    const free: Offer = {
      ...monthly,
      joiningFee: undefined,
      steps: [{ kind: 'repeat', amount: 0, every: { n: 1, unit: 'month' }, times: null }],
    };
    expect(nextCharge(s, context(free))).toBeNull();
  });
});

describe('the charges ahead', () => {
  const ahead = (one: Subscription, schedule: Schedule) =>
    chargesAhead(one, schedule, '2027-08-01T00:00:00Z').map(({ at, amount }) => [at.slice(0, 10), amount]);

  it('are those of the calendar, with the discount as long as it lasts', () => {
    const halved = { ...s, discount: { share: 50, charges: 2 } };
    expect(ahead(halved, context(monthly))).toEqual([
      ['2027-03-31', 300],
      ['2027-04-30', 300],
      ['2027-05-31', 600],
      ['2027-06-30', 600],
      ['2027-07-31', 600],
    ]);
  });

  it('follow a switch that waits, and are none where nothing more comes', () => {
    const warden = { ...monthly, tier: 'warden', joiningFee: undefined };
    warden.steps = [{ kind: 'repeat', amount: 1500, every: { n: 2, unit: 'month' }, times: null }];
    expect(ahead({ ...s, switchesTo: 'w' }, context(monthly, { w: warden }))).toEqual([
      ['2027-03-31', 1500],
      ['2027-05-31', 1500],
      ['2027-07-31', 1500],
    ]);
    expect(ahead({ ...s, state: 'cancelling' }, context(monthly))).toEqual([]);
  });
});

describe('a reminder', () => {
  it('tells three days before a trial turns into a charge', () => {
    expect(reminderOf(inTrial, context(withTrial(14, 'month')))).toMatchObject({
      kind: 'trial-ends',
      remindAt: '2027-03-12T12:00:00Z',
      at: '2027-03-15T12:00:00Z',
      amount: 600,
    });
  });

  it('says nothing of a trial as short as that, and nothing where nothing more is charged', () => {
    expect(reminderOf(inTrial, context(withTrial(3, 'month')))).toBeNull();
    expect(reminderOf({ ...inTrial, state: 'cancelling' }, context(withTrial(14, 'month')))).toBeNull();
  });

  it('tells two weeks before a yearly charge, in the hour of the zone, and never of a monthly one', () => {
    const active = {
      ...inTrial,
      state: 'active' as const,
      place: { ...inTrial.place, last: { step: 1, n: 0 } },
    };
    expect(reminderOf(active, context(withTrial(14, 'year')))).toMatchObject({
      kind: 'renewal-soon',
      // A year after the trial's end, less two weeks; the clocks change after that.
      remindAt: '2028-03-01T12:00:00Z',
      at: '2028-03-15T12:00:00Z',
    });
    expect(reminderOf(active, context(withTrial(14, 'month')))).toBeNull();
  });
});

describe('what a wallet bills of a subscription that runs', () => {
  it('keeps the calendar, from the next period, without the fee that was paid', () => {
    expect(billingAhead(s, context(monthly), NOW)).toEqual({
      offer: 'o',
      stages: [{ amount: 600, first: 600, every: { n: 1, unit: 'month' }, times: null }],
      startsAt: '2027-03-31T11:00:00Z',
      // Two of the months that began on 31 January are settled, so that the next ends on 30 April, not on the 28th.
      takesUp: { from: joined, n: 2 },
    });
  });

  it('begins now with what is owed', () => {
    const overdue = { ...s, state: 'overdue' as const, firstFailedAt: s.paidThrough };
    expect(billingAhead(overdue, context(monthly), '2027-04-02T12:00:00Z')).toMatchObject({
      startsAt: '2027-04-02T12:00:00Z',
      takesUp: { from: joined, n: 2 },
    });
  });

  it('has the fee with the first payment after a trial', () => {
    const offer = { ...withTrial(14, 'month'), joiningFee: monthly.joiningFee };
    expect(billingAhead(inTrial, context(offer), NOW)).toMatchObject({
      stages: [{ amount: 600, first: 1600 }],
      startsAt: '2027-03-15T12:00:00Z',
    });
  });

  it('has fewer bills left of what is paid in parts, and nothing to bill once all is paid', () => {
    const parts: Offer = {
      ...monthly,
      joiningFee: undefined,
      steps: [{ kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: 4 }],
    };
    expect(billingAhead(s, context(parts), NOW)).toMatchObject({ stages: [{ times: 4 }], takesUp: { n: 2 } });
    const resumed = {
      ...s,
      place: { ...s.place, anchor: s.paidThrough!, from: { step: 0, n: 2 }, last: null },
    };
    expect(billingAhead(resumed, context(parts), NOW)).toMatchObject({
      stages: [{ times: 2 }],
      takesUp: { n: 0 },
    });
    expect(
      billingAhead({ ...s, place: { ...s.place, last: { step: 0, n: 3 } } }, context(parts), NOW),
    ).toBeNull();
  });
});
