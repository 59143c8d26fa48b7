import { describe, expect, it } from 'vitest';
import type { Offer } from '@/core/offers/offer';
import { plainWords } from './desk';
import { offerPrice, offerSentence } from './offers';
import { wordsOf } from './words';

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
      '£60 once, for a year. You can renew it from 30 days before it ends.',
      make([{ kind: 'once', amount: 6000, lasts: { n: 1, unit: 'year' } }], { renewal: { daysBefore: 30 } }),
    ],
    [
      'KWD\u00a01.500 an hour until you cancel.',
      make([{ ...monthly, amount: 1500, every: { n: 1, unit: 'hour' } }], { currency: 'KWD' }),
    ],
    [
      '4 payments of £45 a month, and it’s yours for good.',
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
      '£6 a month until you cancel. A joining fee of £10 is charged with the first payment.',
      make([monthly], { joiningFee: { amount: 1000, due: 'first-payment' } }),
    ],
    [
      '7 days for £5, then £70 a year until you cancel. A joining fee of £1 is due when you join.',
      make(
        [
          { ...trial, amount: 500, lasts: { n: 7, unit: 'day' } },
          { ...monthly, amount: 7000, every: { n: 1, unit: 'year' } },
        ],
        { joiningFee: { amount: 100, due: 'start' } },
      ),
    ],
  ])('%s', (sentence, offer) => expect(offerSentence(offer, plainWords)).toBe(sentence));

  it('leaves the trial out for a person who has had it', () => {
    expect(offerSentence(make([trial, monthly]), plainWords, { skipTrial: true })).toBe(
      '£6 a month until you cancel.',
    );
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
    expect(offerSentence(leads, plainWords, { tierNames })).toBe(
      '7 days of Gazer for £5, then £70 a year for Observer until you cancel.',
    );
  });

  it('is short on a card', () => {
    expect(offerPrice(make([trial, monthly]), plainWords)).toBe('£6 a month');
    expect(offerPrice(make([{ kind: 'once', amount: 0, lasts: 'forever' }]), plainWords)).toBe('free');
    expect(offerPrice(make([{ ...monthly, times: 4 }]), plainWords)).toBe('4 × £6 a month');
  });
});

it('is in German what it is in English', () => {
  const t = wordsOf({ language: 'de-DE', zone: 'Europe/Berlin', reworded: {} });
  const inGerman = (offer: Offer): string => offerSentence(offer, t).replaceAll('\u00a0', ' ');
  const euros = { currency: 'EUR' };
  expect(inGerman(make([trial, monthly], euros))).toBe(
    '14 Tage kostenlos, danach 6 € pro Monat, bis Sie kündigen.',
  );
  expect(inGerman(make([{ ...monthly, times: 4 }], euros))).toBe(
    '4 Zahlungen zu 6 € pro Monat, dann endet es.',
  );
  const once = { kind: 'once', amount: 2550, lasts: { until: '2027-08-09' } } as const;
  expect(inGerman(make([once], { ...euros, joiningFee: { amount: 1000, due: 'start' } }))).toBe(
    '25,50 € einmalig, bis 9. Aug. 2027. Beim Beitritt ist eine Aufnahmegebühr von 10 € fällig.',
  );
  expect(inGerman(make([{ ...monthly, times: 1 }], euros))).toBe('6 € für einen Monat.');
});
