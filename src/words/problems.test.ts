import { describe, expect, it } from 'vitest';
import { plainWords } from './desk';
import { isProblemCode, problem, refusal } from './problems';

const sentence: typeof plainWords.problem = (found) => plainWords.problem(found);

describe('a problem', () => {
  it('is a sentence with its values: money, lists and other problems as the language writes them', () => {
    expect(sentence(problem('refund.outside', { left: { amount: 350, currency: 'GBP' } }))).toBe(
      'Between the smallest amount and £3.50: that is what is left of this payment.',
    );
    expect(sentence(problem('mail.unknown-field', { field: '{age}', known: ['{name}', '{tier}'] }))).toBe(
      'This mail has nothing to put in for {age}. It knows {name} and {tier}.',
    );
    expect(sentence(problem('account.not-deleted', { why: refusal('disputed') }))).toBe(
      'A payment is disputed. Nothing can be changed until that is decided. Nothing was deleted.',
    );
    expect(sentence(problem('staff.may-not', { role: 'none', right: 'manage money' }))).toBe(
      'Someone who is not staff can’t manage money. Ask the owner of the site.',
    );
  });

  it.each([
    [1, 'At most 1 character.'],
    [2000, 'At most 2,000 characters.'],
  ])('counts %d', (most, words) => expect(sentence(problem('text.too-long', { most }))).toBe(words));

  it('shows what was typed as it was typed', () => {
    expect(sentence(problem('amount.unreadable', { typed: "{it's}", example: '6.00' }))).toBe(
      "“{it's}” is not an amount. Write it like 6.00.",
    );
  });

  it('is one of a form, by its field', () => {
    const all = { name: problem('rule.no-name'), covers: problem('rule.covers-nothing') };
    expect(plainWords.problems(all)).toEqual({ name: 'Name the rule.', covers: 'Say what the rule covers.' });
    expect(isProblemCode('rule.no-name') && !isProblemCode('toString')).toBe(true);
  });

  it('that is stored and lacks a value is still a sentence', () => {
    expect(sentence({ code: 'days.too-many' })).toBe('At most … days.');
  });
});
