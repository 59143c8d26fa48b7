import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decide } from './decide';
import { VISITOR, type ItemFacts, type PersonFacts } from './facts';
import { countImpact, impactOf, meetingsOf } from './impact';
import type { Cover, Opener, Rule } from './rule';

const asked = { now: '2027-05-10T12:00:00Z', zone: 'Europe/London', default: 'everyone' } as const;
const covers = fc.constantFrom<Cover>(
  { kind: 'site' },
  { kind: 'category', id: 'a' },
  { kind: 'tag', id: 'b' },
  { kind: 'item', id: 'i1' },
  { kind: 'path', pattern: '/posts/**' },
);
const openers = fc.constantFrom<Opener>(
  { who: { kind: 'everyone' } },
  { who: { kind: 'tier', id: 't' } },
  { who: { kind: 'signed-in' }, opens: { since: 'published', after: { n: 3, unit: 'day' } } },
);
const rulesNamed = fc.array(
  fc.record({
    covers: fc.array(covers, { minLength: 1, maxLength: 2 }),
    openTo: fc.array(openers, { maxLength: 2 }),
    alsoRequire: fc.boolean(),
    on: fc.boolean(),
  }),
  { maxLength: 4 },
);
const named = (drawn: Omit<Rule, 'id'>[]): Rule[] => drawn.map((rule, n) => ({ ...rule, id: `r${n}` }));
const items: ItemFacts[] = Array.from({ length: 12 }, (_, n) => ({
  id: `i${n}`,
  type: 'post',
  path: n % 2 ? `/posts/i${n}` : `/i${n}`,
  ancestors: [],
  categories: n % 3 ? ['a'] : [],
  tags: n % 4 ? [] : ['b'],
  publishedAt: n < 6 ? '2027-05-09T12:00:00Z' : '2027-01-01T00:00:00Z',
}));
const signedIn: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: asked.now };
const people: PersonFacts[] = [
  VISITOR,
  signedIn,
  { ...signedIn, tiers: [{ tier: 't', since: asked.now, paid: true }] },
];

describe('the impact of a change', () => {
  it('is what deciding about each item before and after shows', () => {
    fc.assert(
      fc.property(rulesNamed, rulesNamed, (one, other) => {
        const [before, after] = [named(one), named(other)];
        const found = impactOf(asked, { before, after }, items, people);
        const counted = countImpact(asked, { before, after }, items, people);
        people.forEach((person, n) => {
          const isOpen = (rules: Rule[], item: ItemFacts): boolean =>
            decide({ ...asked, rules, item, person }).state === 'open';
          const opens = items.filter((item) => isOpen(after, item) && !isOpen(before, item));
          const closes = items.filter((item) => !isOpen(after, item) && isOpen(before, item));
          expect(new Set(found[n]?.opens)).toEqual(new Set(opens));
          expect(new Set(found[n]?.closes)).toEqual(new Set(closes));
          expect(counted[n]).toEqual({ opens: opens.length, closes: closes.length });
        });
      }),
      { numRuns: 1000 },
    );
  });

  it('is quick for many items, of which a change touches few', () => {
    const many = Array.from({ length: 100_000 }, (_, n): ItemFacts => ({
      ...items[0]!,
      id: `m${n}`,
      path: `/m${n}`,
      categories: [`c${n % 100}`],
      tags: [],
    }));
    const rule: Rule = { id: 'r', covers: [{ kind: 'category', id: 'c7' }], openTo: [] };
    const begun = performance.now();
    const [forVisitor] = impactOf(asked, { before: [], after: [rule] }, many, people);
    expect(forVisitor?.closes).toHaveLength(1000);
    expect(performance.now() - begun).toBeLessThan(3000);
  });
});

it('a rule meets those that cover some of the same, and who decides there is counted', () => {
  const rule: Rule = { id: 'mine', covers: [{ kind: 'category', id: 'a' }], openTo: [] };
  const others: Rule[] = [
    { id: 'tag', covers: [{ kind: 'tag', id: 'b' }], openTo: [] },
    { id: 'site', covers: [{ kind: 'site' }], openTo: [] },
    { id: 'one', covers: [{ kind: 'item', id: 'i1' }], openTo: [] },
    { id: 'also', covers: [{ kind: 'site' }], openTo: [], alsoRequire: true },
    { id: 'elsewhere', covers: [{ kind: 'type', id: 'page' }], openTo: [] },
  ];
  expect(meetingsOf(rule, others, items).sort((a, b) => a.rule.localeCompare(b.rule))).toEqual([
    { rule: 'one', together: 0, decides: 0, gives: 1 },
    { rule: 'site', together: 0, decides: 8, gives: 0 },
    { rule: 'tag', together: 2, decides: 0, gives: 0 },
  ]);
});
