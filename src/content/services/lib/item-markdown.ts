import { createHash } from 'node:crypto';
import { parse, stringify } from 'yaml';
import { z } from 'zod';
import { readInstant } from '@/core/calendar';
import { articleSchema, plainText, type Prose } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import type { Item } from '@/content/store/items';
import { holdsDirective, isSameDocument, readMarkdown, writeMarkdown, type Ways } from './markdown';

const instant = z
  .union([z.string(), z.date().transform((date) => date.toISOString())])
  .transform((text, context): Instant => {
    try {
      return readInstant(/^\d{4}-\d{2}-\d{2}$/.test(text) ? `${text}T00:00:00Z` : text);
    } catch {
      context.addIssue({ code: 'custom', message: 'date.unreal' });
      return z.NEVER;
    }
  });

/** The front matter of a text, in YAML. Only the title is required. */
export const headSchema = z.object({
  id: z.string().min(1).max(200).optional(),
  type: z.string().min(1).max(200).optional(),
  title: z.string().min(1).max(200),
  /** The last part of its address; or all of it, as an export has it. */
  slug: z.string().max(200).optional(),
  path: z.string().max(2000).optional(),
  parent: z.string().nullish(),
  summary: z.string().max(400).default(''),
  author: z.string().max(80).default(''),
  category: z.string().optional(),
  categories: z.array(z.string()).optional(),
  tags: z.array(z.string()).optional(),
  position: z.number().int().optional(),
  /** When it came out; as a number, days ago. Without it, it is a draft. */
  published: z.union([z.number().min(0), instant]).optional(),
  date: instant.optional(),
  'was-published': instant.optional(),
  /** Where its picture lies, and what that shows. */
  picture: z.string().optional(),
  'picture-alt': z.string().optional(),
  target: z.string().optional(),
  /** Whether it has comments, where that is not as its kind. */
  comments: z.boolean().optional(),
  /** Where the bytes of a file lie. */
  file: z.string().optional(),
  'old-addresses': z.array(z.string()).optional(),
  /** The document itself, where Markdown cannot say it; it counts while the text below is the one it was written beside. */
  document: z.object({ of: z.string(), json: z.unknown() }).optional(),
});
export type ItemHeadText = z.output<typeof headSchema>;

export type ItemText =
  { ok: true; head: ItemHeadText; text: string } | { ok: false; why: 'no-head' | 'bad-head' };

/** An item as it was written: its head between two lines of ---, and its text. */
export function splitItem(written: string): ItemText {
  const match = /^\uFEFF?---\r?\n([\s\S]*?)\r?\n---\r?\n?([\s\S]*)$/.exec(written);
  if (!match) return { ok: false, why: 'no-head' };
  let raw: unknown;
  try {
    raw = parse(match[1] ?? '');
  } catch {
    return { ok: false, why: 'bad-head' };
  }
  const head = headSchema.safeParse(raw);
  return head.success ? { ok: true, head: head.data, text: match[2] ?? '' } : { ok: false, why: 'bad-head' };
}

const hashOf = (text: string): string => createHash('sha256').update(text.trim()).digest('hex').slice(0, 24);

/** The document of an item; null where a section in it was mistyped, for its words would be open to everyone. */
export function documentOf({ head, text }: { head: ItemHeadText; text: string }, ways: Ways): Prose | null {
  if (head.document?.of === hashOf(text)) {
    const kept = articleSchema.safeParse(head.document.json);
    if (kept.success) return kept.data;
  }
  const document = readMarkdown(text, ways);
  return holdsDirective(plainText(document)) ? null : document;
}

/** An item as a text with its head. `file`: where its bytes lie. */
export function writeItem(
  item: Item,
  more: { ways: Ways; picture: string | null; file: string | null; oldAddresses: string[] },
): string {
  const text = writeMarkdown(item.body, more.ways);
  const isSaid = (): boolean => {
    try {
      return isSameDocument(readMarkdown(text, more.ways), item.body);
    } catch {
      return false;
    }
  };
  const head = {
    id: item.id,
    type: item.type,
    title: item.title,
    path: item.path,
    parent: item.parentId ?? undefined,
    summary: item.summary || undefined,
    author: item.author || undefined,
    categories: item.ownCategories.length > 0 ? item.ownCategories : undefined,
    tags: item.tags.length > 0 ? item.tags : undefined,
    position: item.position === 0 && item.parentId === null ? undefined : item.position,
    published: item.publishedAt ?? undefined,
    'was-published': item.publishedAt === null ? (item.wasPublishedAt ?? undefined) : undefined,
    picture: more.picture ?? undefined,
    'picture-alt': item.pictureAlt || undefined,
    target: item.target ?? undefined,
    comments: item.commentsOn ?? undefined,
    file: more.file ?? undefined,
    'old-addresses': more.oldAddresses.length > 0 ? more.oldAddresses : undefined,
    document: isSaid() ? undefined : { of: hashOf(text), json: item.body },
  };
  return `---\n${stringify(head, { lineWidth: 0 })}---\n${text}\n`;
}
