import { isShownTo, treeOf, type Look, type Tree } from '@/core/content/menu';
import type { ItemHead } from '@/content/store/items';
import type { PageRole } from '@/core/content/page-roles';
import { type MenuEntry } from '@/content/store/menus';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { alikeUse } from '@/platform/use';
import { wordsOf, type Words } from '@/words/words';
import { kindNames } from './lib/kind-names';
import { hiddenFrom } from './lib/hidden';
import { isLetIn, isOut, judge, readerOf, type Reader } from './lib/reader';
import {
  keptCategories,
  keptKinds,
  keptLeads,
  keptMenu,
  keptRoles,
  keptTags,
} from '@/content/services/lib/kept';
import { keptJoinLinks } from '@/tiers/services/lib/kept';

/** An entry as it is shown: one without a path only holds those below it. */
export type ShownEntry = {
  id: string;
  kind: MenuEntry['kind'];
  title: string;
  path: string | null;
  isOpen: boolean;
  look: Look;
  below: ShownEntry[];
};

/** The entries of the site's menu that a person is shown. What an entry leads to may be gone: then it is left out. */
async function menuFor(reader: Reader): Promise<ShownEntry[]> {
  const entries = await keptMenu();
  const of = (kind: MenuEntry['kind']): string[] =>
    entries.filter((entry) => entry.kind === kind).map(({ target }) => target);
  const roles = await keptRoles();
  const items = await keptLeads();
  const decisions = await judge(reader, items);
  const hidden = new Set((await hiddenFrom(reader)).ids);
  const t = wordsOf(reader.site);
  const byId = new Map(items.filter((item) => isOut(reader, item)).map((item) => [item.id, item]));
  const pages = Object.fromEntries(roles.map(({ role, itemId }) => [role, byId.get(itemId)?.path]));
  const names = { ...(await namesFor(of, t)), pages };
  const isSignedIn = reader.person.signedIn;
  const show = (entry: Tree<MenuEntry>): ShownEntry[] => {
    const item = byId.get(entry.target);
    const lead = leadOf(entry, item, names, t, isSignedIn);
    const canOpen = entry.kind !== 'item' || (item !== undefined && isLetIn(decisions(item.id)));
    if (!lead || (item && hidden.has(item.id)) || !isShownTo(entry.audience, { isSignedIn, canOpen }))
      return [];
    const below = entry.below.flatMap(show);
    if (entry.kind === 'heading' && below.length === 0) return [];
    return [{ id: entry.id, kind: entry.kind, ...lead, isOpen: canOpen, look: entry.look, below }];
  };
  return treeOf(entries).flatMap(show);
}

type Named = Record<'kind' | 'category' | 'tag' | 'offer', Map<string, { name: string; path: string }>> & {
  /** The addresses of pages of the owner's that serve as something. */
  pages: Partial<Record<PageRole, string>>;
};

/** The names and addresses of what entries lead to, looked up only where there are such entries. */
async function namesFor(of: (kind: MenuEntry['kind']) => string[], t: Words): Promise<Omit<Named, 'pages'>> {
  const named = async (
    kind: MenuEntry['kind'],
    list: () => Promise<{ id: string; name: string; path: string }[]>,
  ): Promise<Map<string, { name: string; path: string }>> =>
    new Map((of(kind).length > 0 ? await list() : []).map(({ id, ...rest }) => [id, rest]));
  return {
    kind: await named('kind', async () =>
      (await keptKinds()).map((kind) => ({
        id: kind.id,
        name: kindNames(kind, t).plural,
        path: kind.path ?? '/',
      })),
    ),
    category: await named('category', async () =>
      (await keptCategories()).map(({ id, name }) => ({ id, name, path: `/categories/${id}` })),
    ),
    tag: await named('tag', async () =>
      (await keptTags()).map(({ id, name }) => ({ id, name, path: `/tags/${encodeURIComponent(id)}` })),
    ),
    offer: await named('offer', async () =>
      (await keptJoinLinks()).map(({ id, name }) => ({ id, name, path: `/join/${id}` })),
    ),
  };
}

/** The link and the label of an entry; null where its target no longer exists. */
function leadOf(
  { kind, target, label }: MenuEntry,
  item: ItemHead | undefined,
  names: Named,
  t: Words,
  isSignedIn: boolean,
): { title: string; path: string | null } | null {
  const to = (name: string, path: string | null) => ({ title: label || name, path });
  switch (kind) {
    case 'item':
      return item ? to(item.title, item.path) : null;
    case 'kind':
    case 'category':
    case 'tag':
    case 'offer': {
      const found = names[kind].get(target);
      return found ? to(found.name, found.path) : null;
    }
    case 'archive':
      return to(t('site.archive'), '/archive');
    case 'search':
      return to(t('site.search'), '/search');
    case 'join':
      return to(t('site.join'), names.pages.join ?? '/join');
    case 'sign-in':
      // One entry for both, so that it is where people look for it.
      return isSignedIn
        ? { title: t('site.sign-out'), path: null }
        : to(t('site.sign-in'), names.pages['sign-in'] ?? '/sign-in');
    case 'account':
      return to(t('site.account'), names.pages.account ?? '/account');
    case 'outside':
      return to(target, target);
    case 'heading':
      return to('', null);
  }
}

export const siteMenu = alikeUse('site-menu', nothing, async (actor) =>
  done(await menuFor(await readerOf(actor))),
);
