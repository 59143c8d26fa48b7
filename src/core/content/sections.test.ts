import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Question } from '../access/decide';
import { VISITOR, type PersonFacts } from '../access/facts';
import type { Rule } from '../access/rule';
import type { Instant } from '../instants';
import { articleSchema, hasSections, proseSchema, type Gate, type Node, type Prose } from './prose';
import { CLOSED, isSectionOpen, openParts, rulesOfSections, withoutSections } from './sections';

const gate = (part: Partial<Gate> = {}): Gate => ({ rule: null, openTo: [], instead: '', ...part });
const forTier = (tier: string): Gate => gate({ openTo: [{ who: { kind: 'tier', id: tier } }] });
const text = (words: string, inside?: Gate): Node => ({
  type: 'text',
  text: words,
  ...(inside && { marks: [{ type: 'sectionWords' as const, attrs: inside }] }),
});
const line = (...content: Node[]): Node => ({ type: 'paragraph', content });
const section = (attrs: Gate, ...content: Node[]): Node => ({ type: 'section', attrs, content });
const doc = (...content: Node[]): Prose => ({ type: 'doc', content });
const same =
  (one: Gate) =>
  (other: Gate): boolean =>
    JSON.stringify(one) === JSON.stringify(other);
const only =
  (...open: Gate[]) =>
  (asked: Gate): boolean =>
    open.some(same(asked));

describe('a document as one person may read it', () => {
  const observers = forTier('observer');
  const wardens = forTier('warden');

  it('has what is open as if it were no section, and nothing of what is closed', () => {
    const prose = doc(
      line(text('first')),
      section(observers, line(text('for observers')), section(wardens, line(text('for wardens')))),
      line(text('last')),
    );
    expect(openParts(prose, only())).toEqual(doc(line(text('first')), { type: CLOSED }, line(text('last'))));
    expect(openParts(prose, only(observers))).toEqual(
      doc(line(text('first')), line(text('for observers')), { type: CLOSED }, line(text('last'))),
    );
    expect(openParts(prose, only(observers, wardens))).toEqual(
      doc(line(text('first')), line(text('for observers')), line(text('for wardens')), line(text('last'))),
    );
    // A section inside a closed one stays closed, even to people whom it would let in by itself.
    expect(JSON.stringify(openParts(prose, only(wardens)))).not.toContain('for wardens');
  });

  it('has the author’s words in place of what is closed, once for each run', () => {
    const told = gate({ instead: 'a place we tell members' });
    const bold: Node = {
      ...text('mill', told),
      marks: [{ type: 'bold' }, { type: 'sectionWords', attrs: told }],
    };
    const prose = doc(
      line(text('It grows at '), text('the old ', told), bold, text('.')),
      section(told, line(text('Take the lower path.'))),
    );
    expect(withoutSections(prose)).toEqual(
      doc(line(text('It grows at '), text('a place we tell members'), text('.')), {
        type: CLOSED,
        content: [text('a place we tell members')],
      }),
    );
    const open = openParts(prose, () => true);
    expect(hasSections(open)).toBe(false);
    expect(JSON.stringify(open)).not.toContain('tell members');
  });

  it('has no line and no list left of which everything is closed', () => {
    const item = (...content: Node[]): Node => ({ type: 'listItem', content });
    const list: Node = {
      type: 'bulletList',
      content: [item(line(text('one'))), item(line(text('two', observers)))],
    };
    expect(withoutSections(doc(list, line(text('alone', observers))))).toEqual(
      doc({ type: 'bulletList', content: [item(line(text('one')))] }),
    );
  });

  it('never holds a word of a closed section, wherever sections are', () => {
    const gates = [observers, wardens, gate({ rule: 'guides', instead: 'not for you' })];
    const some = fc.constantFrom(...gates);
    const { block } = fc.letrec<{ block: Node; blocks: Node[] }>((tie) => ({
      block: fc.oneof(
        { depthSize: 'small' },
        fc
          .array(fc.option(some, { nil: undefined }), { minLength: 1, maxLength: 4 })
          .map((all) => line(...all.map((inside) => text('word', inside)))),
        fc.tuple(some, tie('blocks')).map(([attrs, content]) => section(attrs, ...content)),
        tie('blocks').map((content): Node => ({ type: 'blockquote', content })),
        tie('blocks').map((content): Node => ({
          type: 'bulletList',
          content: [{ type: 'listItem', content }],
        })),
      ),
      blocks: fc.array(tie('block'), { minLength: 1, maxLength: 3 }),
    }));
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 4 }), fc.subarray(gates), (content, open) => {
        // Each word is numbered, and known to be open where all gates around it are.
        const expected: string[] = [];
        const hidden: string[] = [];
        let n = 0;
        const number = (node: Node, isOpen: boolean): Node => {
          const marked = node.marks?.[0]?.type === 'sectionWords' ? node.marks[0].attrs : undefined;
          const around = node.type === 'section' ? (node.attrs as Gate) : marked;
          const here = isOpen && (!around || open.some(same(around)));
          if (node.type !== 'text')
            return { ...node, content: node.content?.map((inner) => number(inner, here)) };
          const word = `w${n++}x`;
          (here ? expected : hidden).push(word);
          return { ...node, text: word };
        };
        const prose = doc(...content.map((node) => number(node, true)));
        expect(articleSchema.safeParse(prose).success).toBe(true);
        expect(proseSchema.safeParse(prose).success).toBe(!hasSections(prose));
        const sent = JSON.stringify(openParts(prose, only(...open)));
        expect(expected.filter((word) => !sent.includes(`"${word}"`))).toEqual([]);
        expect(hidden.filter((word) => sent.includes(`"${word}"`))).toEqual([]);
        expect(sent).not.toContain('openTo');
      }),
    );
  });
});

describe('a section', () => {
  const rule: Rule = {
    id: 'guides',
    covers: [{ kind: 'category', id: 'guides' }],
    openTo: [
      { who: { kind: 'tier', id: 'warden' } },
      {
        who: { kind: 'tier', id: 'observer' },
        opens: { since: 'published', after: { n: 3, unit: 'day' } },
      },
    ],
  };
  const holding = (tier: string): PersonFacts => ({
    ...VISITOR,
    signedIn: true,
    tiers: [{ tier, since: '2027-01-01T00:00:00Z', paid: true }],
  });
  const question = (
    person: PersonFacts,
    now: Instant = '2027-05-02T12:00:00Z',
    rules: Rule[] = [rule],
  ): Question => ({
    now,
    zone: 'Europe/London',
    default: 'everyone',
    rules,
    person,
    item: {
      id: 'post',
      type: 'post',
      path: '/posts/post',
      ancestors: [],
      categories: [],
      tags: [],
      publishedAt: '2027-05-01T12:00:00Z',
    },
  });

  it('opens by its own openers, whatever the site’s default is', () => {
    expect(isSectionOpen(forTier('observer'), question(holding('observer')))).toBe(true);
    expect(isSectionOpen(forTier('observer'), question(holding('gazer')))).toBe(false);
    expect(isSectionOpen(gate(), question(holding('observer')))).toBe(false);
  });

  it('opens by the openers of a rule that covers something else, waits included', () => {
    const byRule = gate({ rule: 'guides' });
    expect(isSectionOpen(byRule, question(holding('warden')))).toBe(true);
    expect(isSectionOpen(byRule, question(holding('observer')))).toBe(false);
    expect(isSectionOpen(byRule, question(holding('observer'), '2027-05-04T12:00:00Z'))).toBe(true);
  });

  it('of a rule that is gone or off is closed, to all but staff who read everything', () => {
    const byRule = gate({ rule: 'guides', openTo: [{ who: { kind: 'everyone' } }] });
    const staff: PersonFacts = { ...VISITOR, signedIn: true, staff: 'owner', readsAll: true };
    for (const rules of [[], [{ ...rule, on: false }]]) {
      expect(isSectionOpen(byRule, question(holding('warden'), undefined, rules))).toBe(false);
      expect(isSectionOpen(byRule, question(staff, undefined, rules))).toBe(true);
    }
  });

  it('names its rule', () => {
    const prose = doc(
      section(gate({ rule: 'guides' }), line(text('a', gate({ rule: 'frames' })))),
      line(text('b', forTier('observer'))),
    );
    expect(rulesOfSections(prose)).toEqual(['guides', 'frames']);
  });
});
