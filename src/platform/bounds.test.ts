import { expect, it } from 'vitest';
import { breachOf, MOST } from './bounds';

const nested = (depth: number): unknown => {
  let value: unknown = 'x';
  for (let n = 0; n < depth; n++) value = [value];
  return value;
};

it.each([
  ['an ordinary form', { name: 'Ines', answers: { sky: 'dark' } }, null],
  ['emoji and umlauts', { name: 'Zoë 🌠' }, null],
  ['bytes', new Uint8Array(5_000_000), null],
  ['a NUL', { name: 'a\0b' }, 'unreadable'],
  ['a NUL in a key', { 'a\0b': 1 }, 'unreadable'],
  ['half a surrogate pair', { name: '\ud83c' }, 'unreadable'],
  ['more text than fits', ['x'.repeat(600_000), 'x'.repeat(600_000)], 'too large'],
  ['more values than fit', Array.from({ length: MOST.values + 1 }, () => 1), 'too large'],
  ['deep nesting', nested(MOST.depth + 1), 'too deep'],
  ['nesting of a hundred thousand levels', nested(100_000), 'too deep'],
])('%s', (_, input, breach) => {
  expect(breachOf(input)).toBe(breach);
});
