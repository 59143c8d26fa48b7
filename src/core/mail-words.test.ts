import { expect, it } from 'vitest';
import { mergeWords, paragraphs, unknownFields } from './mail-words';

it('fills in fields, however they are spaced or cased', () => {
  const fields = { 'first name': 'Maren', tier: 'Observer' };
  expect(mergeWords('Dear {first name}, {First  Name}: {tier}!', fields)).toBe(
    'Dear Maren, Maren: Observer!',
  );
});

it('leaves alone what is no field, and reads no field out of a value', () => {
  expect(mergeWords('{amount} and {} and { and }', { tier: 'x' })).toBe('{amount} and {} and { and }');
  expect(mergeWords('{name}', { name: '{tier}', tier: 'secret' })).toBe('{tier}');
});

it('finds fields that nobody can fill in', () => {
  expect(unknownFields('{tier} {teir} {AMOUNT}', ['tier', 'amount'])).toEqual(['teir']);
});

it('reads paragraphs', () => {
  expect(paragraphs(' one \n\n two\nthree ')).toEqual(['one', 'two', 'three']);
});
