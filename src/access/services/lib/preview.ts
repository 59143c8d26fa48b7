import { readingMinutes } from '@/core/content/prose';
import type { ItemId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import type { ItemHead } from '@/content/store/items';
import { pictureSizes } from '@/content/store/pictures';
import { pool } from '@/platform/store/db';

/** A picture as pages show it: its width and height in pixels, so that nothing moves while it comes. */
export type PictureFacts = { id: string; width: number; height: number; alt: string };

/** What may be said about an item to people who may know that it exists. */
export type ItemPreview = {
  id: ItemId;
  type: string;
  path: string;
  title: string;
  author: string;
  publishedAt: Instant | null;
  categories: string[];
  tags: string[];
  /** Minutes that its text takes to read; 0 where it has none. */
  minutes: number;
  picture: PictureFacts | null;
};

type Size = { width: number; height: number };

/** The preview of an item, with the size of its picture. */
export const previewWith = (item: ItemHead, size: Size | null): ItemPreview => ({
  id: item.id,
  type: item.type,
  path: item.path,
  title: item.title,
  author: item.author,
  publishedAt: item.publishedAt,
  categories: item.ownCategories,
  tags: item.tags,
  minutes: item.words === 0 ? 0 : readingMinutes(item.words),
  picture:
    item.pictureId && size
      ? { id: item.pictureId, width: size.width, height: size.height, alt: item.pictureAlt }
      : null,
});

/** Previews of items, with the sizes of their pictures. */
export async function previewOf(items: ItemHead[]): Promise<ItemPreview[]> {
  const ids = items.flatMap(({ pictureId }) => (pictureId ? [pictureId] : []));
  const sizes = ids.length > 0 ? await pictureSizes(pool(), ids) : new Map<string, Size>();
  return items.map((item) => previewWith(item, sizes.get(item.pictureId ?? '') ?? null));
}
