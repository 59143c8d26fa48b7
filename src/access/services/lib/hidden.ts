import { createHash } from 'node:crypto';
import { compileRules, type Covering } from '@/core/access/compile';
import type { ItemFacts } from '@/core/access/facts';
import { ruleLayer } from '@/core/access/layers';
import type { StoredRule } from '@/access/store/rules';
import { listItems, type ItemHead } from '@/content/store/items';
import { oncePerRequest } from '@/platform/request';
import { shelved } from '@/platform/shelf';
import { pool } from '@/platform/store/db';
import { keptRules } from './kept-rules';
import { isLetIn, judge, type Reader } from './reader';

/** The ids of items that are shown nowhere to someone, and a short name for just these. */
export type Hidden = { ids: string[]; name: string };

const NONE: Hidden = { ids: [], name: '' };

/** Whether a rule covers an item which hides what it closes. */
export const isHideable = (covering: Covering<StoredRule>, item: ItemFacts): boolean =>
  covering(item).some((rule) => rule.listed === false && ruleLayer(rule, item) !== null);

/** The items that a rule covers which hides what it closes. */
const keptHideable = (): Promise<ItemHead[]> =>
  shelved('items that may be hidden', async () => {
    const covering = compileRules((await keptRules()).rules.filter(({ listed }) => listed === false));
    return (await listItems(pool())).filter((item) => isHideable(covering, item));
  });

/** What lists, menus, searches and feeds leave out for a reader: what is closed to them by a rule that hides it. */
export async function hiddenFrom(reader: Reader): Promise<Hidden> {
  const { rules } = reader;
  if (!rules.some(({ on, listed }) => on && listed === false)) return NONE;
  if (reader.person.readsAll && !reader.person.shutFrom?.length) return NONE;
  return oncePerRequest(`hidden from ${JSON.stringify(reader.person)}`, () => find(reader));
}

async function find(reader: Reader): Promise<Hidden> {
  const { rules } = reader;
  const items = await keptHideable();
  const decisions = await judge(reader, items);
  const hiding = new Set(rules.filter(({ listed }) => listed === false).map(({ id }) => id));
  const ids = items.flatMap(({ id }) => {
    const decision = decisions(id);
    return !isLetIn(decision) && decision.rules.some((rule) => hiding.has(rule)) ? [id] : [];
  });
  if (ids.length === 0) return NONE;
  return { ids, name: createHash('sha256').update(ids.join('\n')).digest('base64url') };
}
