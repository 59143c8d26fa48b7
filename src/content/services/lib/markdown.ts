import { isDeepStrictEqual } from 'node:util';
import { createBlockMarkdownSpec, Mark, Node, type JSONContent, type MarkdownToken } from '@tiptap/core';
import { Link } from '@tiptap/extension-link';
import { TableKit } from '@tiptap/extension-table';
import { MarkdownManager } from '@tiptap/markdown';
import StarterKit from '@tiptap/starter-kit';
import { articleSchema, gateSchema, type Gate, type Prose } from '@/core/content/prose';

/** Values of attributes as directives hold them: a quotation mark or a line break would end them. */
const quoted = (value: string): string =>
  `"${value.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/\n/g, '&#10;')}"`;
const unquoted = (value: string): string =>
  value
    .replace(/&#10;/g, '\n')
    .replace(/&quot;/g, '"')
    .replace(/&amp;/g, '&');

/** The attributes of a directive: `name="value"`, or a name by itself. */
const attributesOf = (text: string): Map<string, string> =>
  new Map(
    [...text.matchAll(/([a-z-]+)(?:="([^"]*)")?/g)].map(([, name = '', value = '']) => [
      name,
      unquoted(value),
    ]),
  );

/**
 * The gate of a directive. `tiers`: ids; `paying` and `signed-in` open to those; `rule`: the id of a rule whose openers
 * count; `instead`: what others read; `gate`: all of it as JSON in base64url, where the others cannot say it.
 */
function gateOf(text: string): Gate {
  const named = attributesOf(text);
  const whole = named.get('gate');
  if (whole !== undefined)
    return gateSchema.parse(JSON.parse(Buffer.from(whole, 'base64url').toString('utf8')));
  const tiers = (named.get('tiers') ?? '').split(',').map((id) => id.trim());
  return {
    rule: named.get('rule') ?? null,
    openTo: [
      ...tiers.filter(Boolean).map((id) => ({ who: { kind: 'tier' as const, id } })),
      ...(named.has('paying') ? [{ who: { kind: 'paying' as const } }] : []),
      ...(named.has('signed-in') ? [{ who: { kind: 'signed-in' as const } }] : []),
    ],
    instead: named.get('instead') ?? '',
  };
}

/** A gate as the attributes of a directive; the shortest that says all of it. */
function gateText(gate: Gate): string {
  const tiers = gate.openTo.flatMap(({ who }) => (who.kind === 'tier' ? [who.id] : []));
  const has = (kind: string): boolean => gate.openTo.some(({ who }) => who.kind === kind);
  const short = [
    tiers.length > 0 && `tiers=${quoted(tiers.join(','))}`,
    has('paying') && 'paying',
    has('signed-in') && 'signed-in',
    gate.rule !== null && `rule=${quoted(gate.rule)}`,
    gate.instead && `instead=${quoted(gate.instead)}`,
  ]
    .filter(Boolean)
    .join(' ');
  const isSaid = JSON.stringify(gateOf(short)) === JSON.stringify(gateSchema.parse(gate));
  // A brace would end the directive, so that JSON is not written as it is.
  return isSaid ? short : `gate=${quoted(Buffer.from(JSON.stringify(gate)).toString('base64url'))}`;
}

const attributes = () => ({ rule: {}, openTo: {}, instead: {} });

const SectionBlock = Node.create({
  name: 'section',
  group: 'block',
  content: 'block+',
  addAttributes: attributes,
  ...createBlockMarkdownSpec({ nodeName: 'section', parseAttributes: gateOf }),
  renderMarkdown: (node, helpers) =>
    `:::section {${gateText(gateSchema.parse(node.attrs))}}\n\n${helpers.renderChildren(node.content ?? [], '\n\n')}\n\n:::`,
});

const WORDS = /^:section\[([^\]]+)\]\{([^}]*)\}/;

const SectionWords = Mark.create({
  name: 'sectionWords',
  addAttributes: attributes,
  markdownTokenName: 'sectionWords',
  markdownTokenizer: {
    name: 'sectionWords',
    level: 'inline',
    start: (source: string) => source.indexOf(':section['),
    tokenize: (source, _tokens, lexer) => {
      const [raw, words = '', given = ''] = WORDS.exec(source) ?? [];
      if (raw === undefined) return undefined;
      return { type: 'sectionWords', raw, given, tokens: lexer.inlineTokens(words) };
    },
  },
  parseMarkdown: (token: MarkdownToken, helpers) =>
    helpers.applyMark('sectionWords', helpers.parseInline(token.tokens ?? []), gateOf(String(token.given))),
  renderMarkdown: (node, helpers) =>
    `:section[${helpers.renderChildren(node)}]{${gateText(gateSchema.parse(node.attrs))}}`,
});

const LEAF = /^::([a-z-]+)\{([^}\n]*)\}[ \t]*(?:\n+|$)/;

/** A block without text, as a leaf directive: `::file{src="files/atlas.pdf"}`. `keys`: its attributes, as they are written;
 * `flags`: those that are said by their name alone. */
const leaf = (name: string, directive: string, keys: Record<string, string>, flags: string[] = []) =>
  Node.create({
    name,
    group: 'block',
    atom: true,
    addAttributes: () => Object.fromEntries(Object.keys(keys).map((key) => [key, {}])),
    markdownTokenName: `leaf-${directive}`,
    markdownTokenizer: {
      name: `leaf-${directive}`,
      level: 'block',
      start: (source: string) => source.indexOf(`::${directive}{`),
      tokenize: (source) => {
        const [raw, found, given = ''] = LEAF.exec(source) ?? [];
        return raw === undefined || found !== directive
          ? undefined
          : { type: `leaf-${directive}`, raw, given };
      },
    },
    parseMarkdown: (token: MarkdownToken) => {
      const given = attributesOf(String(token.given));
      return {
        type: name,
        attrs: Object.fromEntries(
          Object.entries(keys).map(([key, written]) => [
            key,
            key === 'tiers'
              ? (given.get(written) ?? '').split(',').filter(Boolean)
              : flags.includes(key)
                ? given.has(written) || undefined
                : (given.get(written) ?? ''),
          ]),
        ),
      };
    },
    renderMarkdown: (node) => {
      const said = Object.entries(keys).map(([key, written]) => {
        const value: unknown = node.attrs?.[key];
        if (value === true) return written;
        const text = Array.isArray(value) ? value.join(',') : typeof value === 'string' ? value : '';
        return text === '' ? '' : `${written}=${quoted(text)}`;
      });
      return `::${directive}{${said.filter(Boolean).join(' ')}}`;
    },
  });

const IMAGE = /^!\[([^\]\n]*)\]\(<?([^)\s>]+)>?(?:\s+"([^"\n]*)")?\)[ \t]*(?:\n+|$)/;

/** A picture in a line of its own, in Markdown's own way; its title is the caption. `picture` is the address as written. */
const ImageBlock = Node.create({
  name: 'image',
  group: 'block',
  atom: true,
  addAttributes: () => ({ picture: {}, alt: {}, caption: {} }),
  markdownTokenName: 'block-image',
  markdownTokenizer: {
    name: 'block-image',
    level: 'block',
    start: (source: string) => source.indexOf('!['),
    tokenize: (source) => {
      const [raw, alt = '', picture = '', caption = ''] = IMAGE.exec(source) ?? [];
      return raw === undefined ? undefined : { type: 'block-image', raw, alt, picture, caption };
    },
  },
  parseMarkdown: (token: MarkdownToken) => ({
    type: 'image',
    attrs: {
      picture: token.picture as string,
      alt: unquoted(String(token.alt)),
      caption: unquoted(String(token.caption)),
    },
  }),
  renderMarkdown: (node) => {
    const { picture, alt, caption } = node.attrs as { picture: string; alt: string; caption: string };
    const within = (text: string): string =>
      text.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/\n/g, ' ').replace(/[[\]]/g, ' ');
    return `![${within(alt)}](${picture}${caption ? ` "${within(caption)}"` : ''})`;
  },
});

/**
 * Texts as Markdown. Beyond the common: `:::section {tiers="observer,warden"}` … `:::` around blocks, and
 * `:section[some words]{rule="guides"}` within a line; leaf directives for files, what is embedded, join buttons and
 * panels, and the end of the teaser.
 */
const markdown = new MarkdownManager({
  extensions: [
    StarterKit.configure({ link: false }),
    Link,
    TableKit,
    SectionBlock,
    SectionWords,
    ImageBlock,
    leaf('file', 'file', { item: 'item' }),
    leaf('embed', 'embed', { url: 'url', title: 'title' }),
    leaf(
      'joinButton',
      'join-button',
      { offer: 'offer', label: 'label', icon: 'icon', asksName: 'asks-name' },
      ['icon', 'asksName'],
    ),
    leaf('joinPanel', 'join-panel', { tiers: 'tiers' }),
    leaf('buyPanel', 'buy-panel', { product: 'product' }),
    leaf('panel', 'panel', { panel: 'show' }),
    leaf('teaserEnd', 'teaser-end', {}),
  ],
});

/** Where a picture of a text lies, and what is known of a link, while a text is brought in or out. */
export type Ways = {
  /** The id of a picture by its address as written, or the address by its id; null where there is none. */
  picture: (address: string) => string | null;
  /** The id of the item at an address of the site; null for any other. */
  itemAt: (href: string) => string | null;
};

/** Markdown as a document that nobody has looked at: links and pictures are as they are written. @throws what cannot be held */
export function readMarkdown(text: string, ways: Ways): Prose {
  return articleSchema.parse(withWays(markdown.parse(text), ways));
}

/** Whether text still holds a directive: one that was mistyped, whose words would be open to everyone. */
export const holdsDirective = (text: string): boolean => /:::|:section\b|(^|\n)::[a-z-]+\{/.test(text);

/** A document as Markdown. What Markdown cannot say is lost: `readMarkdown` tells whether it is. */
export const writeMarkdown = (document: Prose, ways: Pick<Ways, 'picture'>): string =>
  markdown.serialize(withPictures(document, (id) => ways.picture(id) ?? id)).trim();

const withPictures = (node: JSONContent, of: (address: string) => string): JSONContent => ({
  ...node,
  ...(node.type === 'image' && { attrs: { ...node.attrs, picture: of(String(node.attrs?.picture)) } }),
  ...(node.content && { content: node.content.map((inner) => withPictures(inner, of)) }),
});

/** A document with its pictures by their ids, and with links that know their items; pictures that are not there are left out. */
function withWays(node: JSONContent, ways: Ways): JSONContent {
  const content = node.content?.flatMap((inner) => {
    if (inner.type !== 'image') return [withWays(inner, ways)];
    const id = ways.picture(String(inner.attrs?.picture));
    return id === null ? [] : [{ ...inner, attrs: { ...inner.attrs, picture: id } }];
  });
  const marks = node.marks?.map((mark) => {
    if (mark.type !== 'link') return mark;
    const item = ways.itemAt(String(mark.attrs?.href));
    return { ...mark, attrs: { href: mark.attrs?.href as string, item } };
  });
  const { attrs, ...rest } = node;
  const isCell = node.type === 'tableCell' || node.type === 'tableHeader';
  const said = isCell ? { colspan: 1, rowspan: 1, ...attrs } : attrs;
  const isEmpty = !said || Object.values(said).every((value) => value === null || value === undefined);
  return {
    ...rest,
    ...(!isEmpty && { attrs: said }),
    ...(content && { content }),
    ...(marks && { marks }),
  };
}

/** Whether two documents say the same: the order in which marks are named means nothing. */
export function isSameDocument(one: Prose, other: Prose): boolean {
  const plain = (node: JSONContent): unknown => ({
    ...node,
    ...(node.marks && { marks: [...node.marks].sort((a, b) => a.type.localeCompare(b.type)) }),
    ...(node.content && { content: node.content.map(plain) }),
  });
  const written = (document: Prose): unknown => JSON.parse(JSON.stringify(plain(document)));
  return isDeepStrictEqual(written(one), written(other));
}
