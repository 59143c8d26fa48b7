import { FILE, LINK, PAGE } from '@/core/content/item';
import { filesIn, type Prose } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import { listFilesOf } from '@/content/store/files';
import { listPublished } from '@/content/store/item-lists';
import { listByIds } from '@/content/store/items';
import { pool } from '@/platform/store/db';
import { hiddenFrom } from './hidden';
import { isLetIn, judge, openBody, type Reader } from './reader';
import { shownIn, type Shown } from './shown';

export type FeedItem = {
  id: string;
  path: string;
  title: string;
  summary: string;
  author: string;
  publishedAt: Instant | null;
  /** What they may read of it; null where it is closed to them. */
  body: Prose | null;
  shown: Shown;
  /** Sound and film that its text offers and that are open to them. */
  enclosures: { id: string; name: string; mediaType: string; size: number }[];
};

/** The newest items with what a reader may read of them. */
export async function feedItemsFor(reader: Reader): Promise<FeedItem[]> {
  const heads = await listPublished(
    pool(),
    reader.now,
    { except: [PAGE, FILE, LINK], hidden: (await hiddenFrom(reader)).ids },
    { limit: 50, offset: 0 },
  );
  const items = await listByIds(
    pool(),
    heads.map(({ id }) => id),
  );
  const decisions = await judge(reader, heads);
  const feed: FeedItem[] = [];
  for (const head of heads) {
    const item = items.find(({ id }) => id === head.id);
    if (!item) continue;
    const body = isLetIn(decisions(item.id)) ? openBody(reader, item) : null;
    const { id, path, title, summary, author, publishedAt } = item;
    const shown = await shownIn(reader, body ?? { type: 'doc', content: [] });
    feed.push({
      id,
      path,
      title,
      summary: body ? summary : '',
      author,
      publishedAt,
      body,
      shown,
      enclosures: await enclosuresOf(body, shown),
    });
  }
  return feed;
}

async function enclosuresOf(body: Prose | null, shown: Shown): Promise<FeedItem['enclosures']> {
  if (!body) return [];
  const files = await listFilesOf(pool(), filesIn(body));
  return filesIn(body).flatMap((id) => {
    const file = files.get(id);
    const isMedia = file && /^(audio|video)\//.test(file.mediaType);
    return isMedia && shown.files[id]?.isOpen
      ? [{ id, name: file.name, mediaType: file.mediaType, size: file.size }]
      : [];
  });
}
