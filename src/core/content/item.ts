import { normalisePath } from '../access/paths';
import { isBefore, type Instant } from '../instants';
import { slugify } from './slug';

/** Where an item is on its way from being written to being thrown away. */
export const ITEM_STATES = ['draft', 'scheduled', 'published', 'unpublished', 'trashed'] as const;
export type ItemState = (typeof ITEM_STATES)[number];

type Dates = { publishedAt: Instant | null; wasPublishedAt: Instant | null; trashedAt: Instant | null };

export function itemState({ publishedAt, wasPublishedAt, trashedAt }: Dates, now: Instant): ItemState {
  if (trashedAt !== null) return 'trashed';
  if (publishedAt !== null) return isBefore(now, publishedAt) ? 'scheduled' : 'published';
  return wasPublishedAt === null ? 'draft' : 'unpublished';
}

/** The kinds that are there from the start. Pages are a tree; files end in what they are. */
export const PAGE = 'page';
export const POST = 'post';
export const LINK = 'link';
export const FILE = 'file';
export const BUILT_IN_KINDS: readonly string[] = [PAGE, POST, LINK, FILE];

/** The last part of a file's address: its name in small letters, its ending kept: "Winter Atlas.PDF" is "winter-atlas.pdf". */
export function fileSlug(name: string): string {
  const match = /^(.*?)(?:\.([A-Za-z0-9]{1,8}))?$/.exec(name.trim());
  const ending = match?.[2]?.toLowerCase();
  return `${slugify(match?.[1] ?? name)}${ending ? `.${ending}` : ''}`;
}

/**
 * The address of an item: below its parent, for a page; below the list of its kind, for any other. Null where it can have
 * none.
 * @param above the parent's address or the kind's, '' for a page at the top
 */
export function itemPath(type: string, above: string, slug: string): string | null {
  const last = type === FILE ? fileSlug(slug) : slugify(slug);
  return normalisePath(`${above === '/' ? '' : above}/${last}`);
}

/** The address with a number that nobody has yet: "/visit", then "/visit-2". A file's number comes before its extension. */
export function freePath(path: string, isTaken: (path: string) => boolean): string {
  if (!isTaken(path)) return path;
  const [, base = path, ending = ''] = /^(.*?)(\.[a-z0-9]{1,8})?$/.exec(path) ?? [];
  for (let n = 2; ; n++) if (!isTaken(`${base}-${n}${ending}`)) return `${base}-${n}${ending}`;
}
