import { compareTiers, whatTiersOpen, type ComparisonLine, type Opened } from '@/core/access/what-opens';
import { pool } from '@/platform/store/db';
import { listCategories } from '@/content/store/categories';
import { listKinds } from '@/content/store/kinds';
import { listItems, type ItemHead } from '@/content/store/items';
import type { StoredOffer } from '@/tiers/store/offers';
import { listRules } from '@/access/store/rules';
import type { Site } from '@/platform/store/site';
import type { Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { wordsOf } from '@/words/words';
import { kindNames } from './kind-names';

/** What a tier opens, in words that anyone may read: counts by kind and the latest titles. */
export type TierOpens = {
  counts: { group: string; name: string; count: number; later: number }[];
  latest: { title: string; path: string }[];
  total: number;
};

const LATEST = 3;

/**
 * What each tier opens, computed from the rules for a person who gets it now, and the tiers side by side. The titles
 * are those that lists show to everyone; no text of an item is read.
 */
export async function tierOpens(
  site: Site,
  tiers: Tier[],
  offers: StoredOffer[],
): Promise<{ opens: Map<string, TierOpens>; comparison: (ComparisonLine & { name: string })[] }> {
  const now = siteNow(site);
  const [rules, items, categories] = [
    await listRules(pool()),
    await listItems(pool()),
    await listCategories(pool()),
  ];
  const names = new Map(categories.map(({ id, name }) => [id, name]));
  const published = items
    .filter((item) => item.publishedAt !== null && item.publishedAt <= now)
    .sort((a, b) => (b.publishedAt ?? '').localeCompare(a.publishedAt ?? ''));
  const opened = whatTiersOpen(
    { now, zone: site.zone, default: site.accessDefault, rules },
    published,
    tiers.map((tier) => ({
      tier: tier.id,
      paid: offers.some((offer) => offer.tierId === tier.id && offer.isPaid),
    })),
  );
  const t = wordsOf(site);
  const typeNames = new Map((await listKinds(pool())).map((kind) => [kind.id, kindNames(kind, t).plural]));
  const nameOf = (group: string): string => names.get(group) ?? typeNames.get(group) ?? group;
  return {
    opens: new Map([...opened].map(([tier, items]) => [tier, summarise(items, nameOf)])),
    comparison: compareTiers(opened, groupOf).map((line) => ({ ...line, name: nameOf(line.group) })),
  };
}

/** Items are listed under their first category; those in none, under their type. */
const groupOf = (item: ItemHead): string => item.ownCategories[0] ?? item.type;

function summarise({ now, later }: Opened<ItemHead>, nameOf: (group: string) => string): TierOpens {
  const groups = new Map<string, { count: number; later: number }>();
  for (const item of now) {
    const line = groups.get(groupOf(item)) ?? { count: 0, later: 0 };
    groups.set(groupOf(item), { ...line, count: line.count + 1 });
  }
  for (const item of later) {
    const line = groups.get(groupOf(item)) ?? { count: 0, later: 0 };
    groups.set(groupOf(item), { ...line, later: line.later + 1 });
  }
  return {
    counts: [...groups]
      .map(([group, line]) => ({ group, name: nameOf(group), ...line }))
      .sort((a, b) => b.count + b.later - (a.count + a.later) || a.name.localeCompare(b.name)),
    latest: now.slice(0, LATEST).map(({ title, path }) => ({ title, path })),
    total: now.length + later.length,
  };
}
