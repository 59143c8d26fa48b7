import { expect, it } from 'vitest';
import { nameProblem } from './name';

it.each(['Maren Oakley', 'J. R. R. Ó Néill-O’Hara', 'St. John Smythe', '王小明', 'J.R. Smith', ''])(
  'takes %s',
  (name) => expect(nameProblem(name)).toBeNull(),
);

it.each([
  'Win a prize at https://evil.example',
  'www.evil.example',
  'evil.example',
  'Evil.Example',
  'ask me@evil.example',
  'evil。example',
  '<b>Maren</b>',
  'Maren\r\nBcc: all@moor.example',
  'Maren\u2028Oakley',
  'x'.repeat(121),
])('refuses %j', (name) => expect(nameProblem(name)).toHaveProperty('code'));
