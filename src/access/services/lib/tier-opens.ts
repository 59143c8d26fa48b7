import { setImmediate } from 'node:timers/promises';
import type { ItemFacts } from '@/core/access/facts';
import type { TierCandidate } from '@/core/access/would-open';
import type { Instant } from '@/core/instants';
import {
  compareTiers,
  coveredBy,
  movesWithTime,
  OTHERS,
  whatTiersOpen,
  type ComparisonLine,
  type Covered,
  type Opened,
} from '@/core/access/what-opens';
import { pool } from '@/platform/store/db';
import { listPublished } from '@/content/store/item-lists';
import type { ItemHead } from '@/content/store/items';
import type { StoredOffer } from '@/tiers/store/offers';
import type { Site } from '@/platform/store/site';
import type { Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { wordsOf } from '@/words/words';
import { kindNames } from './kind-names';
import { isHideable } from './hidden';
import { keptRules } from './kept-rules';
import { keptCategories, keptKinds, keptPublished } from '@/content/services/lib/kept';

/** What a tier opens, in words that anyone may read: counts by kind and the latest titles. */
export type TierOpens = {
  counts: { group: string; name: string; count: number; later: number }[];
  latest: { title: string; path: string }[];
  total: number;
};

const LATEST = 3;
/** Groups that have a line of their own: more would not be read. */
const MOST_GROUPS = 16;

type AllOpens = { opens: Map<string, TierOpens>; comparison: (ComparisonLine & { name: string })[] };

/** How many items are looked at before others get their turn. */
const AT_ONCE = 2000;

/**
 * What each tier opens, computed from the rules for a person who gets it now, and the tiers side by side. The titles
 * are those that lists show to everyone; no text of an item is read. Computed once for each version of the site; again
 * with each minute where a rule moves with the clock.
 */
export async function tierOpens(site: Site, tiers: Tier[], offers: StoredOffer[]): Promise<AllOpens> {
  const now = siteNow(site);
  const candidates = tiers.map((tier) => ({
    tier: tier.id,
    paid: offers.some((offer) => offer.tierId === tier.id && offer.isPaid),
  }));
  const { rules } = await keptRules();
  const minute = movesWithTime(rules) ? now.slice(0, 16) : '';
  return keptPublished(`what tiers open ${minute} ${JSON.stringify(candidates)}`, now, () =>
    compute(site, now, candidates),
  );
}

/** The published items with what covers them, as little of each as is needed; they may be many. */
const keptCovered = (now: Instant): Promise<Covered<Listed>[]> =>
  keptPublished('covered items', now, async () => {
    const { covering } = await keptRules();
    const all: Covered<Listed>[] = [];
    // Everyone reads these titles, so there are none of what some are not to know of.
    const items = (await listPublished(pool(), now))
      .map(listed)
      .filter((item) => !isHideable(covering, item));
    for (let from = 0; from < items.length; from += AT_ONCE) {
      all.push(...coveredBy(covering, items.slice(from, from + AT_ONCE)));
      await setImmediate();
    }
    return all;
  });

type Listed = ItemFacts & { title: string; group: string };
/** Items are listed under their first category; those in none, under their type. */
const listed = (head: ItemHead): Listed => {
  const { id, type, path, ancestors, categories, tags, publishedAt, title, system } = head;
  return {
    id,
    type,
    path,
    ancestors,
    categories,
    tags,
    publishedAt,
    system,
    title,
    group: head.ownCategories[0] ?? type,
  };
};

async function compute(site: Site, now: Instant, tiers: TierCandidate[]): Promise<AllOpens> {
  const [covered, categories] = [await keptCovered(now), await keptCategories()];
  const names = new Map(categories.map(({ id, name }) => [id, name]));
  const opened = whatTiersOpen({ now, zone: site.zone, default: site.accessDefault }, covered, tiers);
  const t = wordsOf(site);
  const typeNames = new Map((await keptKinds()).map((kind) => [kind.id, kindNames(kind, t).plural]));
  const nameOf = (group: string): string =>
    names.get(group) ?? typeNames.get(group) ?? (group === OTHERS ? t('join.other-groups') : group);
  return {
    opens: new Map(tiers.map(({ tier }) => [tier, summarise(tier, opened.get(tier) ?? NOTHING, nameOf)])),
    comparison: compareTiers(opened, groupOf, MOST_GROUPS).map((line) => ({
      ...line,
      name: nameOf(line.group),
    })),
  };
}

const NOTHING = { now: [], later: [] };

const groupOf = ({ group }: Listed): string => group;

/** A tier's line of each group, the fullest first. */
function summarise(tier: string, items: Opened<Listed>, nameOf: (group: string) => string): TierOpens {
  const lines = compareTiers(new Map([[tier, items]]), groupOf, MOST_GROUPS);
  return {
    counts: lines.flatMap(({ group, cells }) =>
      cells.map(({ now, later }) => ({ group, name: nameOf(group), count: now, later })),
    ),
    latest: items.now.slice(0, LATEST).map(({ title, path }) => ({ title, path })),
    total: items.now.length + items.later.length,
  };
}
