import { z } from 'zod';
import { plainText, wordCount, type Prose, type Node } from './prose';

export const teaserSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('summary') }),
  z.object({ kind: z.literal('words'), count: z.number() }),
  z.object({ kind: z.literal('paragraphs'), count: z.number() }),
  /** Up to the marker in the item's text; where it has none, the summary alone. */
  z.object({ kind: z.literal('marker') }),
]);
export type TeaserSetting = z.infer<typeof teaserSchema>;

export type Teaser = { document: Prose; wordsLeft: number };

/** The first `count` words of a document, with their formatting, and how many words follow. */
export function firstWords(prose: Prose, count: number): Teaser {
  const total = wordCount(prose);
  if (count >= total) return { document: prose, wordsLeft: 0 };
  const budget = { left: count };
  const content = cutAll(prose.content, budget);
  return { document: { type: 'doc', content }, wordsLeft: total - count };
}

/** The blocks of a document before its marker, and how many words follow; all of them where it has no marker. */
export function untilMarker(prose: Prose): Teaser {
  const total = wordCount(prose);
  const at = prose.content.findIndex(({ type }) => type === 'teaserEnd');
  if (at === -1) return { document: { type: 'doc', content: [] }, wordsLeft: total };
  const document: Prose = { type: 'doc', content: prose.content.slice(0, at) };
  return { document, wordsLeft: total - wordCount(document) };
}

/** The first `count` blocks that say something, with what is between them, and how many words follow. */
export function firstParagraphs(prose: Prose, count: number): Teaser {
  let left = count;
  const end = prose.content.findIndex((block) => {
    if (wordCount({ type: 'doc', content: [block] }) > 0) left--;
    return left < 0;
  });
  if (end === -1) return { document: prose, wordsLeft: 0 };
  const document: Prose = { type: 'doc', content: prose.content.slice(0, end) };
  return { document, wordsLeft: wordCount(prose) - wordCount(document) };
}

function cutAll(nodes: Node[], budget: { left: number }): Node[] {
  const kept: Node[] = [];
  for (const node of nodes) {
    if (budget.left <= 0) break;
    const cut = cutNode(node, budget);
    if (cut) kept.push(cut);
  }
  return kept;
}

function cutNode(node: Node, budget: { left: number }): Node | null {
  if (node.text !== undefined) {
    // Pieces keep their spaces, so that joining them gives the text back.
    const pieces = node.text.match(/\s*\S+/g) ?? [];
    const taken = pieces.slice(0, budget.left);
    const whole = taken.length === pieces.length;
    budget.left -= taken.length;
    const text = whole ? node.text : `${taken.join('')}…`;
    return { ...node, text };
  }
  if (!node.content) return node;
  const content = cutAll(node.content, budget);
  return content.length > 0 ? { ...node, content } : null;
}

/** The doorstep's text without markup, for feeds and meta tags. */
export function teaserText(prose: Prose, maxLength = 300): string {
  const text = plainText(prose).replace(/\s+/g, ' ').trim();
  return text.length <= maxLength ? text : `${text.slice(0, maxLength).replace(/\s+\S*$/, '')}…`;
}
