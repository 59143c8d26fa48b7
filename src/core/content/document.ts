import { z } from 'zod';

/**
 * Rich text as a tree of nodes (the ProseMirror document form). The schema is also the sanitiser: a node, mark
 * or attribute that is not named here is refused, and a link may lead only to the web, an address here, or mail.
 */
const safeHref = z
  .string()
  .max(2000)
  .refine(
    (href) => /^(https?:\/\/|mailto:|\/(?!\/)|#)/i.test(href),
    'A link begins with https://, / or mailto:.',
  );

const markSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('bold') }),
  z.object({ type: z.literal('italic') }),
  z.object({ type: z.literal('code') }),
  z.object({ type: z.literal('strike') }),
  z.object({ type: z.literal('underline') }),
  z.object({ type: z.literal('link'), attrs: z.object({ href: safeHref }) }),
]);
export type Mark = z.infer<typeof markSchema>;

export type Node = {
  type: string;
  attrs?: { level?: number; start?: number };
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
] as const;

export const nodeSchema: z.ZodType<Node> = z.lazy(() =>
  z.discriminatedUnion('type', [
    z.object({ type: z.literal('text'), text: z.string().min(1), marks: z.array(markSchema).optional() }),
    z.object({
      type: z.literal('heading'),
      attrs: z.object({ level: z.number().int().min(2).max(4) }),
      content: z.array(nodeSchema).optional(),
    }),
    z.object({
      type: z.enum(BLOCKS),
      attrs: z.object({ start: z.number().int().optional() }).optional(),
      content: z.array(nodeSchema).optional(),
    }),
  ]),
);

export const documentSchema = z.object({ type: z.literal('doc'), content: z.array(nodeSchema).max(5000) });
export type Document = z.infer<typeof documentSchema>;

export const EMPTY_DOCUMENT: Document = { type: 'doc', content: [] };

const isLine = (node: Node): boolean =>
  node.type === 'paragraph' || node.type === 'heading' || node.type === 'codeBlock';

/** The words of a document, block by block, one line a block. */
export function plainText(node: Node | Document): string {
  if (node.type === 'text') return node.text ?? '';
  if (node.type === 'hardBreak') return '\n';
  const inner = (node.content ?? []).map(plainText).join('');
  return isLine(node) ? `${inner}\n` : inner;
}

export function wordCount(document: Document): number {
  return plainText(document).split(/\s+/).filter(Boolean).length;
}

/** Minutes it takes to read so many words, at 200 a minute, at least one. */
export function readingMinutes(words: number): number {
  return Math.max(1, Math.round(words / 200));
}
