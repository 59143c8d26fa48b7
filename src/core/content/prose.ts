import { z } from 'zod';
import { openerSchema } from '../access/rule-schema';
import { isSafeHref } from '../addresses';
import { PANELS, type Panel } from './page-roles';
import { say } from '../problem';

/**
 * Rich text as a tree of nodes (the ProseMirror document form). The schema is also the sanitiser: a node, mark
 * or attribute that is not named here is refused, and a link may lead only to the web, an address here, or mail.
 */
const safeHref = z.string().max(2000).refine(isSafeHref, say('link.unsafe'));

/**
 * Who opens a section, besides being let in to its item and to every section around it: those of a rule, by its id, or
 * openers of its own. `instead` is what everyone else reads in its place.
 */
export const gateSchema = z.object({
  rule: z.string().min(1).max(200).nullable().default(null),
  openTo: z.array(openerSchema).max(50).default([]),
  instead: z.string().trim().max(400).default(''),
});
export type Gate = z.infer<typeof gateSchema>;

const markSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('bold') }),
  z.object({ type: z.literal('italic') }),
  z.object({ type: z.literal('code') }),
  z.object({ type: z.literal('strike') }),
  z.object({ type: z.literal('underline') }),
  /** To an address, or to an item by its id: then `href` is where it was when the link was made. */
  z.object({
    type: z.literal('link'),
    attrs: z.object({ href: safeHref, item: z.string().min(1).max(200).nullish() }),
  }),
  /** A section that is a run of words. */
  z.object({ type: z.literal('sectionWords'), attrs: gateSchema }),
]);
export type Mark = z.infer<typeof markSchema>;

export type Node = {
  type: string;
  attrs?: {
    level?: number;
    start?: number;
    offer?: string;
    label?: string;
    icon?: boolean;
    asksName?: boolean;
    tiers?: string[];
    picture?: string;
    alt?: string;
    caption?: string;
    item?: string;
    url?: string;
    title?: string;
    panel?: Panel;
    product?: string;
    colspan?: number;
    rowspan?: number;
  } & Partial<Gate>;
  text?: string;
  marks?: Mark[];
  content?: Node[];
};

const BLOCKS = [
  'paragraph',
  'bulletList',
  'orderedList',
  'listItem',
  'blockquote',
  'horizontalRule',
  'codeBlock',
  'hardBreak',
  'table',
  'tableRow',
  /** Up to here the text may be read at the doorstep, where its teaser ends at the marker. */
  'teaserEnd',
] as const;

const span = z.number().int().min(1).max(20).default(1);
const embeddedUrl = z
  .string()
  .max(2000)
  .refine((url) => isSafeHref(url) && url.startsWith('https://'), say('embed.unsafe'));

export const nodeSchema: z.ZodType<Node> = z.lazy(() =>
  z.discriminatedUnion('type', [
    z.object({ type: z.literal('text'), text: z.string().min(1), marks: z.array(markSchema).optional() }),
    z.object({
      type: z.literal('heading'),
      attrs: z.object({ level: z.number().int().min(2).max(4) }),
      content: z.array(nodeSchema).optional(),
    }),
    /** A section of one or more blocks. */
    z.object({ type: z.literal('section'), attrs: gateSchema, content: z.array(nodeSchema).min(1) }),
    /** A button that joins with one offer, and a panel with some tiers; without tiers it shows all of the join page. */
    z.object({
      type: z.literal('joinButton'),
      attrs: z.object({
        offer: z.string().min(1).max(120),
        label: z.string().trim().min(1).max(60),
        /** A key alone, called by the label. */
        icon: z.boolean().optional(),
        /** Whether the name is asked for beside it. */
        asksName: z.boolean().optional(),
      }),
    }),
    z.object({
      type: z.literal('joinPanel'),
      attrs: z.object({ tiers: z.array(z.string().max(120)).max(12) }),
    }),
    /** Something that is bought once. */
    z.object({ type: z.literal('buyPanel'), attrs: z.object({ product: z.string().min(1).max(120) }) }),
    /** A picture by its id; `alt` says what it shows to those who cannot see it. */
    z.object({
      type: z.literal('image'),
      attrs: z.object({
        picture: z.uuid(),
        alt: z.string().trim().max(400).default(''),
        caption: z.string().trim().max(400).default(''),
      }),
    }),
    /** A file, by the id of its item. */
    z.object({ type: z.literal('file'), attrs: z.object({ item: z.string().min(1).max(200) }) }),
    /** Something of another site, with what to call it where it is not shown. */
    z.object({
      type: z.literal('embed'),
      attrs: z.object({ url: embeddedUrl, title: z.string().trim().max(200).default('') }),
    }),
    /** Something that the product shows: signing in, one's account, the members' room, the search, the newest posts. */
    z.object({ type: z.literal('panel'), attrs: z.object({ panel: z.enum(PANELS) }) }),
    z.object({
      type: z.enum(['tableHeader', 'tableCell']),
      attrs: z.object({ colspan: span, rowspan: span }).optional(),
      content: z.array(nodeSchema).optional(),
    }),
    z.object({
      type: z.enum(BLOCKS),
      attrs: z.object({ start: z.number().int().optional() }).optional(),
      content: z.array(nodeSchema).optional(),
    }),
  ]),
);

/** The text of an item, which can have sections. */
export const articleSchema = z.object({ type: z.literal('doc'), content: z.array(nodeSchema).max(5000) });
export type Prose = z.infer<typeof articleSchema>;

/** Whether prose has sections. */
export function hasSections(prose: Prose): boolean {
  const has = ({ type, marks, content }: Node): boolean =>
    type === 'section' ||
    (marks ?? []).some((mark) => mark.type === 'sectionWords') ||
    (content ?? []).some(has);
  return prose.content.some(has);
}

/** Any other rich text: nobody decides there who may read which part, so it has no sections. */
export const proseSchema = articleSchema.refine((prose) => !hasSections(prose), say('prose.no-sections'));

export const EMPTY_PROSE: Prose = { type: 'doc', content: [] };

const isLine = (node: Node): boolean =>
  node.type === 'paragraph' || node.type === 'heading' || node.type === 'codeBlock';

/** Plain text as prose of one paragraph. */
export const proseOf = (text: string): Prose => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
});

/** The words of prose, block by block, one line a block. */
export function plainText(node: Node | Prose): string {
  if (node.type === 'text') return node.text ?? '';
  if (node.type === 'hardBreak') return '\n';
  const inner = (node.content ?? []).map(plainText).join('');
  return isLine(node) ? `${inner}\n` : inner;
}

export function wordCount(prose: Prose): number {
  return plainText(prose).split(/\s+/).filter(Boolean).length;
}

/** Minutes it takes to read so many words, at 200 a minute, at least one. */
export function readingMinutes(words: number): number {
  return Math.max(1, Math.round(words / 200));
}

/** Plain text as prose: a paragraph for each stretch between empty lines. */
export function fromText(text: string): Prose {
  const paragraphs = text.split(/\n{2,}/).map((part) => part.trim());
  return {
    type: 'doc',
    content: paragraphs
      .filter(Boolean)
      .map((part) => ({ type: 'paragraph', content: [{ type: 'text', text: part }] })),
  };
}

/** Whether prose says nothing. */
export const isEmpty = (prose: Prose): boolean => plainText(prose).trim() === '';

/** What `pick` finds at each node of prose, in order. */
function gather<T>(prose: Prose, pick: (node: Node) => T | null | undefined): T[] {
  const found: T[] = [];
  const visit = (node: Node): void => {
    const one = pick(node);
    if (one !== null && one !== undefined) found.push(one);
    node.content?.forEach(visit);
  };
  prose.content.forEach(visit);
  return found;
}

/** The tiers of each join panel in prose, in order. */
export const joinPanels = (prose: Prose): string[][] =>
  gather(prose, ({ type, attrs }) => (type === 'joinPanel' ? (attrs?.tiers ?? []) : null));

/** The products of the buy panels in prose. */
export const buyPanels = (prose: Prose): string[] => [
  ...new Set(gather(prose, ({ type, attrs }) => (type === 'buyPanel' ? attrs?.product : null))),
];

/** The panels of the product in prose. */
export const panelsIn = (prose: Prose): Panel[] => [
  ...new Set(gather(prose, ({ type, attrs }) => (type === 'panel' ? attrs?.panel : null))),
];

/** The ids of the pictures that prose shows. */
export const picturesIn = (prose: Prose): string[] => [
  ...new Set(gather(prose, ({ type, attrs }) => (type === 'image' ? attrs?.picture : null))),
];

/** The ids of the files that prose offers. */
export const filesIn = (prose: Prose): string[] => [
  ...new Set(gather(prose, ({ type, attrs }) => (type === 'file' ? attrs?.item : null))),
];

/** The ids of the items that links in prose lead to. */
export const linkedItems = (prose: Prose): string[] => [
  ...new Set(
    gather(prose, ({ marks = [] }) => {
      const link = marks.find((mark) => mark.type === 'link');
      return link?.type === 'link' ? link.attrs.item : null;
    }),
  ),
];
