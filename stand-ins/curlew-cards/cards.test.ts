import { expect, it } from 'vitest';
import { behaviourOf, isCardNumber, spaced, TEST_CARDS } from './cards';

it('has test cards of its own form that pass their own check', () => {
  for (const card of TEST_CARDS) {
    expect(isCardNumber(card.number)).toBe(true);
    expect(behaviourOf(card.number)).toBe(card.behaviour);
    expect(spaced(card.number)).toMatch(/^902 \d{3} \d{3} \d{3}$/);
  }
  expect(new Set(TEST_CARDS.map((card) => card.number)).size).toBe(TEST_CARDS.length);
});

it('catches every slip of one digit', () => {
  const number = TEST_CARDS[0]!.number;
  for (let at = 3; at < number.length; at++) {
    const digit = (Number(number[at]) + 1) % 10;
    expect(isCardNumber(number.slice(0, at) + String(digit) + number.slice(at + 1))).toBe(false);
  }
});
