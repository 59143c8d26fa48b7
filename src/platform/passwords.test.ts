import { expect, it } from 'vitest';
import { passwordProblem } from './passwords';

it.each(['lantern on the moor', 'look up more often', 'qZ7-vexing-otter', '雨の日は星が見えない夜です'])(
  'takes %s',
  (password) => expect(passwordProblem(password)).toBeNull(),
);

it.each([
  ['short', 'at least 10'],
  ['password123', 'easy to guess'],
  ['qwertyuiop', 'easy to guess'],
  ['1234567890', 'easy to guess'],
  ['aaaaaaaaaaaa', 'easy to guess'],
  ['x'.repeat(201), 'at most 200'],
])('refuses %s', (password, why) => expect(passwordProblem(password)).toContain(why));

it('refuses what is made of the person’s own words', () => {
  expect(passwordProblem('marenoakley1', ['Maren Oakley', 'maren.oakley@moor.example'])).toContain(
    'easy to guess',
  );
});

it('is quick with long passwords', () => {
  const started = performance.now();
  passwordProblem('ab1!'.repeat(50));
  expect(performance.now() - started).toBeLessThan(1500);
});
