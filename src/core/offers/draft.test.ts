import { describe, expect, it } from 'vitest';
import { draftOf, newStep, readDraft, type OfferDraft } from './draft';
import type { Offer } from './offer';

const TODAY = '2027-01-31';
const make = (steps: Offer['steps'], rest: Partial<Offer> = {}): Offer => ({
  tier: 'observer',
  currency: 'GBP',
  steps,
  after: 'end',
  ...rest,
});
const monthly = { kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: null } as const;
const trial = { kind: 'trial', amount: 0, lasts: { n: 14, unit: 'day' } } as const;

describe('a draft', () => {
  const draft = (part: Partial<OfferDraft>): OfferDraft => ({
    tier: 'observer',
    currency: 'GBP',
    feeAmount: '',
    feeDue: 'start',
    after: 'end',
    renewDays: '',
    steps: [{ ...newStep('repeat'), amount: '6' }],
    ...part,
  });

  it('is read into the offer it means', () => {
    expect(
      readDraft(
        draft({ steps: [newStep('trial'), { ...newStep('repeat'), amount: '6.00' }], feeAmount: '10' }),
        TODAY,
        'en-GB',
      ),
    ).toEqual({
      ok: true,
      offer: make([trial, monthly], { joiningFee: { amount: 1000, due: 'start' } }),
    });
  });

  it.each<[string, Partial<OfferDraft>, string]>([
    ['an amount left out', { steps: [newStep('repeat')] }, 'steps.0.amount'],
    [
      'too many decimals',
      { currency: 'JPY', steps: [{ ...newStep('repeat'), amount: '6.50' }] },
      'steps.0.amount',
    ],
    ['no number of months', { steps: [{ ...newStep('repeat'), amount: '6', n: 'two' }] }, 'steps.0.n'],
    ['half a payment', { steps: [{ ...newStep('repeat'), amount: '6', times: '1.5' }] }, 'steps.0.times'],
    ['no last day', { steps: [{ ...newStep('once'), amount: '6', lasts: 'until' }] }, 'steps.0.until'],
    ['a trial alone', { steps: [newStep('trial')] }, 'steps'],
    [
      'a last day that has passed',
      { steps: [{ ...newStep('once'), amount: '6', lasts: 'until', until: '2027-01-30' }] },
      'steps.0.until',
    ],
    [
      'a step after one that never ends',
      {
        steps: [
          { ...newStep('repeat'), amount: '6' },
          { ...newStep('repeat'), amount: '7' },
        ],
      },
      'steps.1',
    ],
    [
      'no number of days to renew in',
      { renewDays: 'soon', steps: [{ ...newStep('once'), amount: '6' }] },
      'renewal',
    ],
    ['a negative fee', { feeAmount: '-1' }, 'joiningFee'],
  ])('with %s says where', (_, part, path) => {
    const read = readDraft(draft(part), TODAY, 'en-GB');
    expect(read.ok ? [] : Object.keys(read.problems)).toContain(path);
  });

  it('made from an offer means that offer', () => {
    for (const offer of [
      make([trial, monthly], { joiningFee: { amount: 1000, due: 'first-payment' } }),
      make([{ kind: 'once', amount: 2500, lasts: { until: '2027-08-09' } }]),
      make([{ kind: 'once', amount: 6000, lasts: { n: 1, unit: 'year' } }], { renewal: { daysBefore: 30 } }),
      make([{ kind: 'once', amount: 5, lasts: 'forever', tier: 'founder' }], { currency: 'KWD' }),
    ]) {
      expect(readDraft(draftOf(offer, 'de-DE'), TODAY, 'de-DE')).toEqual({ ok: true, offer });
    }
  });
});
