import fc from 'fast-check';
import { expect, it } from 'vitest';
import { matchPath } from './paths';

/** As the words say it, with no regard to time. */
function matches(pattern: string[], path: string[]): boolean {
  const [head, ...rest] = pattern;
  if (head === undefined) return path.length === 0;
  if (head === '**') return matches(rest, path) || (path.length > 0 && matches(pattern, path.slice(1)));
  return (
    path.length > 0 && isPart(Array.from(head), Array.from(path[0] ?? '')) && matches(rest, path.slice(1))
  );
}
function isPart(pattern: string[], part: string[]): boolean {
  const [head, ...rest] = pattern;
  if (head === undefined) return part.length === 0;
  if (head === '*') return isPart(rest, part) || (part.length > 0 && isPart(pattern, part.slice(1)));
  return head === part[0] && isPart(rest, part.slice(1));
}

it('matches patterns as a plain reading of them does', () => {
  const part = fc.constantFrom('a', 'b', 'ab', 'aab');
  const starred = fc.oneof(part, fc.constantFrom('*', '**', 'a*', '*b', 'a*b', '*a*'));
  fc.assert(
    fc.property(
      fc.array(starred, { minLength: 1, maxLength: 5 }),
      fc.array(part, { maxLength: 6 }),
      (pattern, path) => {
        const written = `/${pattern.join('/')}`;
        fc.pre(
          written.includes('*') && !(written.indexOf('*') === written.length - 1 && written.endsWith('/*')),
        );
        expect(matchPath(written, `/${path.join('/')}`) !== null).toBe(matches(pattern, path));
      },
    ),
    { numRuns: 3000 },
  );
});

it('takes no longer for a pattern that is meant to take long', () => {
  const begun = performance.now();
  expect(matchPath(`/${'*a'.repeat(200)}b`, `/${'a'.repeat(1800)}`)).toBeNull();
  expect(performance.now() - begun).toBeLessThan(500);
});
