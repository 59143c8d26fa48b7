import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileRules } from './compile';
import { decide } from './decide';
import { VISITOR, type ItemFacts } from './facts';
import type { Cover, Opener, Rule } from './rule';

const names = fc.constantFrom('a', 'b', 'c');
const paths = fc.constantFrom('/', '/a', '/a/b', '/a/b/c', '/ab', '/a%2fb', '/A b');
const covers: fc.Arbitrary<Cover> = fc.oneof(
  fc.record({
    kind: fc.constantFrom('item', 'under', 'category', 'tag', 'type'),
    id: names,
  }) as fc.Arbitrary<Cover>,
  fc.record({
    kind: fc.constant('path' as const),
    pattern: fc
      .tuple(paths, fc.constantFrom('', '/*', '*', '/**', '/*/c', '/**/c'))
      .map(([path, star]) => (path === '/' && star.startsWith('/') ? star : path + star)),
  }),
  fc.constant({ kind: 'site' as const }),
);
const rules = fc.array(
  fc.record({
    covers: fc.array(covers, { minLength: 1, maxLength: 3 }),
    except: fc.array(covers, { maxLength: 1 }),
    on: fc.boolean(),
    alsoRequire: fc.boolean(),
    openTo: fc.constantFrom<Opener[]>([], [{ who: { kind: 'everyone' } }], [{ who: { kind: 'paying' } }]),
  }),
  { maxLength: 8 },
);
const items: fc.Arbitrary<ItemFacts> = fc.record({
  id: names,
  type: names,
  path: paths,
  ancestors: fc.uniqueArray(names),
  categories: fc.uniqueArray(names),
  tags: fc.uniqueArray(names),
  publishedAt: fc.constant('2027-01-01T00:00:00Z' as const),
});

describe('rules, sorted by what they cover', () => {
  it('decide as all of them do', () => {
    fc.assert(
      fc.property(rules, items, (drawn, item) => {
        const all: Rule[] = drawn.map((rule, n) => ({ ...rule, id: `r${n}` }));
        const asked = {
          now: '2027-05-01T00:00:00Z',
          zone: 'Europe/London',
          default: 'everyone',
          item,
          person: VISITOR,
        } as const;
        const found = compileRules(all)(item);
        expect(decide({ ...asked, rules: found })).toEqual(decide({ ...asked, rules: all }));
      }),
      { numRuns: 2000 },
    );
  });

  it('are few for an item that few cover', () => {
    const many = Array.from({ length: 200 }, (_, n): Rule => ({
      id: `r${n}`,
      covers: [{ kind: 'tag', id: `t${n}` }],
      openTo: [],
    }));
    const item = {
      id: 'i',
      type: 'post',
      path: '/posts/i',
      ancestors: [],
      categories: [],
      tags: ['t7'],
      publishedAt: null,
    };
    expect(compileRules(many)(item).map(({ id }) => id)).toEqual(['r7']);
  });
});
