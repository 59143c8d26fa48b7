import { expect, it } from 'vitest';
import { alikeName, isPersonal } from './alike';
import { VISITOR, type PersonFacts } from './facts';
import type { Opener, Rule } from './rule';

const member: PersonFacts = {
  signedIn: true,
  id: 'maren',
  joinedAt: '2026-01-01T00:00:00Z',
  tiers: [
    { tier: 'observer', since: '2026-02-01T00:00:00Z', paid: true },
    { tier: 'gazer', since: '2026-01-01T00:00:00Z', paid: false },
  ],
  passes: [{ pass: 'eclipse', since: '2026-03-01T00:00:00Z' }],
  groups: ['committee', 'builders'],
};
const rule = (line: Partial<Opener>, more: Partial<Rule> = {}): Rule => ({
  id: 'r',
  covers: [{ kind: 'site' }],
  openTo: [{ who: { kind: 'signed-in' }, ...line }],
  ...more,
});
const after = { n: 3, unit: 'day' } as const;
const name = alikeName(member, []);

it('does not depend on who someone is, on when they came, or on any order', () => {
  const other: PersonFacts = {
    ...member,
    id: 'tova',
    joinedAt: '2020-01-01T00:00:00Z',
    tiers: member.tiers.map((held) => ({ ...held, since: '2020-02-01T00:00:00Z' as const })).reverse(),
    passes: [{ pass: 'eclipse', since: '2020-03-01T00:00:00Z' }],
    groups: ['builders', 'committee'],
  };
  expect(name).not.toBeNull();
  expect(alikeName(other, [])).toBe(name);
});

it.each<[string, Partial<PersonFacts>]>([
  ['another tier', { tiers: member.tiers.slice(1) }],
  ['a tier that is not paid for', { tiers: member.tiers.map((held) => ({ ...held, paid: false })) }],
  ['no pass', { passes: [] }],
  ['one group less', { groups: ['committee'] }],
])('is another with %s', (_, less) => {
  expect(alikeName({ ...member, ...less }, [])).not.toBe(name);
});

it('there is none for visitors and staff', () => {
  expect(alikeName(VISITOR, [])).toBeNull();
  expect(alikeName({ ...member, staff: 'viewer' }, [])).toBeNull();
});

it.each<[string, Rule]>([
  ['opens something to them by name', rule({ who: { kind: 'member', id: 'maren' } })],
  ['waits from joining', rule({ opens: { since: 'joined', after } })],
  ['ends so long after a tier was got', rule({ closes: { since: 'held', after } })],
  ['is a series', rule({}, { each: { n: 1, unit: 'week' } })],
])('there is none where a rule %s', (_, personal) => {
  expect(isPersonal(personal, member)).toBe(true);
  expect(alikeName(member, [rule({}), personal])).toBeNull();
  expect(alikeName(member, [{ ...personal, on: false }])).toBe(name);
});

it.each<[string, Rule]>([
  ['another member', rule({ who: { kind: 'member', id: 'tova' } })],
  ['a day', rule({ opens: { on: '2026-12-01' } })],
  ['publishing', rule({ opens: { since: 'published', after } })],
])('a rule that speaks of %s changes nothing', (_, alike) => {
  expect(alikeName(member, [alike])).toBe(name);
});
