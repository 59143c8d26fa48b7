import { expect, it } from 'vitest';
import { isPathHere, isSafeHref } from './addresses';

it.each(['/', '/posts/a?b=c#d', '/join/observer-monthly?to=%2Fposts', '/a?to=https://b.example'])(
  '%s is here',
  (path) => {
    expect(isPathHere(path)).toBe(true);
    expect(isSafeHref(path)).toBe(true);
  },
);

it.each([
  '',
  'posts',
  '//evil.example',
  '/\\evil.example',
  '/..//evil.example',
  '/.//evil.example',
  '/a//b',
  '/%2e%2e//evil.example',
  '/a b',
  '/a\\b',
  '/\tb',
  '/\n/evil.example',
  '/\u00a0/evil.example',
])('%j is not', (path) => {
  expect(isPathHere(path)).toBe(false);
  expect(isSafeHref(path)).toBe(false);
});

it.each(['https://moor.example', 'http://moor.example/a?b', 'mailto:post@moor.example', '#below'])(
  'a link may lead to %s',
  (href) => expect(isSafeHref(href)).toBe(true),
);

it.each([
  'javascript:alert(1)',
  'JaVaScRiPt:alert(1)',
  'java\tscript:alert(1)',
  ' https://moor.example',
  'data:text/html,x',
  'vbscript:x',
  'file:///etc/passwd',
  'ftp://moor.example',
  'https://',
  'https:\\\\evil.example',
])('and not to %j', (href) => expect(isSafeHref(href)).toBe(false));
