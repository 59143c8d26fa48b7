import { describe, expect, it } from 'vitest';
import type { ItemFacts } from './facts';
import type { Rule } from './rule';
import { warningsOf, type Warning } from './warnings';

const context = {
  now: '2027-05-10T12:00:00Z',
  zone: 'Europe/London',
  default: 'everyone',
  tiers: [
    { id: 'low', paid: true, onSale: true, longest: null },
    { id: 'week', paid: true, onSale: false, longest: { n: 7, unit: 'day' } },
  ],
  groups: ['g'],
} as const;
const item = (id: string, more: Partial<ItemFacts> = {}): ItemFacts => ({
  id,
  type: 'post',
  path: `/posts/${id}`,
  ancestors: [],
  categories: ['c'],
  tags: [],
  publishedAt: '2027-01-01T00:00:00Z',
  ...more,
});
const low = [{ who: { kind: 'tier' as const, id: 'low' } }];
const rule = (id: string, more: Partial<Rule>): Rule => ({
  id,
  covers: [{ kind: 'category', id: 'c' }],
  openTo: low,
  ...more,
});
const warned = (rules: Rule[], items: ItemFacts[]): Warning[] =>
  warningsOf(rules, items, { ...context, tiers: [...context.tiers], groups: [...context.groups] });

describe('warnings', () => {
  it('are none where rules open something to someone', () => {
    expect(warned([rule('a', {})], [item('i')])).toEqual([]);
    expect(warned([rule('a', { on: false })], [item('i', { system: true })])).toEqual([
      { kind: 'tier-opens-nothing', tier: 'low' },
    ]);
  });

  it('name a rule that covers nothing, and one that never decides', () => {
    const rules = [
      rule('a', {}),
      rule('gone', { covers: [{ kind: 'tag', id: 'x' }] }),
      rule('under', { covers: [{ kind: 'type', id: 'post' }] }),
    ];
    expect(warned(rules, [item('i')])).toEqual([
      { kind: 'covers-nothing', rule: 'gone' },
      { kind: 'never-reached', rule: 'under', by: ['a'] },
    ]);
    // One that must be open as well need not decide.
    expect(warned([rules[0]!, { ...rules[2]!, alsoRequire: true }], [item('i')])).toEqual([]);
  });

  it('name two rules that decide together and differ, with how much they do', () => {
    const tagged = rule('b', { covers: [{ kind: 'tag', id: 't' }], openTo: [{ who: { kind: 'paying' } }] });
    const items = [item('i', { tags: ['t'] }), item('j', { tags: ['t'] }), item('k')];
    expect(warned([rule('a', {}), tagged], items)).toEqual([
      { kind: 'meet', rules: ['a', 'b'], items: ['i', 'j'], count: 2 },
    ]);
    expect(warned([rule('a', {}), { ...tagged, openTo: low }], items)).toEqual([]);
  });

  it('name what nobody can open, but not what one member or a free read opens', () => {
    const closed = rule('none', { covers: [{ kind: 'item', id: 'i' }], openTo: [] });
    const items = [item('i'), item('j')];
    const nobody = { kind: 'nobody', items: ['i'], count: 1, rules: ['none'] };
    expect(warned([rule('a', {}), closed], items)).toEqual([nobody]);
    const one = { ...closed, openTo: [{ who: { kind: 'member' as const, id: 'm' } }] };
    expect(warned([rule('a', {}), one], items)).toEqual([]);
    expect(warned([rule('a', {}), { ...closed, meter: 'm' }], items)).toEqual([]);
  });

  it('name a tier on sale that opens nothing', () => {
    const everyone = [{ who: { kind: 'everyone' as const } }];
    expect(warned([rule('a', { openTo: everyone })], [item('i')])).toEqual([
      { kind: 'tier-opens-nothing', tier: 'low' },
    ]);
  });

  it('name a rule for a page that the site needs, and one that makes wait for longer than a tier lasts', () => {
    const join = item('join', { type: 'page', system: true, categories: [] });
    const closing = rule('closing', { covers: [{ kind: 'item', id: 'join' }] });
    const late = rule('late', {
      openTo: [
        ...low,
        {
          who: { kind: 'tier', id: 'week' },
          opens: { since: 'held', after: { n: 7, unit: 'day' } },
        },
      ],
    });
    expect(warned([closing, late], [join, item('i')])).toEqual([
      { kind: 'system-page', rule: 'closing', items: ['join'] },
      { kind: 'too-long', rule: 'late', tier: 'week' },
    ]);
  });
});
