import { expect, it } from 'vitest';
import { safeReturn } from './safe-return';

it.each(['/', '/posts/a?b=c#d', '/join/observer-monthly?to=%2Fposts'])('%s leads back', (path) => {
  expect(safeReturn(path)).toBe(path);
});

it.each([
  '',
  'posts',
  '//evil.example',
  '/\\evil.example',
  'https://evil.example',
  'javascript:alert(1)',
  '/a b',
  '/a\\b',
  '/\tb',
])('“%s” does not', (path) => {
  expect(safeReturn(path)).toBe('/');
});
