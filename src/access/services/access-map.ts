import { nothing, slug } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findItem, listItems } from '@/content/store/items';
import { findRule } from '@/access/store/rules';
import { readAccessMap } from './lib/access-map';

export type { AccessMap, Openers, ItemAccess } from './lib/access-map';
export type { ItemHead } from '@/content/store/items';

export const accessMap = staffUse('look')('access-map', nothing, async () => done(await readAccessMap()));

/** The address of an item on the site. */
export const addressOfItem = staffUse('look')('address-of-item', slug, async (_, id) => {
  const item = await findItem(pool(), id);
  return item ? done(item.path) : missing();
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
