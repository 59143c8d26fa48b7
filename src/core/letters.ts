import { mergeWords, type MergeFields } from './mail-words';
import { plainText, type Node, type Prose } from './content/prose';

/** Merge fields that a letter can have. */
export const LETTER_FIELDS = ['first name', 'name', 'email', 'site'] as const;

/** Letters that are written at one go, at most; a few at a time, so that pausing takes effect soon. */
const AT_ONCE = 25;

/** How many are written next at a rate a minute, and the seconds of real time until more may be. */
export function pace(perMinute: number): { count: number; waitSeconds: number } {
  // A slow rate is spread over the minute.
  const count = Math.max(1, Math.min(AT_ONCE, Math.floor(perMinute / 12)));
  return { count, waitSeconds: (count * 60) / perMinute };
}

/** A text with its merge fields filled in. What a field's value holds is never read as a field. */
export function mergeProse(prose: Prose, fields: MergeFields): Prose {
  const merged = (node: Node): Node => ({
    ...node,
    ...(node.text !== undefined && { text: mergeWords(node.text, fields) }),
    ...(node.content && { content: node.content.map(merged) }),
  });
  return { ...prose, content: prose.content.map(merged) };
}

/** The words of a text for readers of plain mail: its blocks with an empty line between them. */
export const mailText = (prose: Prose): string =>
  prose.content
    .map((block) => plainText(block).trim())
    .filter(Boolean)
    .join('\n\n');
