import { z } from 'zod';
import { ITEM_STATES, itemState, PAGE, type ItemState } from '@/core/content/item';
import { may, mayWrite, WRITES } from '@/core/staff';
import { flat, treeOf } from '@/core/content/menu';
import { startOfDate, addLength, localMonth } from '@/core/calendar';
import { firstOf, isLocalMonth } from '@/core/instants';
import { listAuthors, listForDesk, countForDesk, type DeskFilter } from '@/content/store/item-lists';
import { countByCategory, listCategories } from '@/content/store/categories';
import { findDraft, listDrafts } from '@/content/store/drafts';
import { findFileOf, listFilesOf } from '@/content/store/files';
import { filesIn, linkedItems, type Prose } from '@/core/content/prose';
import {
  findItem,
  listHeads,
  listItems,
  listRedirects,
  listTrashed,
  type ItemHead,
} from '@/content/store/items';
import { countByKind, listKinds, type Kind } from '@/content/store/kinds';
import { listMenuEntries } from '@/content/store/menus';
import { listPageRoles } from '@/content/store/page-roles';
import { countByTag, listTags } from '@/content/store/tags';
import { findMember } from '@/people/store/members';
import { nothing, slug } from '@/platform/inputs';
import { orNothing } from '@/platform/form-fields';
import { done, missing } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { siteNow } from '@/platform/clock';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { deskWordsOf } from '@/words/desk';
import { listJoinables } from '@/tiers/services/lib/joinables';
import { listJoinLinks } from '@/tiers/store/offers';
import { knownCategories, knownItems, unknownItems } from './lib/desk-items';
import { accessOf, readViewpoints, type ItemAccess } from './lib/access-map';
import { kindNames } from './lib/kind-names';

export type { ItemAccess } from './lib/access-map';

/** How many items a page of a list has; the tree of pages is shown whole, up to a bound. */
const ROWS = 50;
const MOST_IN_TREE = 1000;

const asked = z.preprocess(orNothing, z.string().max(200).optional());
const filterSchema = z.object({
  kind: z.preprocess(orNothing, z.string().max(200).optional()),
  q: asked,
  state: z.preprocess(orNothing, z.enum(ITEM_STATES).optional()),
  category: asked,
  tag: asked,
  author: asked,
  access: z.preprocess(orNothing, z.enum(['everyone', 'members', 'tiers', 'nobody', 'own']).optional()),
  page: z.coerce.number().int().min(1).max(100_000).default(1),
});
type AccessFilter = z.output<typeof filterSchema>['access'];

export type ContentRow = {
  item: ItemHead;
  depth: number;
  state: ItemState;
  access: ItemAccess;
  /** Whether the staff member who looks may change it. */
  mayWrite: boolean;
  /** Of a file: its name, and its size in bytes. */
  file: { name: string; size: number } | null;
};

/** A kind with its names, and how many items it has. */
export type NamedKind = Kind & { one: string; many: string; items: number; trashed: number };

async function namedKinds(): Promise<NamedKind[]> {
  const t = deskWordsOf(await currentSite());
  const counts = await countByKind(pool());
  return (await listKinds(pool())).map((kind) => {
    const { name: one, plural: many } = kindNames(kind, t);
    return { ...kind, one, many, ...(counts.get(kind.id) ?? { items: 0, trashed: 0 }) };
  });
}

/** One list of the Content place: items of a kind that fit the filter, each with who opens it. */
export const contentPlace = staffUse('look')('content-place', filterSchema, async (actor, filter) => {
  const view = await readViewpoints();
  const { now } = view.reader;
  const { kind = PAGE, page, access } = filter;
  const powers = await powersOf(actor);
  const without = await unknownItems(actor);
  const where: DeskFilter = {
    type: kind,
    without,
    ...(filter.q && { search: filter.q }),
    ...(filter.state && { state: filter.state }),
    ...(filter.category && { category: filter.category }),
    ...(filter.tag && { tag: filter.tag }),
    ...(filter.author && { author: filter.author }),
  };
  const isFiltered = Object.keys(where).length > 2 || access !== undefined;
  const isTree = kind === PAGE && !isFiltered;
  const slice = { limit: ROWS, offset: (page - 1) * ROWS };
  // Who opens an item is computed, not stored: to filter by it, all that fit otherwise are looked at.
  const candidates = isTree
    ? await treeRows(new Set(without))
    : (await listForDesk(pool(), now, where, access ? undefined : slice)).map((row) => ({ row, depth: 0 }));
  const decided = await accessOf(
    view,
    candidates.map(({ row }) => row),
  );
  const fitting = candidates.flatMap((one, index) => {
    const found = decided[index];
    return found && (!access || fits(found, access)) ? [{ ...one, access: found }] : [];
  });
  const shown = access ? fitting.slice(slice.offset, slice.offset + ROWS) : fitting;
  const files = await listFilesOf(
    pool(),
    shown.map(({ row }) => row.id),
  );
  const rows = shown.map(({ row, ...one }): ContentRow => {
    const file = files.get(row.id);
    return {
      ...one,
      item: row,
      state: itemState(row, now),
      mayWrite: mayWrite(powers, row),
      file: file ? { name: file.name, size: file.size } : null,
    };
  });
  return done({
    kind,
    isTree,
    rows,
    total: isTree || access ? fitting.length : await countForDesk(pool(), now, where),
    rowsOnPage: ROWS,
    kinds: await namedKinds(),
    categories: await knownCategories(actor, await listCategories(pool())),
    tags: await listTags(pool()),
    authors: await listAuthors(pool()),
  });
});

/** All pages in their tree, up to a bound. */
async function treeRows(without: ReadonlySet<string>): Promise<{ row: ItemHead; depth: number }[]> {
  const pages = (await listItems(pool(), PAGE)).filter(({ id }) => !without.has(id));
  return flat(treeOf(pages)).slice(0, MOST_IN_TREE);
}

function fits({ openers, setBy }: ItemAccess, access: NonNullable<AccessFilter>): boolean {
  switch (access) {
    case 'everyone':
      return openers.to === 'everyone';
    case 'members':
      return openers.to === 'signed-in';
    case 'tiers':
      return openers.to === 'tiers' && openers.tiers.length > 0;
    case 'nobody':
      return openers.to === 'tiers' && openers.tiers.length === 0;
    case 'own':
      return setBy.by === 'own';
  }
}

/** An item with all that its editor shows; "new" for one that is about to be written. */
export const itemEditor = staffUse(...WRITES)(
  'item-editor',
  z.object({ id: slug, kind: z.string().max(200).default('page') }),
  async (actor, { id, kind: asKind }) => {
    const { memberId } = actor;
    const item = id === 'new' ? null : await findItem(pool(), id);
    const powers = await powersOf(actor);
    if (item === undefined || (item && !mayWrite(powers, item))) return missing();
    const kinds = await namedKinds();
    const kind = kinds.find((one) => one.id === (item?.type ?? asKind));
    if (!kind) return missing();
    const view = await readViewpoints();
    const key = item?.id ?? `new:${kind.id}`;
    const file = item ? await findFileOf(pool(), item.id) : undefined;
    const others = [];
    for (const draft of item ? await listDrafts(pool(), key) : [])
      if (draft.memberId !== memberId)
        others.push({ name: (await findMember(pool(), draft.memberId))?.name ?? '', at: draft.savedAt });
    return done({
      item,
      kind,
      key,
      state: item && itemState(item, view.reader.now),
      access: item ? (await accessOf(view, [item]))[0] : null,
      /** What one has written here and not saved. */
      draft: memberId ? ((await findDraft(pool(), memberId, key)) ?? null) : null,
      others,
      file: file ? { name: file.name, size: file.size, mediaType: file.mediaType } : null,
      isInMenu: (await listMenuEntries(pool())).some(
        (entry) => entry.kind === 'item' && entry.target === item?.id,
      ),
      /** What the items are called to which its text leads. */
      names: item ? await namesIn(item.body) : {},
      redirects: item ? (await listRedirects(pool(), item.id)).map(({ path }) => path) : [],
      mayPublish: may(powers, 'publish'),
      pages: kind.id === PAGE ? await knownItems(actor, await listItems(pool(), PAGE)) : [],
      categories: await knownCategories(actor, await listCategories(pool())),
      tags: await listTags(pool()),
      authors: await listAuthors(pool()),
      joinables: await listJoinables(),
      viewpoints: view.viewpoints.map(({ id: viewpoint, name }) => ({ id: viewpoint, name })),
      gates: {
        rules: view.reader.rules.map(({ id: rule, name }) => ({ id: rule, name })),
        tiers: view.tiers.map(({ id: tier, name }) => ({ id: tier, name })),
      },
    });
  },
);

async function namesIn(body: Prose): Promise<Record<string, string>> {
  const heads = await listHeads(pool(), [...filesIn(body), ...linkedItems(body)]);
  return Object.fromEntries(heads.map(({ id, title }) => [id, title]));
}

/** Categories as they are nested, tags, and kinds, each with how many items have it. */
export const contentTerms = staffUse('look')('content-terms', nothing, async (actor) => {
  const [inCategory, withTag] = [await countByCategory(pool()), await countByTag(pool())];
  return done({
    categories: flat(treeOf(await knownCategories(actor, await listCategories(pool())))).map(
      ({ row, depth }) => ({
        ...row,
        depth,
        items: inCategory.get(row.id) ?? 0,
      }),
    ),
    tags: (await listTags(pool())).map((tag) => ({ ...tag, items: withTag.get(tag.id) ?? 0 })),
    kinds: await namedKinds(),
    tiers: (await readViewpoints()).tiers.map(({ id, name }) => ({ id, name })),
  });
});

/** The menu as it is nested, with what its entries can lead to. */
export const menuEditor = staffUse('look')('menu-editor', nothing, async (actor) => {
  const items = await knownItems(actor, await listItems(pool()));
  return done({
    entries: flat(treeOf(await listMenuEntries(pool()))).map(({ row, depth }) => ({ ...row, depth })),
    items: items.map(({ id, title }) => ({ id, name: title })),
    kinds: (await namedKinds())
      .filter(({ path }) => path !== null)
      .map(({ id, many }) => ({ id, name: many })),
    categories: (await knownCategories(actor, await listCategories(pool()))).map(({ id, name }) => ({
      id,
      name,
    })),
    tags: (await listTags(pool())).map(({ id, name }) => ({ id, name })),
    offers: await listJoinLinks(pool()),
    roles: await listPageRoles(pool()),
    pages: items.filter(({ type }) => type === PAGE).map(({ id, title }) => ({ id, name: title })),
  });
});

/** What comes out, and came out, in a month of the site's zone; the present one where none is named. */
export const contentCalendar = staffUse('look')(
  'content-calendar',
  z.object({ month: z.preprocess(orNothing, z.string().refine(isLocalMonth).optional()) }),
  async (actor, { month: given }) => {
    const without = await unknownItems(actor);
    const site = await currentSite();
    const now = siteNow(site);
    const month = given ?? localMonth(now, site.zone);
    const first = startOfDate(firstOf(month), site.zone);
    const items = await listForDesk(pool(), now, {
      without,
      between: [first, addLength(first, { n: 1, unit: 'month' }, site.zone)],
    });
    return done({
      month,
      now,
      items: items.map((item) => ({ ...item, state: itemState(item, now) })).reverse(),
      drafts: (await listForDesk(pool(), now, { state: 'draft', without }, { limit: 30, offset: 0 })).map(
        ({ id, title }) => ({ id, title }),
      ),
    });
  },
);

/** Up to twenty items whose title or address holds what was typed, for links and files; newest first. */
export const findItems = staffUse('look')(
  'find-items',
  z.object({ q: z.string().max(200), kind: z.string().max(200).optional() }),
  async (actor, { q, kind }) => {
    const now = siteNow(await currentSite());
    const found = await listForDesk(
      pool(),
      now,
      {
        without: await unknownItems(actor),
        ...(q.trim() && { search: q.trim() }),
        ...(kind && { type: kind }),
      },
      { limit: 20, offset: 0 },
    );
    return done(found.map(({ id, title, path, type }) => ({ id, title, path, type })));
  },
);

/** What is in the trash, last thrown away first. */
export const listTrash = staffUse('look')('list-trash', nothing, async (actor) =>
  done(await knownItems(actor, await listTrashed(pool()))),
);
