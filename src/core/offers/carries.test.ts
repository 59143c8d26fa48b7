import { describe, expect, it } from 'vitest';
import { billingStages, cannotCarry, type Carries, type Uncarried } from './carries';
import type { Offer } from './offer';

const all: Carries = {
  currencies: null,
  repeating: true,
  trial: true,
  units: ['hour', 'day', 'week', 'month', 'year'],
  dates: true,
  switch: true,
  discount: true,
  pause: true,
  refund: true,
};
const offer: Offer = {
  tier: 'warden',
  currency: 'GBP',
  joiningFee: { amount: 1000, due: 'first-payment' },
  after: 'end',
  steps: [
    { kind: 'trial', amount: 0, lasts: { n: 30, unit: 'day' } },
    { kind: 'repeat', amount: 1500, every: { n: 1, unit: 'month' }, times: null },
  ],
};

describe('what a gateway cannot carry', () => {
  it.each<[Partial<Carries>, Uncarried[]]>([
    [{}, []],
    [{ currencies: ['EUR'] }, [{ why: 'currency', what: 'GBP' }]],
    [{ repeating: false }, [{ why: 'repeating', what: '' }]],
    [{ trial: false }, [{ why: 'trial', what: '' }]],
    [{ units: ['week'] }, [{ why: 'unit', what: 'month' }]],
    [{ units: ['month'] }, []],
  ])('%o', (limits, uncarried) => expect(cannotCarry({ ...all, ...limits }, offer)).toEqual(uncarried));

  it('is what comes after a fixed date, but not the fixed date itself', () => {
    const until = { kind: 'once', amount: 2500, lasts: { until: '2027-08-09' } } as const;
    const limits = { ...all, dates: false };
    expect(cannotCarry(limits, { ...offer, steps: [until] })).toEqual([]);
    expect(cannotCarry(limits, { ...offer, steps: [until, offer.steps[1]!] })).toEqual([
      { why: 'dates', what: '' },
    ]);
  });
});

describe('what a wallet bills', () => {
  it('has the fee on the first payment, and a switch’s credit off the first bill', () => {
    expect(billingStages(offer, false, '2027-01-01')).toEqual([
      { amount: 0, first: 0, every: { n: 30, unit: 'day' }, times: 1 },
      { amount: 1500, first: 2500, every: { n: 1, unit: 'month' }, times: null },
    ]);
    const plain = { ...offer, joiningFee: undefined };
    expect(billingStages(plain, true, '2027-01-01', 348)).toEqual([
      { amount: 1500, first: 1152, every: { n: 1, unit: 'month' }, times: null },
    ]);
    expect(billingStages(plain, true, '2027-01-01', 9000)).toMatchObject([{ first: 0, amount: 1500 }]);
  });

  it('leaves out a step that has ended', () => {
    const steps: Offer['steps'] = [
      { kind: 'once', amount: 5, lasts: { until: '2026-01-01' } },
      offer.steps[1]!,
    ];
    expect(billingStages({ ...offer, joiningFee: undefined, steps }, false, '2027-01-01')).toHaveLength(1);
  });
});
