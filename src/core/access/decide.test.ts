import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { alikeName } from './alike';
import type { ItemFacts, PersonFacts } from './facts';
import { decide, type Question } from './decide';
import { matchPath, normalisePath } from './paths';
import type { Cover, Opener, Rule, Who } from './rule';
import { tiersThatWouldOpen } from './would-open';

const TIERS = ['gazer', 'observer', 'warden'];
const instant = fc.constantFrom(
  '2027-01-01T10:00:00Z',
  '2027-01-10T09:00:00Z',
  '2027-02-01T00:00:00Z',
  '2027-03-28T01:30:00Z',
);
const who: fc.Arbitrary<Who> = fc.oneof(
  fc.constantFrom<Who>(
    { kind: 'everyone' },
    { kind: 'signed-in' },
    { kind: 'paying' },
    { kind: 'group', id: 'committee' },
    { kind: 'pass', id: 'eclipse' },
  ),
  fc.constantFrom(...TIERS).map((id): Who => ({ kind: 'tier', id })),
);
const edge = fc.oneof(
  fc.constantFrom('2027-01-05', '2027-02-01', '2027-03-01').map((on) => ({ on })),
  fc.record({
    since: fc.constantFrom('held' as const, 'joined' as const, 'published' as const),
    after: fc.record({ n: fc.integer({ min: 1, max: 40 }), unit: fc.constant('day' as const) }),
  }),
);
const opener: fc.Arbitrary<Opener> = fc.record({
  who,
  opens: fc.option(edge, { nil: undefined }),
  closes: fc.option(edge, { nil: undefined }),
});
const cover: fc.Arbitrary<Cover> = fc.constantFrom<Cover>(
  { kind: 'item', id: 'c1' },
  { kind: 'under', id: 'charts' },
  { kind: 'under', id: 'library' },
  { kind: 'path', pattern: '/library/*' },
  { kind: 'category', id: 'guides' },
  { kind: 'tag', id: 'video' },
  { kind: 'type', id: 'page' },
  { kind: 'site' },
  { kind: 'item', id: 'elsewhere' },
);
const rule = (id: string): fc.Arbitrary<Rule> =>
  fc.record({
    id: fc.constant(id),
    on: fc.boolean(),
    covers: fc.array(cover, { minLength: 1, maxLength: 3 }),
    except: fc.array(cover, { maxLength: 1 }),
    openTo: fc.array(opener, { maxLength: 3 }),
    alsoRequire: fc.boolean(),
  });
const rules = fc
  .integer({ min: 0, max: 4 })
  .chain((n) => fc.tuple(...Array.from({ length: n }, (_, i) => rule(`r${i}`))));
const item: ItemFacts = {
  id: 'c1',
  type: 'page',
  path: '/library/charts/c1',
  ancestors: ['charts', 'library'],
  categories: ['guides'],
  tags: ['video'],
  publishedAt: '2027-01-10T09:00:00Z',
};
const person: fc.Arbitrary<PersonFacts> = fc.record({
  signedIn: fc.constant(true),
  id: fc.constant('m1'),
  joinedAt: instant,
  tiers: fc.array(fc.record({ tier: fc.constantFrom(...TIERS), since: instant, paid: fc.boolean() }), {
    maxLength: 2,
  }),
  passes: fc.array(fc.record({ pass: fc.constant('eclipse'), since: instant }), { maxLength: 1 }),
  groups: fc.subarray(['committee']),
});
const question: fc.Arbitrary<Question> = fc.record({
  now: fc.constantFrom('2027-01-12T12:00:00Z', '2027-02-01T12:00:00Z', '2027-04-01T12:00:00Z'),
  zone: fc.constant('Europe/London'),
  default: fc.constantFrom('everyone' as const, 'signed-in' as const, 'paying' as const),
  rules,
  item: fc.constant(item),
  person,
});

const RANK = { open: 0, metered: 0, later: 1, ended: 2, closed: 3 };

describe('decisions', () => {
  it('never close by adding an opener to a rule that decides', () => {
    fc.assert(
      fc.property(question, opener, fc.nat(), (q, extra, pick) => {
        const before = decide(q);
        const index = q.rules.length > 0 ? pick % q.rules.length : -1;
        const more = q.rules.map((r, i) => (i === index ? { ...r, openTo: [...r.openTo, extra] } : r));
        expect(RANK[decide({ ...q, rules: more }).state]).toBeLessThanOrEqual(RANK[before.state]);
      }),
      { numRuns: 500 },
    );
  });

  it('are the same for two who are alike', () => {
    fc.assert(
      fc.property(question, person, (q, other) => {
        // The same holdings, got at other times.
        const tiers = q.person.tiers.map((held, n) => ({ ...held, since: other.tiers[n]?.since ?? q.now }));
        const passes = q.person.passes.map(({ pass }) => ({ pass, since: other.passes[0]?.since ?? q.now }));
        const alike = { ...q.person, id: 'm2', joinedAt: other.joinedAt, tiers, passes };
        const name = alikeName(q.person, q.rules);
        expect(alikeName(alike, q.rules)).toBe(name);
        if (name !== null) expect(decide({ ...q, person: alike })).toEqual(decide(q));
      }),
      { numRuns: 2000 },
    );
  });

  it('are not changed by a rule that is switched off', () => {
    fc.assert(
      fc.property(question, rule('off'), (q, r) => {
        expect(decide({ ...q, rules: [...q.rules, { ...r, on: false }] })).toEqual(decide(q));
      }),
    );
  });

  it('do not depend on the order of rules', () => {
    fc.assert(
      fc.property(question, (q) => {
        expect(decide({ ...q, rules: [...q.rules].reverse() })).toEqual(decide(q));
      }),
    );
  });

  it('only ever narrow by a rule that is also required', () => {
    fc.assert(
      fc.property(question, rule('also'), (q, r) => {
        const narrowed = decide({ ...q, rules: [...q.rules, { ...r, on: true, alsoRequire: true }] });
        expect(RANK[narrowed.state]).toBeGreaterThanOrEqual(RANK[decide(q).state]);
      }),
    );
  });

  it('name an instant exactly where one is due', () => {
    fc.assert(
      fc.property(question, (q) => {
        const decision = decide(q);
        expect('opensAt' in decision).toBe(decision.state === 'later');
        expect('endedAt' in decision).toBe(decision.state === 'ended');
      }),
    );
  });

  it('need a staff role, not only the right to read', () => {
    const closed: Question = {
      now: '2027-02-01T12:00:00Z',
      zone: 'UTC',
      default: 'everyone',
      item,
      rules: [{ id: 'r', covers: [{ kind: 'site' }], openTo: [] }],
      person: { signedIn: true, tiers: [], passes: [], groups: [], readsAll: true },
    };
    expect(decide(closed).state).toBe('closed');
    expect(decide({ ...closed, person: { ...closed.person, staff: 'owner' } })).toEqual({
      state: 'open',
      by: 'staff',
      rules: [],
    });
  });
});

describe('addresses', () => {
  it.each([
    ['/a//b/', '/a/b'],
    ['/a/./b/../c?x=1#y', '/a/c'],
    ['/../..', '/'],
    ['/caf%C3%A9', '/café'],
    ['/a%2Fb', null],
    ['/a%5cb', null],
    ['/%E0%A4%A', null],
    ['/%252e%252e/x', '/%2e%2e/x'],
  ])('%s is %s', (raw, normal) => expect(normalisePath(raw)).toBe(normal));

  it.each([
    ['/library/*', '/library', 8],
    ['/library/*', '/library/charts', 8],
    ['/lib/*', '/library', null],
    ['/library', '/library/charts', null],
    ['/*', '/anything', 0],
    ['/posts/*/notes', '/posts/comet/notes', 6],
    ['/posts/*/notes', '/posts/comet/tail/notes', null],
    ['/posts/*/notes', '/posts/notes', null],
    ['/posts/2026-*', '/posts/2026-frost', 12],
    ['/posts/*-note', '/posts/frost-note', 6],
    ['/posts/*-note', '/posts/frost-notes', null],
    ['/**/charts', '/library/maps/charts', 0],
    ['/**/charts', '/charts', 0],
    ['/library/**', '/library', 8],
    ['/library/**/c*', '/library/a/b/c1', 8],
    ['/a%2f*', '/a/b', null],
    ['/about/', '/about', 6],
  ])('%s against %s', (pattern, path, length) => expect(matchPath(pattern, path)).toBe(length));
});

it('knows which tiers would open an item, at once or after a wait', () => {
  const q: Question = {
    now: '2027-01-11T09:00:00Z',
    zone: 'UTC',
    default: 'everyone',
    item,
    person: { signedIn: false, tiers: [], passes: [], groups: [] },
    rules: [
      {
        id: 'frames',
        covers: [{ kind: 'category', id: 'guides' }],
        openTo: [
          { who: { kind: 'tier', id: 'warden' } },
          {
            who: { kind: 'tier', id: 'observer' },
            opens: { since: 'published', after: { n: 3, unit: 'day' } },
          },
        ],
      },
    ],
  };
  expect(
    tiersThatWouldOpen(
      q,
      TIERS.map((tier) => ({ tier, paid: tier !== 'gazer' })),
    ),
  ).toEqual([
    { tier: 'observer', at: 'later' },
    { tier: 'warden', at: 'once' },
  ]);
});
