import { describe, expect, it } from 'vitest';
import { afterCharge, discounted } from '../billing/discount';
import { codeAgainst, codeTermsSchema, codeWord, discountFor, type CodeTerms } from './codes';
import { NO_TERMS } from '../../../tests/lib/code-terms';

const TERMS: CodeTerms = { ...NO_TERMS, discount: { share: 20, charges: 3 } };
const against = (terms: Partial<CodeTerms>, all = 0, own = 0, isNew: boolean | null = true) =>
  codeAgainst({ ...TERMS, ...terms }, { uses: { all, own }, today: '2026-11-27', isNew })?.code ?? null;

describe('the terms of a code', () => {
  it.each([
    [{ discount: null }, false],
    [{ discount: null, admits: ['founder'] }, true],
    [{ discount: { amount: 200, charges: null } }, false],
    [{ discount: { amount: 200, charges: null }, currency: 'GBP' }, true],
    [{ discount: { amount: 200, share: 10, charges: 1 }, currency: 'GBP' }, false],
    [{ discount: { charges: 1 } }, false],
    [{ discount: { share: 101, charges: 1 } }, false],
    [{ discount: { share: 10, charges: 0 } }, false],
    [{ firstDay: '2026-12-01', lastDay: '2026-11-30' }, false],
    [{ firstDay: '2026-12-01', lastDay: '2026-12-01' }, true],
    [{ mostUses: 0 }, false],
  ])('%j: %s', (part, isGood) =>
    expect(codeTermsSchema.safeParse({ ...TERMS, ...part }).success).toBe(isGood),
  );
});

describe('a code', () => {
  it.each([
    [{}, 0, 0, true, null],
    [{ isOn: false }, 0, 0, true, 'code.over'],
    [{ lastDay: '2026-11-26' }, 0, 0, true, 'code.over'],
    [{ lastDay: '2026-11-27' }, 0, 0, true, null],
    [{ firstDay: '2026-11-28' }, 0, 0, true, 'code.not-yet'],
    [{ firstDay: '2026-11-27' }, 0, 0, true, null],
    [{ mostUses: 2 }, 1, 0, true, null],
    [{ mostUses: 2 }, 2, 0, true, 'code.used-up-all'],
    [{ mostPerPerson: 1 }, 5, 0, true, null],
    [{ mostPerPerson: 1 }, 5, 1, true, 'code.used-by-you'],
    [{ newMembersOnly: true }, 0, 0, false, 'code.new-only'],
    // Who it is, is asked later.
    [{ newMembersOnly: true }, 0, 0, null, null],
  ] as const)('%j, used %i times and %i by this person, new: %s: %s', (terms, all, own, isNew, code) =>
    expect(against(terms as Partial<CodeTerms>, all, own, isNew)).toBe(code),
  );

  it('takes something off its own tiers and currency alone', () => {
    expect(discountFor(TERMS, 'observer', 'GBP')).toEqual({ share: 20, charges: 3 });
    expect(discountFor({ ...TERMS, tierIds: ['warden'] }, 'observer', 'GBP')).toBeNull();
    const amount: CodeTerms = { ...TERMS, discount: { amount: 200, charges: 1 }, currency: 'GBP' };
    expect(discountFor(amount, 'observer', 'GBP')).toEqual({ amount: 200, charges: 1 });
    expect(discountFor(amount, 'observer', 'EUR')).toBeNull();
  });

  it('is made of letters that nobody takes for one another', () => {
    const word = codeWord(
      Uint8Array.from({ length: 12 }, (_, n) => n * 21),
      'Spring',
    );
    expect(word).toMatch(/^spring-[a-z2-9]{4}-[a-z2-9]{4}-[a-z2-9]{4}$/);
    expect(word.slice(7)).not.toMatch(/[ilo01]/);
  });
});

describe('a discount', () => {
  it('is never more than the price, and is rounded half up', () => {
    expect(discounted({ share: 25, charges: null }, 650)).toBe(487);
    expect(discounted({ amount: 700, charges: null }, 600)).toBe(0);
    expect(discounted({ share: 25, charges: 0 }, 600)).toBe(600);
    expect(discounted(null, 600)).toBe(600);
  });

  it('is used up by charges above zero', () => {
    expect(afterCharge({ share: 25, charges: 2 }, 600)).toEqual({ share: 25, charges: 1 });
    expect(afterCharge({ share: 25, charges: 2 }, 0)).toEqual({ share: 25, charges: 2 });
    expect(afterCharge({ share: 25, charges: null }, 600)).toEqual({ share: 25, charges: null });
  });
});
