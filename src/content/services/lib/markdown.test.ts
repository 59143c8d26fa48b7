import { describe, expect, it } from 'vitest';
import { articleSchema, plainText, type Gate, type Mark, type Node } from '@/core/content/prose';
import { documentOf, splitItem } from './item-markdown';
import { holdsDirective, isSameDocument, readMarkdown, writeMarkdown } from './markdown';

const text = (words: string, ...marks: Mark[]): Node => ({
  type: 'text',
  text: words,
  ...(marks.length > 0 && { marks }),
});
const line = (...content: Node[]): Node => ({ type: 'paragraph', content });
const list = (...items: Node[][]): Node => ({
  type: 'bulletList',
  content: items.map((content) => ({ type: 'listItem', content })),
});
const gate: Gate = {
  rule: null,
  openTo: [{ who: { kind: 'tier', id: 'observer' } }],
  instead: 'He said "no"',
};
/** More than the attributes of a directive can say. */
const dated: Gate = {
  rule: null,
  openTo: [
    { who: { kind: 'tier', id: 'observer' }, opens: { since: 'published', after: { n: 3, unit: 'day' } } },
  ],
  instead: '',
};
const secret: Mark = { type: 'sectionWords', attrs: gate };
const picture = '11111111-1111-4111-8111-111111111111';
const cell = (type: 'tableHeader' | 'tableCell', words: string): Node => ({
  type,
  attrs: { colspan: 1, rowspan: 1 },
  content: [line(text(words))],
});
const ways = {
  picture: (address: string) =>
    address.startsWith('pictures/') ? address.slice(9).replace('.webp', '') : `pictures/${address}.webp`,
  itemAt: (href: string) => (href === '/visit' ? 'visit' : null),
};

describe('a text as Markdown and back', () => {
  it.each<[string, Node[]]>([
    [
      'marks',
      [line(text('Hello '), text('bold', { type: 'bold' }), text(' and '), text('it', { type: 'italic' }))],
    ],
    ['underline and strike', [line(text('u', { type: 'underline' }), text('s', { type: 'strike' }))]],
    ['signs that Markdown would take for its own', [line(text('2 * 3 _x_ [y] <b> # no & 1. a :: b'))]],
    ['a heading', [{ type: 'heading', attrs: { level: 3 }, content: [text('A head')] }, line(text('x'))]],
    ['lists', [list([line(text('one'))], [line(text('two')), list([line(text('deep'))])])]],
    [
      'a quotation and code',
      [
        { type: 'blockquote', content: [line(text('q'))] },
        { type: 'codeBlock', content: [text('a < b\n  c')] },
      ],
    ],
    [
      'a line across and a line break',
      [line(text('a'), { type: 'hardBreak' }, text('b')), { type: 'horizontalRule' }, line(text('c'))],
    ],
    ['a link to an item', [line(text('go', { type: 'link', attrs: { href: '/visit', item: 'visit' } }))]],
    [
      'a picture',
      [
        line(text('a')),
        { type: 'image', attrs: { picture, alt: 'The dome', caption: 'At night' } },
        line(text('b')),
      ],
    ],
    [
      'files, embeds, panels, buttons, the end of the teaser',
      [
        { type: 'file', attrs: { item: 'abc' } },
        { type: 'embed', attrs: { url: 'https://a.example/x?y=1&z=2', title: 'T "q"' } },
        { type: 'joinButton', attrs: { offer: 'o', label: 'Join us' } },
        { type: 'joinPanel', attrs: { tiers: ['a', 'b'] } },
        { type: 'panel', attrs: { panel: 'room' } },
        { type: 'teaserEnd' },
        line(text('z')),
      ],
    ],
    [
      'sections in sections',
      [
        line(text('a')),
        {
          type: 'section',
          attrs: gate,
          content: [line(text('in')), { type: 'section', attrs: dated, content: [line(text('deep'))] }],
        },
        line(text('z')),
      ],
    ],
    ['a list in a section', [{ type: 'section', attrs: gate, content: [list([line(text('x'))])] }]],
    [
      'closed words, some of them bold',
      [line(text('a '), text('sec', secret), text('ret', { type: 'bold' }, secret), text(' z'))],
    ],
    [
      'a table',
      [
        {
          type: 'table',
          content: [
            { type: 'tableRow', content: [cell('tableHeader', 'h'), cell('tableHeader', 'i')] },
            { type: 'tableRow', content: [cell('tableCell', 'c'), cell('tableCell', 'd')] },
          ],
        },
      ],
    ],
  ])('is the same: %s', (_, content) => {
    const document = articleSchema.parse({ type: 'doc', content });
    const written = writeMarkdown(document, ways);
    const back = readMarkdown(written, ways);
    expect([written, isSameDocument(back, document)]).toEqual([written, true]);
    expect(holdsDirective(plainText(back))).toBe(false);
  });

  it('leaves out a picture that is not there, and refuses a directive that was mistyped', () => {
    const none = { picture: () => null, itemAt: () => null };
    expect(readMarkdown('a\n\n![x](gone.png)\n\nb', none).content.map(({ type }) => type)).toEqual([
      'paragraph',
      'paragraph',
    ]);
    for (const mistyped of [
      ':::section{tiers=a\nSecret.\n:::',
      ':section[secret]',
      '::file{item="a"} and more',
    ])
      expect([mistyped, holdsDirective(plainText(readMarkdown(mistyped, none)))]).toEqual([mistyped, true]);
  });
});

describe('an item with its head', () => {
  it('is read whatever the ends of its lines, and refused in words where it cannot be', () => {
    expect(splitItem('---\r\ntitle: A\r\ndate: 2026-03-04\r\n---\r\nText')).toMatchObject({
      ok: true,
      head: { title: 'A', date: '2026-03-04T00:00:00Z' },
      text: 'Text',
    });
    expect(splitItem('no head')).toEqual({ ok: false, why: 'no-head' });
    for (const bad of ['title: [', 'summary: no title', 'title: A\ndate: soon'])
      expect(splitItem(`---\n${bad}\n---\nx`)).toEqual({ ok: false, why: 'bad-head' });
  });

  it('uses the document it carries only while its text is the one that was written', () => {
    const json = { type: 'doc', content: [line(text('exact'))] };
    const head = { title: 'A', summary: '', author: '', document: { of: '559aead08264d5795d390971', json } };
    // The first 24 signs of the SHA-256 of "A".
    expect(documentOf({ head, text: 'A\n' }, ways)).toEqual(json);
    expect(plainText(documentOf({ head, text: 'Changed' }, ways)!)).toBe('Changed\n');
  });
});
