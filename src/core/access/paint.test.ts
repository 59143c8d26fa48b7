import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decide } from './decide';
import { VISITOR, type ItemFacts, type PersonFacts } from './facts';
import { paintLines, paintRules, type KnownTier, type Paint } from './paint';
import { refKey, type Cover, type Opener, type Rule, type Who } from './rule';

const asked = { now: '2027-05-10T12:00:00Z', zone: 'Europe/London', default: 'everyone' } as const;
const tiers: KnownTier[] = [
  { id: 'free', paid: false },
  { id: 'low', paid: true },
  { id: 'high', paid: true },
];
const signedIn: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: asked.now };
const holder = ({ id, paid }: KnownTier): PersonFacts => ({
  ...signedIn,
  tiers: [{ tier: id, since: asked.now, paid }],
});
/** The columns of the map, each with what its line of a rule is. */
const columns: { who: Who; person: PersonFacts }[] = [
  { who: { kind: 'everyone' }, person: VISITOR },
  { who: { kind: 'signed-in' }, person: signedIn },
  ...tiers.map((tier) => ({ who: { kind: 'tier' as const, id: tier.id }, person: holder(tier) })),
];
const item: ItemFacts = {
  id: 'a',
  type: 'post',
  path: '/posts/a',
  ancestors: [],
  categories: ['c'],
  tags: [],
  publishedAt: '2027-05-09T12:00:00Z',
};
const lines = fc.array(
  fc.constantFrom<Opener>(
    ...columns.map(({ who }) => ({ who })),
    { who: { kind: 'paying' } },
    { who: { kind: 'everyone' }, opens: { since: 'published', after: { n: 3, unit: 'day' } } },
    { who: { kind: 'tier', id: 'low' }, opens: { since: 'published', after: { n: 3, unit: 'day' } } },
  ),
  { maxLength: 5 },
);
const states = (rules: Rule[]) =>
  columns.map(({ person }) => decide({ ...asked, rules, item, person }).state);
const ruleOf = (openTo: Opener[]): Rule => ({ id: 'r', covers: [{ kind: 'category', id: 'c' }], openTo });

describe('painting lines', () => {
  it('sets the painted cell, and keeps access for people with more rights', () => {
    fc.assert(
      fc.property(lines, fc.nat(columns.length - 1), fc.constantFrom('open', 'closed'), (openTo, at, to) => {
        const column = columns[at];
        if (!column) return;
        const was = states([ruleOf(openTo)]);
        const is = states([ruleOf(paintLines(openTo, column.who, to, tiers))]);
        expect(is[at]).toBe(to);
        columns.forEach((_, n) => {
          const isAbove = n > at || (at >= 2 && n >= 2 && n !== at);
          if (to === 'closed' && isAbove) expect([n, is[n]]).toEqual([n, was[n]]);
          if (to === 'open' && was[n] === 'open') expect(is[n]).toBe('open');
        });
      }),
      { numRuns: 2000 },
    );
  });
});

describe('painting cells', () => {
  const context = {
    default: 'everyone' as const,
    tiers,
    newId: (target: Cover, taken: Set<string>) => `for-${refKey(target)}-${taken.size}`,
  };
  const paint = (target: Cover, who: Who, to: Paint['to']): Paint => ({ target, facts: item, who, to });
  const category: Cover = { kind: 'category', id: 'c' };
  const single: Cover = { kind: 'item', id: 'a' };

  it('creates a rule for the painted row, starting from the rules that decided before', () => {
    const rules = [{ ...ruleOf([{ who: { kind: 'tier', id: 'low' } }]), meter: 'm', listed: false }];
    const { after, changes } = paintRules(
      rules,
      [paint(single, { kind: 'tier', id: 'high' }, 'open')],
      context,
    );
    expect(changes).toEqual([{ id: 'for-item:a-1', before: null, after: after[1] }]);
    expect(after[1]).toMatchObject({
      covers: [single],
      openTo: [{ who: { kind: 'tier', id: 'low' } }, { who: { kind: 'tier', id: 'high' } }],
      meter: 'm',
      listed: false,
    });
  });

  it('changes the rule that is for it alone, and takes it out of one that covers other things too', () => {
    const rules: Rule[] = [
      {
        id: 'both',
        covers: [category, { kind: 'category', id: 'd' }],
        openTo: [{ who: { kind: 'everyone' } }],
      },
    ];
    const closing = [paint(category, { kind: 'everyone' }, 'closed')];
    const { after } = paintRules(rules, closing, context);
    expect(after.map(({ id, covers, openTo }) => [id, covers, openTo])).toEqual([
      ['both', [{ kind: 'category', id: 'd' }], [{ who: { kind: 'everyone' } }]],
      ['for-category:c-1', [category], [{ who: { kind: 'signed-in' } }]],
    ]);
    const again = paintRules(after, [paint(category, { kind: 'signed-in' }, 'closed')], context);
    expect(again.changes.map(({ id }) => id)).toEqual(['for-category:c-1']);
    expect(states(again.after)).toEqual(['closed', 'closed', 'open', 'open', 'open']);
  });

  it('leaves the exceptions of the rule that it changes', () => {
    const except: Cover[] = [{ kind: 'item', id: 'b' }];
    const rules: Rule[] = [{ ...ruleOf([]), except }];
    const { after } = paintRules(rules, [paint(category, { kind: 'signed-in' }, 'open')], context);
    expect(after).toEqual([{ ...ruleOf([{ who: { kind: 'signed-in' } }]), except }]);
  });

  it('removes what was set, so that the next layer decides again', () => {
    const rules: Rule[] = [
      ruleOf([{ who: { kind: 'everyone' } }]),
      { id: 'own', covers: [single], openTo: [] },
      { id: 'two', covers: [single, { kind: 'item', id: 'b' }], openTo: [] },
    ];
    const { after, changes } = paintRules(rules, [paint(single, { kind: 'everyone' }, 'inherit')], context);
    expect(after.map(({ id }) => id)).toEqual(['r', 'two']);
    expect(changes).toHaveLength(2);
    expect(states(after)).toEqual(['open', 'open', 'open', 'open', 'open']);
  });

  it('sets the painted cell, whatever rules other layers have', () => {
    const rulesOf = fc.array(
      fc.record({
        covers: fc.subarray<Cover>([{ kind: 'site' }, { kind: 'type', id: 'post' }, category, single], {
          minLength: 1,
        }),
        openTo: lines,
      }),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(rulesOf, fc.nat(columns.length - 1), fc.constantFrom('open', 'closed'), (drawn, at, to) => {
        const column = columns[at];
        if (!column) return;
        const rules = drawn.map((rule, n) => ({ ...rule, id: `r${n}` }));
        const { after } = paintRules(rules, [paint(single, column.who, to)], context);
        expect(states(after)[at]).toBe(to);
      }),
      { numRuns: 2000 },
    );
  });
});
