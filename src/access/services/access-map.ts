import { z } from 'zod';
import { nothing, slug } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { currentSite, deskWords } from '@/platform/site';
import { keptCategories, keptKinds, keptTags } from '@/content/services/lib/kept';
import { keptTiers, keptPasses } from '@/tiers/services/lib/kept';
import { listGroups } from '@/people/store/groups';
import { isKnown, knownCategories, unknownItems } from './lib/desk-items';
import { kindNames } from './lib/kind-names';
import { namesIn } from './lib/rule-names';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { matchPath } from '@/core/access/paths';
import { findItem, listPaths } from '@/content/store/items';
import { refKey } from '@/core/access/rule';
import { listMeters } from '@/access/store/meters';
import { findRule, listRules } from '@/access/store/rules';

export type { Openers, ItemAccess } from './lib/access-map';
export type { StoredRule } from '@/access/store/rules';
export type { ItemHead } from '@/content/store/items';

/** The rules with what all that they name is called. */
export const rulebook = staffUse('look')('rulebook', nothing, async (actor) => {
  const rules = await listRules(pool());
  return done({
    rules,
    names: await namesIn(actor, rules),
    tiers: await keptTiers(),
    meters: (await listMeters(pool())).map(({ id, name }) => ({ id, name })),
  });
});

/** The address of an item on the site. */
export const addressOfItem = staffUse('look')('address-of-item', slug, async (actor, id) => {
  const item = await findItem(pool(), id);
  return item && (await isKnown(actor, item)) ? done(item.path) : missing();
});

const editorSchema = z.object({
  /** Of a rule, or "new". */
  id: slug,
  /** For a new one: the item that it covers, and the rule that it begins as a copy of; '' for none. */
  item: z.string().max(200).default(''),
  copy: z.string().max(200).default(''),
});

/** A rule with all that its editor shows; "new" for one that is about to be made. */
export const ruleEditor = staffUse('set access')(
  'rule-editor',
  editorSchema,
  async (actor, { id, item, copy }) => {
    const rule = id === 'new' ? null : await findRule(pool(), id);
    if (rule === undefined) return missing();
    const [named, copied] = [
      item ? await findItem(pool(), item) : undefined,
      copy ? await findRule(pool(), copy) : undefined,
    ];
    if (named && !(await isKnown(actor, named))) return missing();
    const shown = [rule, copied].flatMap((one) => one ?? []);
    const t = await deskWords();
    return done({
      rule,
      named: named && { id: named.id, title: named.title },
      copied,
      categories: await knownCategories(actor, await keptCategories()),
      tags: await keptTags(),
      kinds: (await keptKinds()).map((kind) => ({ id: kind.id, name: kindNames(kind, t).plural })),
      tiers: await keptTiers(),
      groups: await listGroups(pool()),
      passes: (await keptPasses()).map(({ id: pass, name }) => ({ id: pass, name })),
      names: {
        ...(await namesIn(actor, shown)),
        ...(named && { [refKey({ kind: 'item', id: named.id })]: named.title }),
      },
      siteDoorstep: (await currentSite()).doorstep,
      meters: (await listMeters(pool())).map(({ id: meter, name }) => ({ id: meter, name })),
    });
  },
);

const SHOWN = 3;

/** How many items have an address that a pattern covers, and a few of them; for trying it out. */
export const matchingItems = staffUse('look')(
  'matching-items',
  z.string().max(500),
  async (actor, pattern) => {
    const found = (await listPaths(pool(), await unknownItems(actor))).filter(
      (path) => matchPath(pattern, path) !== null,
    );
    return done({ count: found.length, some: found.slice(0, SHOWN) });
  },
);
