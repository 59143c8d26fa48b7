import { describe, expect, it } from 'vitest';
import { draftOf, newStep, readDraft, type OfferDraft } from './draft';
import { offerPrice, offerSentence } from './sentence';
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

describe('the sentence of an offer', () => {
  it.each<[string, Offer]>([
    ['14 days free, then £6 a month until you cancel.', make([trial, monthly])],
    ['Free for good.', make([{ kind: 'once', amount: 0, lasts: 'forever' }])],
    ['£400 once, for good.', make([{ kind: 'once', amount: 40_000, lasts: 'forever' }])],
    ['£25 once, until 9 Aug 2027.', make([{ kind: 'once', amount: 2500, lasts: { until: '2027-08-09' } }])],
    ['Free for a month.', make([{ kind: 'once', amount: 0, lasts: { n: 1, unit: 'month' } }])],
    ['Free for 3 months.', make([{ ...monthly, amount: 0, times: 3 }])],
    ['Free until you leave.', make([{ ...monthly, amount: 0 }])],
    ['£6 for a month.', make([{ ...monthly, times: 1 }])],
    [
      '£17 every 3 months until you cancel.',
      make([{ ...monthly, amount: 1700, every: { n: 3, unit: 'month' } }]),
    ],
    ['4 payments of £45 a month, then it ends.', make([{ ...monthly, amount: 4500, times: 4 }])],
    [
      '£60 once, for a year. It can be renewed from 30 days before its end.',
      make([{ kind: 'once', amount: 6000, lasts: { n: 1, unit: 'year' } }], { renewal: { daysBefore: 30 } }),
    ],
    [
      'KWD\u00a01.500 an hour until you cancel.',
      make([{ ...monthly, amount: 1500, every: { n: 1, unit: 'hour' } }], { currency: 'KWD' }),
    ],
    [
      '4 payments of £45 a month, and it is yours for good.',
      make([{ ...monthly, amount: 4500, times: 4 }], { after: 'keep' }),
    ],
    [
      '3 payments of £2 a month, then £6 a month until you cancel.',
      make([{ ...monthly, amount: 200, times: 3 }, monthly]),
    ],
    ['£6 every 10 days until you cancel.', make([{ ...monthly, every: { n: 10, unit: 'day' } }])],
    [
      'JP¥600 a year until you cancel.',
      make([{ ...monthly, every: { n: 1, unit: 'year' } }], { currency: 'JPY' }),
    ],
    [
      '£6 a month until you cancel. A joining fee of £10 comes with the first payment.',
      make([monthly], { joiningFee: { amount: 1000, due: 'first-payment' } }),
    ],
    [
      '7 days for £5, then £70 a year until you cancel. A joining fee of £1 is due on joining.',
      make(
        [
          { ...trial, amount: 500, lasts: { n: 7, unit: 'day' } },
          { ...monthly, amount: 7000, every: { n: 1, unit: 'year' } },
        ],
        { joiningFee: { amount: 100, due: 'start' } },
      ),
    ],
  ])('%s', (sentence, offer) => expect(offerSentence(offer)).toBe(sentence));

  it('leaves the trial out for somebody who has had it', () => {
    expect(offerSentence(make([trial, monthly]), { skipTrial: true })).toBe('£6 a month until you cancel.');
  });

  it('names the tiers where it leads from one to the next', () => {
    const leads = make([
      { ...trial, amount: 500, lasts: { n: 7, unit: 'day' }, tier: 'gazer' },
      { ...monthly, amount: 7000, every: { n: 1, unit: 'year' } },
    ]);
    const tierNames = new Map([
      ['gazer', 'Gazer'],
      ['observer', 'Observer'],
    ]);
    expect(offerSentence(leads, { tierNames })).toBe(
      '7 days of Gazer for £5, then £70 a year for Observer until you cancel.',
    );
  });

  it('is short on a card', () => {
    expect(offerPrice(make([trial, monthly]))).toBe('£6 a month');
    expect(offerPrice(make([{ kind: 'once', amount: 0, lasts: 'forever' }]))).toBe('free');
    expect(offerPrice(make([{ ...monthly, times: 4 }]))).toBe('4 × £6 a month');
  });
});

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
    const read = readDraft(draft(part), TODAY);
    expect(read.ok ? [] : Object.keys(read.problems)).toContain(path);
  });

  it('made from an offer means that offer', () => {
    for (const offer of [
      make([trial, monthly], { joiningFee: { amount: 1000, due: 'first-payment' } }),
      make([{ kind: 'once', amount: 2500, lasts: { until: '2027-08-09' } }]),
      make([{ kind: 'once', amount: 6000, lasts: { n: 1, unit: 'year' } }], { renewal: { daysBefore: 30 } }),
      make([{ kind: 'once', amount: 5, lasts: 'forever', tier: 'founder' }], { currency: 'KWD' }),
    ]) {
      expect(readDraft(draftOf(offer), TODAY)).toEqual({ ok: true, offer });
    }
  });
});
