import { stringify } from 'yaml';
import { readInstant } from '@/core/calendar';
import { normalisePath } from '@/core/access/paths';
import { slugify } from '@/core/content/slug';
import { beginFile } from '@/content/store/files';
import { pool } from '@/platform/store/db';
import { feedEntries, type FeedEntry } from './feed-entries';
import { htmlMarkdown } from './html-markdown';
import { piecesOf, putPieces } from './put-pieces';
import { zipStream, type ZipPart } from './zip-stream';

/**
 * Turns an uploaded RSS or Atom export into an upload like any other: a ZIP of posts, in the order of the feed. @returns its id;
 * null where there is no text in it
 */
export async function feedToZip(uploadId: string): Promise<string | null> {
  const id = await beginFile(pool(), 'feed.zip');
  let count = 0;
  const taken = new Set<string>();
  async function* parts(): AsyncGenerator<ZipPart> {
    for await (const entry of feedEntries(piecesOf(uploadId))) {
      count++;
      const slug = freeSlug(entry, taken);
      yield { path: `posts/${slug}.html`, bytes: () => once(written(entry, slug)) };
    }
  }
  await putPieces(id, zipStream(parts()));
  return count > 0 ? id : null;
}

// oxlint-disable-next-line typescript/require-await -- a stream like the others, of one part
async function* once(text: string): AsyncGenerator<Uint8Array> {
  yield Buffer.from(text);
}

function pathOf(link: string): string | null {
  try {
    return normalisePath(new URL(link).pathname);
  } catch {
    return null;
  }
}

function freeSlug({ title, link }: FeedEntry, taken: Set<string>): string {
  const last =
    (pathOf(link) ?? '')
      .split('/')
      .at(-1)
      ?.replace(/\.\w+$/, '') ?? '';
  const slug = slugify(last) || slugify(title) || 'post';
  for (let n = 1; ; n++) {
    const one = n === 1 ? slug.slice(0, 80) : `${slug.slice(0, 70)}-${n}`;
    if (taken.has(one)) continue;
    taken.add(one);
    return one;
  }
}

const plain = (html: string): string => htmlMarkdown(html).replace(/\s+/g, ' ').trim();
const cut = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;

/** A text of a feed with its head, as HTML: a summary is one only where there is a text besides. */
function written(
  { title, link, published, author, tags, summary, content }: FeedEntry,
  slug: string,
): string {
  const old = pathOf(link);
  const head = {
    title: cut(plain(title) || plain(summary || content), 120) || slug,
    slug,
    ...(summary && content && { summary: cut(plain(summary), 400) }),
    ...(author && { author: cut(author.replace(/^\S+@\S+\s*\(?|\)$/g, ''), 80) }),
    ...(tags.length > 0 && { tags: [...new Set(tags.map((tag) => cut(tag.trim(), 60)))].slice(0, 30) }),
    ...(instantOf(published) && { published: instantOf(published) }),
    ...(old && old !== '/' && { 'old-addresses': [old] }),
  };
  return `---\n${stringify(head, { lineWidth: 0 })}---\n${content || summary}\n`;
}

/** RSS writes dates as mail does (RFC 822), Atom as RFC 3339. */
function instantOf(text: string): string | null {
  const ms = Date.parse(text);
  return Number.isNaN(ms) ? null : readInstant(new Date(ms).toISOString());
}
