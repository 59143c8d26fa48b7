import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decide, type Question } from './decide';
import { explain, type Explanation } from './explain';
import type { ItemFacts, PersonFacts } from './facts';
import type { Rule } from './rule';

const NOW = '2027-01-31T15:00:00Z';
const item: ItemFacts = {
  id: 'night',
  type: 'post',
  path: '/posts/night',
  ancestors: [],
  categories: ['guides'],
  tags: ['moon'],
  publishedAt: NOW,
};
const person = (...tiers: string[]): PersonFacts => ({
  signedIn: tiers.length > 0,
  joinedAt: NOW,
  tiers: tiers.map((tier) => ({ tier, since: NOW, paid: true })),
  passes: [],
  groups: [],
});
const rule = (id: string, covers: Rule['covers'], ...tiers: string[]): Rule => ({
  id,
  covers,
  openTo: tiers.map((tier) => ({ who: { kind: 'tier', id: tier } })),
});
const asked = (rules: Rule[], who: PersonFacts): Question => ({
  now: NOW,
  zone: 'Europe/London',
  default: 'everyone',
  rules,
  item,
  person: who,
});
/** Lists of rules keep what was worked out with them: a copy begins anew. */
const anew = (question: Question): Question => ({ ...question, rules: structuredClone(question.rules) });

describe('what led to a decision', () => {
  const guides = rule('guides', [{ kind: 'category', id: 'guides' }], 'observer', 'warden');
  const moon = rule('moon', [{ kind: 'tag', id: 'moon' }], 'founder');
  const all = rule('all', [{ kind: 'site' }], 'gazer');
  const spared: Rule = {
    ...rule('spared', [{ kind: 'type', id: 'post' }], 'gazer'),
    except: [{ kind: 'item', id: 'night' }],
  };

  it('names the rules that decide, each line, what is not reached, and what is excepted', () => {
    const explanation = explain(asked([all, guides, moon, spared], person('warden')));
    expect(explanation.decision).toEqual({ state: 'open', by: 'rule', rules: ['guides', 'moon'] });
    expect(
      explanation.deciding.map(({ rule: id, verdict, lines }) => [
        id,
        verdict.state,
        lines.map(({ isTheirs }) => isTheirs),
      ]),
    ).toEqual([
      ['guides', 'open', [false, true]],
      ['moon', 'closed', [false]],
    ]);
    expect(explanation.notReached.map(({ rule: id }) => id)).toEqual(['all']);
    expect(explanation.excepted).toEqual(['spared']);
    expect([explanation.required, explanation.default]).toEqual([[], null]);
  });

  it('is worked out once for all whom the same lines name, and apart for others', () => {
    const rules = [guides, moon];
    const first = explain(asked(rules, person('warden')));
    expect(explain(asked(rules, person('warden', 'gazer')))).toBe(first);
    expect(explain(asked(rules, person('observer')))).not.toBe(first);
    // A rule of two lines that name the same tier is one that names it.
    expect(explain(asked(rules, person())).decision.state).toBe('closed');
  });

  it('is shared by items that are explained alike, and by no others', () => {
    const of = (one: ItemFacts, rules: Rule[] = [guides, moon]): Explanation =>
      explain({ ...asked([...rules], person('warden')), item: one });
    const first = of(item);
    expect(of({ ...item, id: 'dusk', path: '/posts/dusk' })).toBe(first);
    expect(of({ ...item, tags: [] })).toEqual(explain(anew({ ...asked([guides], person('warden')), item })));
    // A rule beside it was edited: it has the same name, and says something else.
    const edited = rule('moon', [{ kind: 'tag', id: 'moon' }], 'warden');
    expect(of(item, [guides, edited]).deciding[1]?.verdict.state).toBe('open');
    expect(first.deciding[1]?.verdict.state).toBe('closed');
  });

  it('is found among more names than are compared at once', () => {
    const tiers = Array.from({ length: 60 }, (_, n) => `tier-${n}`);
    const rules = tiers.map((tier) => rule(`only ${tier}`, [{ kind: 'category', id: tier }], tier));
    for (const held of tiers)
      for (const [n, tier] of tiers.entries()) {
        const question = {
          ...asked([rules[n] as Rule], person(held)),
          item: { ...item, categories: [tier] },
        };
        expect(explain(question).decision.state).toBe(held === tier ? 'open' : 'closed');
        expect(decide(question)).toEqual(explain(question).decision);
      }
  });

  it('is worked out anew where dates, waits, meters or further rules have a say, and for staff who read everything', () => {
    const waits: Rule = {
      ...guides,
      openTo: [
        { who: { kind: 'tier', id: 'warden' }, opens: { since: 'held', after: { n: 3, unit: 'day' } } },
      ],
    };
    const rules = [waits];
    const [new_, old] = [
      person('warden'),
      {
        ...person(),
        signedIn: true,
        tiers: [{ tier: 'warden', since: '2026-01-01T00:00:00Z' as const, paid: true }],
      },
    ];
    expect(explain(asked(rules, new_)).decision.state).toBe('later');
    expect(explain(asked(rules, old)).decision.state).toBe('open');
    const staff: PersonFacts = { ...person(), staff: 'editor', readsAll: true };
    expect(explain(asked([guides], person())).decision.by).toBe('rule');
    expect(explain(asked([guides], staff))).toMatchObject({ decision: { by: 'staff' }, deciding: [] });
  });

  it('is the same from the cache as without it, in any order of people', () => {
    const tier = fc.constantFrom('gazer', 'observer', 'warden', 'founder');
    const covers = fc.constantFrom<Rule['covers'][number]>(
      { kind: 'site' },
      { kind: 'type', id: 'post' },
      { kind: 'category', id: 'guides' },
      { kind: 'tag', id: 'moon' },
      { kind: 'item', id: 'night' },
      { kind: 'item', id: 'other' },
    );
    const oneRule = fc.record({
      covers: fc.array(covers, { minLength: 1, maxLength: 2 }),
      tiers: fc.array(tier, { maxLength: 3 }),
      alsoRequire: fc.boolean(),
      isOff: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(oneRule, { maxLength: 6 }),
        fc.array(fc.array(tier, { maxLength: 3 }), { minLength: 1, maxLength: 5 }),
        (made, people) => {
          const rules = made.map(({ covers: some, tiers, alsoRequire, isOff }, n): Rule => ({
            ...rule(`r${n}`, some, ...tiers),
            ...(alsoRequire && { alsoRequire }),
            ...(isOff && { on: false }),
          }));
          for (const tiers of people) {
            const question = asked(rules, person(...tiers));
            expect(explain(question)).toEqual(explain(anew(question)));
            expect(explain(question).decision).toEqual(decide(anew(question)));
          }
        },
      ),
      { numRuns: 300 },
    );
  });
});
