import { compileRules, type Covering } from '@/core/access/compile';
import type { Places, Rule } from '@/core/access/rule';
import { seriesParents } from '@/core/access/series';
import { listPlaces } from '@/content/store/places';
import { listRules, type StoredRule } from '@/access/store/rules';
import { shelved } from '@/platform/shelf';
import { pool, type Db } from '@/platform/store/db';

export type KeptRules = { rules: StoredRule[]; covering: Covering<StoredRule> };

/** All access rules, sorted by what they cover; read once for each version of the site. */
export const keptRules = (): Promise<KeptRules> =>
  shelved('rules', async () => {
    const rules = await withPlaces(pool(), await listRules(pool()));
    return { rules, covering: compileRules(rules) };
  });

/** Rules with the places of the pages of which they make a series. */
export async function withPlaces<R extends Rule>(db: Db, rules: R[]): Promise<R[]> {
  const parents = [...new Set(rules.flatMap(seriesParents))];
  if (parents.length === 0) return rules;
  const all = await listPlaces(db, parents);
  return rules.map((rule) => {
    const theirs = seriesParents(rule);
    if (theirs.length === 0) return rule;
    const places: Places = {};
    for (const { id, ...placed } of all) if (theirs.includes(placed.parent)) (places[id] ??= []).push(placed);
    return { ...rule, places };
  });
}
