import { describe, expect, it } from 'vitest';
import { doorstepWith } from '../../../tests/lib/doorsteps';
import type { Question } from './decide';
import { askerOf } from './asker';
import { noticeParts, speakingRule, type NoticeField } from './doorstep';
import { VISITOR } from './facts';
import type { Opener, Rule } from './rule';
import { asHolder, timesOf } from './open-week';

const item = {
  id: 'a',
  type: 'post',
  path: '/a',
  ancestors: [],
  categories: ['c'],
  tags: [],
  publishedAt: null,
};

describe('as whom someone is met', () => {
  it('is what they can do at once, before waiting', () => {
    const nothing = { lapsed: false, unpaid: false };
    expect(askerOf(false, 'later', nothing)).toBe('visitor');
    expect(askerOf(true, 'closed', nothing)).toBe('wrong-tier');
    expect(askerOf(true, 'ended', nothing)).toBe('wrong-tier');
    expect(askerOf(true, 'later', nothing)).toBe('must-wait');
    expect(askerOf(true, 'later', { ...nothing, lapsed: true })).toBe('lapsed');
    expect(askerOf(true, 'closed', { lapsed: true, unpaid: true })).toBe('payment-failed');
  });
});

describe('a notice', () => {
  const values: Record<NoticeField, string | { label: string; href: string }> = {
    'first name': 'Maren',
    item: 'A {price} of stars',
    summary: '',
    tiers: 'Observer',
    price: '£6',
    join: { label: 'Join', href: '/join' },
    'sign in': { label: 'Sign in', href: '/sign-in' },
  };

  it('has its fields filled in, as texts and links', () => {
    expect(noticeParts('{First  Name}, {join} or {sign in}: {price}.', values)).toEqual([
      'Maren, ',
      { label: 'Join', href: '/join' },
      ' or ',
      { label: 'Sign in', href: '/sign-in' },
      ': £6.',
    ]);
  });

  it('keeps what is no field, and never reads a value as one', () => {
    expect(noticeParts('{item} {unknown} {', values)).toEqual(['A {price} of stars {unknown} {']);
    expect(noticeParts('', values)).toEqual([]);
  });
});

describe('whose doorstep speaks', () => {
  const everyone: Opener[] = [{ who: { kind: 'everyone' } }];
  const rule = (id: string, more: Partial<Rule> = {}): Rule => ({
    id,
    covers: [{ kind: 'category', id: 'c' }],
    openTo: [],
    doorstep: doorstepWith(),
    ...more,
  });
  const asked = (rules: Rule[]): Question => ({
    now: '2026-05-01T00:00:00Z',
    zone: 'Europe/London',
    default: 'everyone',
    rules,
    item: item,
    person: VISITOR,
  });
  const speaker = (rules: Rule[]): string | undefined => speakingRule(asked(rules), rules)?.id;

  it('is that of a rule that decides; of several, the first by id that has one', () => {
    expect(speaker([rule('b'), rule('a')])).toBe('a');
    expect(speaker([rule('b'), rule('a', { doorstep: null })])).toBe('b');
    expect(speaker([rule('a', { doorstep: null })])).toBeUndefined();
  });

  it('is that of a rule which must be open as well where only that one is not', () => {
    const narrowing = rule('n', { alsoRequire: true });
    expect(speaker([rule('a', { openTo: everyone }), narrowing])).toBe('n');
    expect(speaker([rule('z'), narrowing])).toBe('z');
  });
});

describe('an open week', () => {
  const week = timesOf({ tier: 'observer', from: '2026-05-01', until: '2026-05-07' }, true, 'Europe/London');

  it('lasts for all of its last date, in the zone of the site', () => {
    expect([week.from, week.to]).toEqual(['2026-04-30T23:00:00Z', '2026-05-07T23:00:00Z']);
    const tiersAt = (now: string) => asHolder(VISITOR, week, now as Question['now']).tiers;
    expect(tiersAt('2026-04-30T22:59:59Z')).toEqual([]);
    expect(tiersAt('2026-04-30T23:00:00Z')).toEqual([{ tier: 'observer', since: week.from, paid: true }]);
    expect(tiersAt('2026-05-07T22:59:59Z')).toHaveLength(1);
    expect(tiersAt('2026-05-07T23:00:00Z')).toEqual([]);
  });

  it('leaves what someone holds as it is', () => {
    const held = {
      ...VISITOR,
      tiers: [{ tier: 'observer', since: '2020-01-01T00:00:00Z' as const, paid: false }],
    };
    expect(asHolder(held, week, '2026-05-02T00:00:00Z')).toBe(held);
  });
});
