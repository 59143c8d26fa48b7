import { createHash } from 'node:crypto';
import { z } from 'zod';
import { PAGE } from '@/core/content/item';
import { mediaTypeOf } from '@/core/content/media';
import { slugify } from '@/core/content/slug';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';
import { documentOf, splitItem, type ItemHeadText } from '@/content/services/lib/item-markdown';
import { isSameDocument, readMarkdown, type Ways } from '@/content/services/lib/markdown';
import { feedToZip } from '@/content/services/lib/feed-zip';
import { htmlMarkdown } from '@/content/services/lib/html-markdown';
import { pictureBytes } from '@/content/services/lib/picture-bytes';
import { putPieces } from '@/content/services/lib/put-pieces';
import { wholeOf } from '@/content/services/lib/whole-file';
import { entriesOf, wholeEntry, type ZipEntry } from '@/content/services/lib/zip-pieces';
import { saveItem } from '@/content/services/save-item';
import { beginFile, findFileOf, giveFile } from '@/content/store/files';
import { findItem, findItemByPath, type Item } from '@/content/store/items';
import { addRedirect } from '@/content/store/save-items';
import { findPicture, insertPicture } from '@/content/store/pictures';
import type { Actor } from '@/platform/actor';
import { uuid } from '@/platform/inputs';
import { done, refusedField, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import type { ProblemCode } from '@/words/problems';
import { bringInAfter, bringInBefore, siteJsonSchema } from './lib/site-json';

/** What became, or in a dry run would become, of one file. */
export type ImportLine = {
  path: string;
  is: 'new' | 'changed' | 'same' | 'left-out' | 'problem';
  code?: ProblemCode;
  /** What the sentence of the code names. */
  name?: string;
};

/** How many files one step does, and how large a text may be, in bytes. */
const STEP = 40;
const MOST_TEXT = 2_000_000;

const stepSchema = z.object({
  /** An upload that was sent in pieces and not finished: a ZIP, or an export as RSS or Atom. */
  uploadId: uuid,
  /** How many files have been done. */
  from: z.number().int().min(0),
  /** Nothing is written: the report says what would be. */
  isDry: z.boolean(),
});

/**
 * Brings in some files of a ZIP, in the form of an export or a folder of Markdown; called again with `next` until it is
 * null. Each file names its item by its id, its address or its place in the folder, so that bringing it in again makes no
 * doubles. A feed is made into a ZIP first: `uploadId` is what the next step is asked with.
 */
export const importStep = staffUse('set up the site')(
  'import-step',
  stepSchema,
  async (
    actor,
    { uploadId, from, isDry },
  ): Promise<Result<{ lines: ImportLine[]; next: number | null; total: number; uploadId: string }>> => {
    const zipped = await entriesOf(uploadId);
    const feedId = zipped || from > 0 ? null : await feedToZip(uploadId);
    const found = zipped ?? (feedId ? await entriesOf(feedId) : null);
    if (!found) return refusedField('', 'import.not-zip');
    const work = workOf(found);
    const lines: ImportLine[] = [];
    const bring: Bring = { actor, isDry, entries: new Map(found.map((entry) => [entry.path, entry])) };
    for (const task of work.slice(from, from + STEP)) lines.push(...(await task(bring)));
    const next = from + STEP < work.length ? from + STEP : null;
    return done({ lines, next, total: work.length, uploadId: feedId ?? uploadId });
  },
);

type Bring = { actor: Actor; isDry: boolean; entries: Map<string, ZipEntry> };
type Task = (bring: Bring) => Promise<ImportLine[]>;

/** What is to be done, in an order in which everything comes after what it needs. */
function workOf(entries: ZipEntry[]): Task[] {
  const texts = entries.filter(({ path }) => /\.(md|markdown|html)$/i.test(path));
  // Pages come after those above them; what is deeper is longer.
  const sorted = [...texts].sort(
    (a, b) => a.path.split('/').length - b.path.split('/').length || a.path.localeCompare(b.path),
  );
  const site = entries.find(({ path }) => path === 'site.json');
  const pictures = entries.filter(
    ({ path }) => /\.(jpe?g|png|webp|gif|avif)$/i.test(path) && !path.startsWith('files/'),
  );
  return [
    // The cards of tiers show pictures, and texts name tiers.
    ...pictures.map((entry) => (bring: Bring) => bringPicture(bring, entry)),
    ...(site ? [(bring: Bring) => bringSite(bring, site, bringInBefore)] : []),
    ...sorted.map((entry) => (bring: Bring) => bringText(bring, entry)),
    ...(site ? [(bring: Bring) => bringSite(bring, site, bringInAfter)] : []),
  ];
}

async function bringSite(
  { actor, isDry }: Bring,
  entry: ZipEntry,
  bringIn: typeof bringInBefore,
): Promise<ImportLine[]> {
  const bytes = await wholeEntry(entry, 20_000_000);
  const json = siteJsonSchema.safeParse(bytes ? safeJson(bytes.toString('utf8')) : null);
  if (!json.success) return [{ path: entry.path, is: 'problem', code: 'import.bad-head' }];
  if (isDry) return bringIn === bringInBefore ? [{ path: entry.path, is: 'changed' }] : [];
  const problems = await bringIn(actor, json.data);
  return [
    ...(bringIn === bringInBefore ? [{ path: entry.path, is: 'changed' } as const] : []),
    ...problems.map(({ part, code }) => ({
      path: `${entry.path}: ${part}`,
      is: 'problem' as const,
      code: code as ProblemCode,
    })),
  ];
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** The id of a picture: the one that an export gave it, or one that follows from what it is, so that it comes once. */
function pictureIdOf({ path, crc, size }: ZipEntry): string {
  const known = /([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})\.\w+$/.exec(path)?.[1];
  if (known) return known;
  const hash = createHash('sha256').update(`${path}:${crc}:${size}`).digest('hex');
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-8${hash.slice(13, 16)}-8${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
}

async function bringPicture({ isDry }: Bring, entry: ZipEntry): Promise<ImportLine[]> {
  const { path } = entry;
  const id = pictureIdOf(entry);
  if (await findPicture(pool(), id)) return [{ path, is: 'same' }];
  const bytes = await wholeEntry(entry, MOST_PICTURE_BYTES);
  if (!bytes) return [{ path, is: 'problem', code: 'picture.too-large' }];
  const picture = await pictureBytes('content', bytes);
  if (!picture) return [{ path, is: 'problem', code: 'picture.unreadable' }];
  if (!isDry)
    await insertPicture(pool(), { ...picture, id, of: 'content', name: path.split('/').at(-1) ?? '' });
  return [{ path, is: 'new' }];
}

/** The entry that an address in a text means: from the root of the ZIP, or beside the text. */
function entryAt({ entries }: Bring, address: string, beside: string): ZipEntry | undefined {
  if (address.startsWith('/')) return entries.get(address.slice(1));
  const parts = beside.split('/').slice(0, -1);
  for (const part of decodeSafely(address).split('/'))
    if (part === '..') parts.pop();
    else if (part !== '.') parts.push(part);
  return entries.get(parts.join('/')) ?? entries.get(address);
}

function decodeSafely(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

async function bringText(bring: Bring, entry: ZipEntry): Promise<ImportLine[]> {
  const { path } = entry;
  const bytes = await wholeEntry(entry, MOST_TEXT);
  if (!bytes) return [{ path, is: 'problem', code: 'import.too-large' }];
  const written = splitItem(bytes.toString('utf8'));
  if (!written.ok)
    return [{ path, is: 'problem', code: written.why === 'no-head' ? 'import.no-head' : 'import.bad-head' }];
  const { head } = written;
  const lines: ImportLine[] = [];
  const isHtml = path.endsWith('.html');
  const paths = await knownPaths(bring, written.text);
  const ways: Ways = {
    picture: (address) => {
      const found = entryAt(bring, address, path);
      if (!found) lines.push({ path, is: 'problem', code: 'import.no-picture', name: address });
      return found ? pictureIdOf(found) : null;
    },
    itemAt: (href) => paths.get(href) ?? null,
  };
  let body;
  try {
    body = isHtml ? readMarkdown(htmlMarkdown(written.text), ways) : documentOf(written, ways);
  } catch {
    return [{ path, is: 'problem', code: 'import.bad-head' }];
  }
  if (!body) return [{ path, is: 'problem', code: 'import.section-unreadable' }];
  const lead = head.picture ? entryAt(bring, head.picture, path) : undefined;
  if (head.picture && !lead)
    lines.push({ path, is: 'problem', code: 'import.no-picture', name: head.picture });
  const input = inputOf(head, { path, body, pictureId: lead ? pictureIdOf(lead) : null });
  const known = (await findItem(pool(), input.id)) ?? undefined;
  const isSame = known !== undefined && isAsWritten(known, input);
  if (!isSame && !bring.isDry) {
    const saved = await saveItem(bring.actor, input);
    if (!saved.ok) {
      const [problem] = Object.values(saved.problems);
      return [...lines, { path, is: 'problem', code: problem?.code ?? 'form.unknown' }];
    }
    for (const old of head['old-addresses'] ?? []) await addRedirect(pool(), old, input.id);
  }
  const file = head.file ? await bringFile(bring, entry, head.file, input.id) : null;
  if (file) lines.push(file);
  return [{ path, is: !known ? 'new' : isSame ? 'same' : 'changed' }, ...lines];
}

/** The ids of the items to whose addresses a text leads: those that are there, or come with the same ZIP. */
async function knownPaths(bring: Bring, text: string): Promise<Map<string, string>> {
  const hrefs = new Set([...text.matchAll(/\]\((\/[^)\s]*)/g)].map(([, href = '']) => href));
  const known = new Map<string, string>();
  for (const href of hrefs) {
    const item = await findItemByPath(pool(), href);
    if (item) known.set(href, item.id);
    else {
      const entry = textAt(bring, href);
      const bytes = entry && (await wholeEntry(entry, MOST_TEXT));
      const written = bytes && splitItem(bytes.toString('utf8'));
      if (entry && written && written.ok) known.set(href, idOf(written.head, entry.path));
    }
  }
  return known;
}

/** The text that comes to an address: by the folders of an export, or by those of its owner. */
function textAt({ entries }: Bring, href: string): ZipEntry | undefined {
  const folders = new Set([...entries.keys()].map((path) => path.split('/').slice(0, -1).join('/')));
  const last = href === '/' ? '/front' : href;
  const places = [
    '',
    '/pages',
    ...[...folders].map((folder) => `/${folder.split('/').slice(0, 2).join('/')}`),
  ];
  return places.map((place) => entries.get(`${place}${last}.md`.slice(1))).find(Boolean);
}

/** A folder without ids: the place of a text in it is its name. */
const idOf = (head: ItemHeadText, path: string): string =>
  head.id ?? slugify(placeOf(path).replace(/\//g, '-'));
const placeOf = (path: string): string => path.replace(/^content\//, '').replace(/\.\w+$/, '');

type Input = {
  id: string;
  type: string;
  title: string;
  slug: string;
  parentId: string | null;
  summary: string;
  body: Item['body'];
  author: string;
  tags: string[];
  categories: string[];
  position: number;
  pictureId: string | null;
  pictureAlt: string;
  target: string | undefined;
  commentsOn: boolean | null;
  publish: 'draft' | { at: string };
  wasPublishedAt?: string;
};

function inputOf(
  head: ItemHeadText,
  { path, body, pictureId }: { path: string; body: Item['body']; pictureId: string | null },
): Input {
  const place = placeOf(path);
  const published = head.published ?? head.date;
  const at = typeof published === 'string' ? published : null;
  const last = head.path === '/' ? '/' : head.path?.split('/').at(-1);
  return {
    id: idOf(head, path),
    type: head.type ?? (/(^|\/)pages?\//.test(path) ? PAGE : 'post'),
    title: head.title,
    slug: head.slug ?? last ?? place.split('/').at(-1) ?? '',
    parentId: head.parent ?? null,
    summary: head.summary,
    body,
    author: head.author,
    tags: head.tags ?? [],
    categories: head.categories ?? (head.category ? [head.category] : []),
    position: head.position ?? 0,
    pictureId,
    pictureAlt: head['picture-alt'] ?? '',
    target: head.target,
    commentsOn: head.comments ?? null,
    publish: at ? { at } : 'draft',
    ...(head['was-published'] && { wasPublishedAt: head['was-published'] }),
  };
}

/** Whether an item is already as it is written. */
function isAsWritten(item: Item, input: Input): boolean {
  const sorted = (list: string[]): string => [...list].sort().join('\n');
  return (
    item.title === input.title &&
    item.summary === input.summary &&
    item.author === input.author &&
    item.parentId === input.parentId &&
    item.position === input.position &&
    item.pictureId === input.pictureId &&
    item.pictureAlt === input.pictureAlt &&
    (item.target ?? undefined) === input.target &&
    item.commentsOn === input.commentsOn &&
    (item.publishedAt ?? null) === (input.publish === 'draft' ? null : input.publish.at) &&
    sorted(item.ownCategories) === sorted(input.categories) &&
    // Tags can be named, and are known by their ids.
    sorted(item.tags) === sorted(input.tags.map((tag) => (item.tags.includes(tag) ? tag : slugify(tag)))) &&
    (item.path === '/' ? '/' : item.path.split('/').at(-1)) === input.slug &&
    isSameDocument(item.body, input.body)
  );
}

/** Brings in the bytes of a file, where they are other than what is there. */
async function bringFile(
  bring: Bring,
  text: ZipEntry,
  address: string,
  itemId: string,
): Promise<ImportLine | null> {
  const { path } = text;
  const refused: ImportLine = { path, is: 'problem', code: 'import.no-file', name: address };
  const entry = entryAt(bring, address, path);
  if (!entry) return refused;
  if (bring.isDry) return null;
  const name = address.split('/').at(-1) ?? 'file';
  const uploadId = await beginFile(pool(), name.slice(0, 200));
  await putPieces(uploadId, await entry.bytes());
  const whole = await wholeOf(pool(), uploadId);
  const mediaType = whole && mediaTypeOf(name, whole.found, whole.text);
  if (!whole || !mediaType) return refused;
  const known = await findFileOf(pool(), itemId);
  if (known?.sha256 === whole.sha256) return null;
  await giveFile(pool(), { id: uploadId, itemId, name, mediaType, size: whole.size, sha256: whole.sha256 });
  return null;
}
