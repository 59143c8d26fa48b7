import { listCategories } from '@/content/store/categories';
import { listHeads } from '@/content/store/items';
import { listKinds } from '@/content/store/kinds';
import { listMenuEntries } from '@/content/store/menus';
import { listPageRoles } from '@/content/store/page-roles';
import { listTags } from '@/content/store/tags';
import { isBefore, toMs, type Instant } from '@/core/instants';
import { listScheduled } from '@/content/store/item-lists';
import { siteNow } from '@/platform/clock';
import { shelved } from '@/platform/shelf';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';

/** What most pages of the site need, each read once for each version of the site. */
export const keptKinds = () => shelved('kinds', () => listKinds(pool()));
export const keptCategories = () => shelved('categories', () => listCategories(pool()));
export const keptTags = () => shelved('tags', () => listTags(pool()));
export const keptMenu = () => shelved('menu entries', () => listMenuEntries(pool()));
/** The items to which the menu leads, and the pages that serve as something; published or not. */
export const keptLeads = () =>
  shelved('menu items', async () => {
    const [entries, roles] = [await keptMenu(), await keptRoles()];
    const items = entries.filter(({ kind }) => kind === 'item').map(({ target }) => target);
    return listHeads(pool(), [...items, ...roles.map(({ itemId }) => itemId)]);
  });
export const keptRoles = () => shelved('page roles', () => listPageRoles(pool()));

/** When items come out that are scheduled by the site's clock, or were a while ago, the first of them first. */
export const keptScheduled = (): Promise<Instant[]> =>
  shelved('scheduled', async () => listScheduled(pool(), siteNow(await currentSite())));

const MINUTE_MS = 60_000;

/**
 * What is read of published items by the site's clock, and is the same for all who ask; read once for each version of the
 * site, and anew with each item that comes out as it was scheduled. What is asked for as of another day is not kept.
 */
export async function keptPublished<T>(name: string, now: Instant, read: () => Promise<T>): Promise<T> {
  const clock = siteNow(await currentSite());
  if (Math.abs(toMs(clock) - toMs(now)) > MINUTE_MS) return read();
  const scheduled = await keptScheduled();
  const out = scheduled.filter((at) => !isBefore(now, at)).length;
  return shelved(`${name} ${out}`, read);
}
