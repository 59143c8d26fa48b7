import { nothing, slug } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findItem, listItems } from '@/content/store/items';
import { findRule } from '@/access/store/rules';
import { openersOf, readAccessMap } from './lib/access-map';
import { listJoinables } from '@/tiers/services/lib/joinables';

export type { AccessMap, Openers } from './lib/access-map';
export type { ItemHead } from '@/content/store/items';

export const accessMap = staffUse('look')('access-map', nothing, async () => done(await readAccessMap()));

/** Every item with who is let in, for the list of the Content place. */
export const contentList = staffUse('look')('content-list', nothing, async () => {
  const [items, map] = [await listItems(pool()), await readAccessMap()];
  return done({
    zone: map.zone,
    categories: map.categories,
    items: items.map((item) => ({ item, openers: openersOf(map, item.id) })),
  });
});

/** An item with all that its editor shows; "new" for one that is about to be written. */
export const itemEditor = staffUse('write content')('item-editor', slug, async (_, id) => {
  const item = id === 'new' ? null : await findItem(pool(), id);
  if (item === undefined) return missing();
  const map = await readAccessMap();
  return done({
    item,
    items: await listItems(pool()),
    categories: map.categories,
    openers: item && openersOf(map, item.id),
    joinables: await listJoinables(),
    gates: {
      rules: map.rules.map(({ id: rule, name }) => ({ id: rule, name })),
      tiers: map.tiers.map(({ id: tier, name }) => ({ id: tier, name })),
    },
  });
});

/** A rule with all that its editor shows; "new" for one that is about to be made. */
export const ruleEditor = staffUse('set access')('rule-editor', slug, async (_, id) => {
  const rule = id === 'new' ? null : await findRule(pool(), id);
  if (rule === undefined) return missing();
  const { categories, tiers } = await readAccessMap();
  return done({
    rule,
    items: await listItems(pool()),
    categories,
    tiers,
    siteDoorstep: (await currentSite()).doorstep,
  });
});
