import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chooseKeyCut, type KeyCut } from '../key-cut';
import { proseSchema, plainText, readingMinutes, wordCount, type Prose } from './prose';
import { slugify } from './slug';
import { firstParagraphs, firstWords, teaserText, untilMarker } from './teaser';

const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const doc = (...lines: string[]): Prose => ({ type: 'doc', content: lines.map(paragraph) });

describe('teasers', () => {
  it('keep the first words and drop every later one', () => {
    const { document: prose, wordsLeft } = firstWords(doc('one two three', 'four five six', 'seven'), 4);
    expect(plainText(prose)).toBe('one two three\nfour…\n');
    expect(wordsLeft).toBe(3);
  });

  it('are the whole where there are fewer words', () => {
    expect(firstWords(doc('one two'), 2)).toEqual({ document: doc('one two'), wordsLeft: 0 });
  });

  it('keep formatting, and cut inside lists', () => {
    const list: Prose = {
      type: 'doc',
      content: [
        {
          type: 'bulletList',
          content: [
            { type: 'listItem', content: [paragraph('one')] },
            { type: 'listItem', content: [paragraph('two secret')] },
          ],
        },
      ],
    };
    const { document: prose } = firstWords(list, 1);
    expect(JSON.stringify(prose)).not.toContain('two');
    expect(prose.content[0]?.type).toBe('bulletList');
  });

  it('end at the marker, where the text has one', () => {
    const marked: Prose = {
      type: 'doc',
      content: [paragraph('one two'), { type: 'teaserEnd' }, paragraph('three'), { type: 'teaserEnd' }],
    };
    expect(untilMarker(marked)).toEqual({ document: doc('one two'), wordsLeft: 1 });
    expect(untilMarker(doc('one two'))).toEqual({ document: { type: 'doc', content: [] }, wordsLeft: 2 });
  });

  it('keep the first paragraphs, with what is between them, and none of the next', () => {
    const rule = { type: 'horizontalRule' };
    const text: Prose = {
      type: 'doc',
      content: [rule, paragraph('one two'), rule, paragraph('three'), rule, paragraph('four five')],
    };
    expect(firstParagraphs(text, 2)).toEqual({
      document: { type: 'doc', content: text.content.slice(0, 5) },
      wordsLeft: 2,
    });
    expect(firstParagraphs(text, 3)).toEqual({ document: text, wordsLeft: 0 });
  });

  it('never hold a word beyond the count, however the text is broken up', () => {
    const words = fc.array(fc.stringMatching(/^[a-z]{2,8}$/), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(
        words,
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 7 }),
        (all, count, perLine) => {
          const marked = all.map((word, index) => `${word}${index}`);
          const lines = Array.from({ length: Math.ceil(marked.length / perLine) }, (_, i) =>
            marked.slice(i * perLine, (i + 1) * perLine).join(' '),
          );
          const kept = plainText(firstWords(doc(...lines), count).document);
          for (const late of marked.slice(count)) expect(kept).not.toMatch(new RegExp(`\\b${late}\\b`));
          expect(kept.split(/\s+/).filter(Boolean)).toHaveLength(Math.min(count, marked.length));
        },
      ),
    );
  });

  it('are shortened at a word for feeds', () => {
    expect(teaserText(doc('one two three four'), 9)).toBe('one two…');
  });
});

describe('documents', () => {
  it.each([
    ['a script', { type: 'script', content: [] }],
    [
      'a javascript link',
      { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] },
    ],
    [
      'a link without a scheme',
      { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: '//evil.example' } }] },
    ],
    ['an unknown mark', { type: 'text', text: 'x', marks: [{ type: 'textStyle', attrs: { style: 'x' } }] }],
  ])('with %s are refused', (_, node) =>
    expect(proseSchema.safeParse({ type: 'doc', content: [node] }).success).toBe(false),
  );

  it('lose attributes that nobody asked for', () => {
    const dirty = {
      type: 'doc',
      content: [{ type: 'paragraph', attrs: { onclick: 'x' }, content: [{ type: 'text', text: 'a' }] }],
    };
    expect(JSON.stringify(proseSchema.parse(dirty))).not.toContain('onclick');
  });

  it('are counted in words and minutes', () => {
    expect(wordCount(doc('one two', 'three'))).toBe(3);
    expect([1, 200, 500].map(readingMinutes)).toEqual([1, 1, 3]);
  });
});

it('makes addresses of names', () => {
  expect(slugify('Finding the Light! (again)')).toBe('finding-the-light-again');
  expect(slugify('Ines’s café')).toBe('iness-cafe');
  expect(slugify('???')).toBe('untitled');
});

it('cuts no two keys alike, and neighbours with another number of notches', () => {
  const cuts: KeyCut[] = [];
  for (let n = 0; n < 60; n++) cuts.push(chooseKeyCut(cuts));
  expect(new Set(cuts.map((cut) => cut.notches.join())).size).toBe(60);
  expect(cuts.slice(0, 4).map((cut) => cut.notches.length)).toEqual([2, 3, 4, 1]);
  expect(new Set(cuts.slice(0, 8).map((cut) => cut.tint)).size).toBe(8);
});
