import { expect, it } from 'vitest';
import { passwordProblem } from './passwords';

it.each(['lantern on the moor', 'look up more often', 'qZ7-vexing-otter', '雨の日は星が見えない夜です'])(
  'takes %s',
  (password) => expect(passwordProblem(password)).toBeNull(),
);

it.each([
  ['short', 'text.too-short'],
  ['password123', 'password.weak-because'],
  ['qwertyuiop', 'password.weak-because'],
  ['1234567890', 'password.weak-because'],
  ['aaaaaaaaaaaa', 'password.weak-because'],
  ['x'.repeat(201), 'text.too-long'],
])('refuses %s', (password, code) => expect(passwordProblem(password)?.code).toBe(code));

it('refuses what is made of the person’s own words', () => {
  expect(passwordProblem('marenoakley1', ['Maren Oakley', 'maren.oakley@moor.example'])).toMatchObject({
    code: 'password.weak',
  });
});

it('is quick with long passwords', () => {
  const started = performance.now();
  passwordProblem('ab1!'.repeat(50));
  expect(performance.now() - started).toBeLessThan(4000);
});
