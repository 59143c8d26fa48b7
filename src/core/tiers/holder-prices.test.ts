import { describe, expect, it } from 'vitest';
import {
  bestForHolder,
  codeOrHolder,
  firstPrice,
  holderPricesSchema,
  holderRows,
  readHolderRows,
} from './holder-prices';

const share = (tierId: string, of: number, charges: number | null = null) => ({ tierId, share: of, charges });
const off = (tierId: string, amount: number, charges: number | null = null) => ({ tierId, amount, charges });

describe('the price for a holder', () => {
  it.each([
    ['none is for them', [share('warden', 20)], ['observer'], null],
    ['they hold nothing', [share('warden', 20)], [], null],
    ['one is', [share('warden', 20)], ['observer', 'warden'], ['warden', { share: 20, charges: null }]],
    [
      'two are: the cheaper',
      [share('warden', 20), off('observer', 350)],
      ['observer', 'warden'],
      ['observer', { amount: 350, charges: null }],
    ],
    [
      'two leave the same: the longer',
      [off('observer', 300, 3), share('warden', 20)],
      ['observer', 'warden'],
      ['warden', { share: 20, charges: null }],
    ],
    ['it is more than all', [off('warden', 9_000)], ['warden'], ['warden', { amount: 9_000, charges: null }]],
  ])('where %s', (_, prices, tiers, best) => {
    expect(bestForHolder(prices, tiers, 1_500)).toEqual(best && { tierId: best[0], discount: best[1] });
  });

  it.each([
    ['neither', null, null, null],
    ['a code alone', { share: 10, charges: 1 }, null, 'code'],
    ['the price alone', null, { share: 10, charges: 1 }, 'holder'],
    ['a code that takes off more', { share: 30, charges: 1 }, { share: 20, charges: null }, 'code'],
    ['a code that takes off less', { amount: 299, charges: null }, { share: 20, charges: 1 }, 'holder'],
    ['the same for longer by the price', { amount: 300, charges: 2 }, { share: 20, charges: 3 }, 'holder'],
    ['the same for longer by the code', { amount: 300, charges: null }, { share: 20, charges: 3 }, 'code'],
    ['the same for as long', { amount: 300, charges: 3 }, { share: 20, charges: 3 }, 'code'],
  ])('beside a code: %s', (_, byCode, discount, by) => {
    const forHolder = discount && { tierId: 'warden', discount };
    const used = by === 'code' ? byCode : discount;
    expect(codeOrHolder(byCode, forHolder, 1_500)).toEqual(by && { by, discount: used });
  });

  it('takes nothing off what is free, and not less than a penny of a share', () => {
    expect(bestForHolder([share('warden', 50)], ['warden'], 0)).toBeNull();
    expect(bestForHolder([share('warden', 1)], ['warden'], 3)).toBeNull();
  });

  it('is compared by what an offer asks for first', () => {
    const month = { n: 1, unit: 'month' } as const;
    const steps = [
      { kind: 'trial' as const, amount: 0, lasts: month },
      { kind: 'repeat' as const, amount: 600, every: month, times: null },
    ];
    expect(firstPrice({ steps })).toBe(600);
    expect(firstPrice({ steps: steps.slice(0, 1) })).toBe(0);
  });
});

describe('prices for holders as they are typed', () => {
  const row = (part: object) => ({
    tierId: 'warden',
    way: 'share' as const,
    typed: '20',
    charges: '',
    ...part,
  });
  const read = (...parts: object[]) => readHolderRows(parts.map(row), 'GBP', 'en-GB');

  it('are read, and shown again as they were', () => {
    const rows = [row({}), row({ tierId: 'observer', way: 'amount', typed: '1.50', charges: '3' })];
    const prices = [share('warden', 20), off('observer', 150, 3)];
    expect(readHolderRows(rows, 'GBP', 'en-GB')).toEqual({ ok: true, prices });
    expect(holderRows(prices, 'GBP', 'en-GB')).toEqual(rows);
    expect(holderRows([off('x', 150)], 'GBP', 'de-DE')[0]?.typed).toBe('1,50');
    expect(read()).toEqual({ ok: true, prices: [] });
  });

  it.each([
    [[{ typed: '0' }], 0, 'holder.share'],
    [[{ typed: '101' }], 0, 'holder.share'],
    [[{ typed: '2.5' }], 0, 'holder.share'],
    [[{ typed: '' }], 0, 'holder.share'],
    [[{ charges: '0' }], 0, 'code.least-one'],
    [[{ charges: 'many' }], 0, 'code.least-one'],
    [[{}, {}], 1, 'holder.twice'],
    [[{}, { tierId: 'observer', way: 'amount', typed: '0' }], 1, 'amount.missing'],
    [[{ way: 'amount', typed: '1.500' }], 0, 'amount.two-ways'],
  ])('are refused: %j', (rows, index, code) => {
    expect(read(...rows)).toMatchObject({ ok: false, index, problem: { code } });
  });

  it('are kept only whole: one for each tier, and a share or an amount', () => {
    for (const wrong of [
      [share('warden', 20), off('warden', 100)],
      [{ tierId: 'warden', charges: null }],
      [{ tierId: 'warden', share: 20, amount: 100, charges: null }],
      [share('warden', 0)],
      [off('warden', 1.5)],
      Array.from({ length: 21 }, (_, n) => share(`tier-${n}`, 10)),
    ])
      expect(holderPricesSchema.safeParse(wrong).success).toBe(false);
    expect(holderPricesSchema.safeParse([share('warden', 100), off('observer', 1, 1)]).success).toBe(true);
  });
});
