import { filesIn, linkedItems, picturesIn, type Prose } from '@/core/content/prose';
import { listFilesOf } from '@/content/store/files';
import { listByIds } from '@/content/store/items';
import { pictureSizes } from '@/content/store/pictures';
import { pool } from '@/platform/store/db';
import { isLetIn, isOut, judge, type Reader } from './reader';

/** What a text shows and leads to, by ids: only of what its reader may know. */
export type Shown = {
  pictures: Record<string, { width: number; height: number }>;
  /** `size` in bytes. */
  files: Record<
    string,
    { title: string; path: string; name: string; mediaType: string; size: number; isOpen: boolean }
  >;
  /** Where the items are by now to which links lead. */
  links: Record<string, string>;
};

/** Looks up what a document shows. Nothing is asked for where it shows nothing. */
export async function shownIn(reader: Reader, document: Prose): Promise<Shown> {
  const [pictures, files, links] = [picturesIn(document), filesIn(document), linkedItems(document)];
  const shown: Shown = { pictures: {}, files: {}, links: {} };
  if (pictures.length > 0)
    for (const { id, width, height } of (await pictureSizes(pool(), pictures)).values())
      shown.pictures[id] = { width, height };
  const items = [...files, ...links];
  if (items.length === 0) return shown;
  const found = (await listByIds(pool(), items)).filter((item) => isOut(reader, item));
  for (const { id, path } of found) if (links.includes(id)) shown.links[id] = path;
  const offered = found.filter(({ id }) => files.includes(id));
  const [decisions, facts] = [await judge(reader, offered), await listFilesOf(pool(), files)];
  for (const { id, title, path } of offered) {
    const file = facts.get(id);
    if (file)
      shown.files[id] = {
        title,
        path,
        name: file.name,
        mediaType: file.mediaType,
        size: file.size,
        isOpen: isLetIn(decisions(id)),
      };
  }
  return shown;
}
