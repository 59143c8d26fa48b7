import { describe, expect, it } from 'vitest';
import { outsidePaths, strictest } from './outside';

describe('the addresses of a request outside', () => {
  it('are the one that was asked for and the one that is served, under the prefix', () => {
    expect(outsidePaths('/old', '/a/b?x=1', '/a/b')).toEqual(['/old/a/b']);
    expect(outsidePaths('/old', '/open/%2e%2e/closed/', '/closed/')).toEqual(['/old/closed']);
    expect(outsidePaths('', '/rewritten', '/closed/page.html')).toEqual(['/rewritten', '/closed/page.html']);
    expect(outsidePaths('/old', '/', '/')).toEqual(['/old']);
  });

  it('are none where they can be read in two ways, or are none', () => {
    for (const raw of ['/a%2fb', '/a%', '', 'a', 'http://a/b'])
      expect(outsidePaths('/old', raw, '/a'), raw).toBeNull();
    expect(outsidePaths('/old', '/a', '')).toBeNull();
  });

  it('never lead out of the prefix', () => {
    expect(outsidePaths('/old', '/../../library', '/library')).toEqual(['/old/library']);
  });
});

it('the strictest decision counts', () => {
  const of = (...states: ('open' | 'later' | 'closed')[]) =>
    strictest(states.map((state) => ({ decision: { state, by: 'rule' as const, rules: [] } })))?.decision
      .state;
  expect(of('open', 'open')).toBe('open');
  expect(of('open', 'later')).toBe('later');
  expect(of('later', 'closed', 'open')).toBe('closed');
});
