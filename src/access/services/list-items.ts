import { z } from 'zod';
import { VISITOR } from '@/core/access/facts';
import { addLength, startOfDate } from '@/core/calendar';
import { FILE, LINK, PAGE, POST } from '@/core/content/item';
import { firstOf, isLocalMonth, type Instant, type LocalMonth } from '@/core/instants';
import type { KeyCut } from '@/core/key-cut';
import { usedCategories } from '@/content/store/categories';
import {
  countPublished,
  findByWords,
  listMonths,
  listPublished,
  type PublishedFilter,
} from '@/content/store/item-lists';
import { type Kind } from '@/content/store/kinds';
import { searchLanguageOf } from '@/content/services/lib/search-language';
import type { ItemHead } from '@/content/store/items';
import { nothing } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { siteWords } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { alikeUse, publicUse } from '@/platform/use';
import { kindNames } from './lib/kind-names';
import { previewOf, type ItemPreview } from './lib/preview';
import { joinableTiers, openingTiers } from './lib/opening-tiers';
import { doorstepAt } from './lib/doorstep-at';
import { hiddenFrom } from './lib/hidden';
import { isLetIn, judge, questionOf, readerFor, readerOf, type Reader } from './lib/reader';
import { keptCategories, keptKinds, keptPublished, keptTags } from '@/content/services/lib/kept';

/** An item in a list. Of one that is closed: the tiers that would open it at once, and when it opens by itself. */
export type ListedItem = ItemPreview & {
  summary: string;
  isOpen: boolean;
  keys: { id: string; name: string; keyCut: KeyCut }[];
  opensAt: Instant | null;
};

/** How many items a page of a list has. */
export const PAGE_SIZE = 20;

/** What a person may know of items: of those that are closed, the summary follows their doorstep. */
async function listed(reader: Reader, items: ItemHead[]): Promise<ListedItem[]> {
  const [previews, decisions] = [await previewOf(items), await judge(reader, items)];
  const isAllOpen = items.every(({ id }) => isLetIn(decisions(id)));
  const joinable = isAllOpen ? [] : await joinableTiers(reader);
  const all: ListedItem[] = [];
  for (const [index, item] of items.entries()) {
    const decision = decisions(item.id);
    const isOpen = isLetIn(decision);
    const isSummaryShown =
      isOpen || (await doorstepAt(reader, item, decision)).doorstep.teaser.kind !== 'none';
    const keys = isOpen ? [] : openingTiers(questionOf(reader, item), joinable);
    all.push({
      ...(previews[index] as ItemPreview),
      summary: isSummaryShown ? item.summary : '',
      isOpen,
      keys: keys
        .filter(({ at }) => at === 'once')
        .map(({ tier: { id, name, keyCut } }) => ({ id, name, keyCut })),
      opensAt: decision.state === 'later' ? (decision.opensAt ?? null) : null,
    });
  }
  return all;
}

const listSchema = z.object({
  type: z.string().max(200).optional(),
  category: z.string().max(200).optional(),
  tag: z.string().max(200).optional(),
  /** As "2026-11", in the site's zone. */
  month: z.string().refine(isLocalMonth).optional(),
  page: z.number().int().min(1).max(10_000).default(1),
  /** How many on a page. */
  size: z.number().int().min(1).max(100).default(PAGE_SIZE),
});

/** What the caller may know of the published items, newest first, a page at a time, and how many there are. */
export const listItems = alikeUse(
  'list-items',
  listSchema,
  async (actor, { page, size, month, ...filter }) => {
    const reader = await readerOf(actor);
    const hidden = await hiddenFrom(reader);
    const where: PublishedFilter = {
      ...filter,
      // Files and links have lists of their own; pages are reached by the menu.
      ...(!filter.type && { except: [PAGE, FILE, LINK] }),
      ...(month && { between: monthOf(month, reader.site.zone) }),
    };
    const name = JSON.stringify([where, page, size, hidden.name]);
    const seen = { ...where, hidden: hidden.ids };
    const found = await keptPublished(`items ${name}`, reader.now, async () => ({
      items: await listPublished(pool(), reader.now, seen, { limit: size, offset: (page - 1) * size }),
      total: await countPublished(pool(), reader.now, seen),
    }));
    return done({ items: await listed(reader, found.items), total: found.total });
  },
);

function monthOf(month: LocalMonth, zone: string): [Instant, Instant] {
  const first = startOfDate(firstOf(month), zone);
  return [first, addLength(first, { n: 1, unit: 'month' }, zone)];
}

/** Everything that the caller may know of what is published, whatever its kind; for the site map. */
export const listAll = publicUse('list-all', nothing, async (actor) => {
  const reader = await readerOf(actor);
  const { ids } = await hiddenFrom(reader);
  return done(await listed(reader, await listPublished(pool(), reader.now, { hidden: ids })));
});

/** What everyone may know of the newest posts: for the feed, which readers share. */
export const listFeed = publicUse('list-feed', nothing, async () => {
  const reader = await readerFor(VISITOR);
  const items = await listPublished(
    pool(),
    reader.now,
    { except: [PAGE, FILE, LINK], hidden: (await hiddenFrom(reader)).ids },
    { limit: 50, offset: 0 },
  );
  return done(await listed(reader, items));
});

/** The months in which posts came out, with how many. */
export const listArchive = alikeUse('list-archive', nothing, async (actor) => {
  const reader = await readerOf(actor);
  const { ids } = await hiddenFrom(reader);
  return done(await listMonths(pool(), reader.now, { zone: reader.site.zone, type: POST, hidden: ids }));
});

/** The names that lists use: of categories in their order, with whether something is in them, and of tags. */
export const listNames = alikeUse('list-names', nothing, async (actor) => {
  const reader = await readerOf(actor);
  const [{ now }, hidden] = [reader, await hiddenFrom(reader)];
  const categories = await keptPublished(`used categories ${hidden.name}`, now, async () => {
    const used = await usedCategories(pool(), now, hidden.ids);
    return (await keptCategories()).map((category) => ({ ...category, isUsed: used.has(category.id) }));
  });
  return done({ categories, tags: await keptTags() });
});

/** A kind with its names, as lists call it. */
async function named(which: (kind: Kind) => boolean) {
  const kind = (await keptKinds()).find(which);
  if (!kind) return missing();
  return done({ id: kind.id, path: kind.path, ...kindNames(kind, await siteWords()) });
}

/** The kind whose list is at an address. */
export const kindAt = alikeUse('kind-at', z.string().max(2000), async (_, path) =>
  named((kind) => kind.path === path),
);

/** A kind by its id. */
export const kindOf = alikeUse('kind-of', z.string().max(200), async (_, id) =>
  named((kind) => kind.id === id),
);

/** How many candidates of a search are looked at, at most: enough for any list that is read to its end. */
const MOST_CANDIDATES = 1000;

const searchSchema = z.object({
  words: z.string().trim().max(200),
  page: z.number().int().min(1).max(50).default(1),
});

/**
 * What the caller may find. The title of an item is found by all, its summary by those who are shown it, its text by
 * those who are let in; sections are not searched.
 */
export const searchSite = publicUse('search-site', searchSchema, async (actor, { words, page }) => {
  if (words === '') return done({ items: [], hasMore: false });
  const reader = await readerOf(actor);
  const wanted = page * PAGE_SIZE + 1;
  const { ids: hidden } = await hiddenFrom(reader);
  const hits: ListedItem[] = [];
  for (let offset = 0; offset < MOST_CANDIDATES && hits.length < wanted; offset += 100) {
    const found = await findByWords(
      pool(),
      reader.now,
      { words, searchLanguage: searchLanguageOf(reader.site), hidden },
      { limit: 100, offset },
    );
    const known = await listed(reader, found);
    hits.push(
      ...known.filter((item, index) => {
        const where = found[index];
        return item.isOpen || where?.inTitle || (where?.inSummary && item.summary !== '');
      }),
    );
    if (found.length < 100) break;
  }
  return done({
    items: hits.slice((page - 1) * PAGE_SIZE, page * PAGE_SIZE),
    hasMore: hits.length >= wanted,
  });
});
