import { PAGE } from '@/core/content/item';
import type { Kind } from '@/content/store/kinds';
import { type ItemHead } from '@/content/store/items';
import { addRedirect, moveDescendants } from '@/content/store/save-items';
import type { Db } from '@/platform/store/db';

/** First parts of addresses that the product itself answers. */
const RESERVED = new Set([
  'desk',
  'look',
  'api',
  'join',
  'sign-in',
  'sign-out',
  'account',
  'archive',
  'categories',
  'tags',
  'search',
  'comments',
  'mail-off',
  'by-mail',
  'register',
  'buy',
  'embed',
  'code',
  'pass',
  'outside',
  'let-in',
  'feeds',
  'feed.xml',
  'feed.atom',
  'feed.json',
  'sitemap.xml',
  'robots.txt',
  'pictures',
  'reading',
  'downloads',
  '_next',
]);

/** Whether an address is the product's own. */
export const isReserved = (path: string): boolean => RESERVED.has(path.split('/')[1] ?? '');

/** Whether an address is that of a kind's list, or, for a page, below one. */
export const isOfKind = (kinds: Kind[], path: string, type: string): boolean =>
  kinds.some(
    (kind) => kind.path === path || (type === PAGE && kind.path && path.startsWith(`${kind.path}/`)),
  );

/** What follows from an item's new address: all below it moves along, and the old one leads on, if it was ever out. */
export async function followMove(
  db: Db,
  item: Pick<ItemHead, 'id' | 'path' | 'publishedAt' | 'wasPublishedAt'>,
  path: string,
): Promise<void> {
  const wasOut = item.publishedAt !== null || item.wasPublishedAt !== null;
  // What was the front page is not where people who come to the site want to go.
  if (wasOut && item.path !== '/') await addRedirect(db, item.path, item.id);
  await moveDescendants(db, item.path, path);
}
