import { z } from 'zod';
import { decide, type Decision } from '@/core/access/decide';
import { compileRules } from '@/core/access/compile';
import { refKey, type Cover, type Rule } from '@/core/access/rule';
import type { ItemFacts } from '@/core/access/facts';
import { FILE, LINK, PAGE } from '@/core/content/item';
import type { Instant } from '@/core/instants';
import { countGroups, listGroup, type Group, type GroupCount, type Sought } from '@/content/store/item-lists';
import { findParents, listHeads, type ItemHead } from '@/content/store/items';
import { keptCategories, keptKinds, keptPublished } from '@/content/services/lib/kept';
import type { Category } from '@/content/store/categories';
import { deskWords } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { desk } from '@/words/desk';
import { kindNames } from './kind-names';
import { judge, questionOf, type Judged, type Reader } from './reader';
import type { SeenFrom } from './viewpoints';

/** What is decided in one cell. `isOwn`: by a rule for this row itself. */
export type Cell = {
  state: Decision['state'];
  left?: number;
  opensAt?: Instant;
  endedAt?: Instant;
  isOwn: boolean;
};
/** A row of the map; `target` is what a rule for it covers. */
export type MapRow = { key: string; id: string; title: string; depth: number; target: Cover; cells: Cell[] };
/** A row for all that is in it; `count` of published items. */
export type MapGroup = MapRow & { group: Group; count: number };

/** A group as it is asked for: "category:guides" or "type:page". */
export const groupSchema = z
  .string()
  .max(220)
  .regex(/^(category|type):./)
  .transform((text): Group => {
    const [kind, id] = [text.slice(0, text.indexOf(':')), text.slice(text.indexOf(':') + 1)];
    return kind === 'category' ? { category: id } : { type: id };
  });

/** What a category and a kind have of their own, for an item that comes out in them now and of which nothing else is said. */
export function factsOfGroup(group: Group, categories: Category[], now: Instant): ItemFacts {
  const nothing = { id: '', path: '/', ancestors: [], tags: [], publishedAt: now };
  if ('type' in group) return { ...nothing, type: group.type, categories: [] };
  const up: string[] = [];
  for (let at: string | null = group.category; at !== null && !up.includes(at);) {
    up.push(at);
    at = categories.find(({ id }) => id === at)?.parentId ?? null;
  }
  return { ...nothing, type: 'post', categories: up };
}

const targetOfGroup = (group: Group): Cover =>
  'category' in group ? { kind: 'category', id: group.category } : { kind: 'type', id: group.type };

/** A page with others below it is set with those. */
const targetOf = (item: ItemHead, parents: Set<string>): Cover => ({
  kind: parents.has(item.id) ? 'under' : 'item',
  id: item.id,
});

const cellOf = (decision: Decision, rules: Rule[], target: Cover): Cell => ({
  state: decision.state,
  ...(decision.left !== undefined && { left: decision.left }),
  ...(decision.opensAt && { opensAt: decision.opensAt }),
  ...(decision.endedAt && { endedAt: decision.endedAt }),
  isOwn: rules.some(
    (rule) =>
      decision.rules.includes(rule.id) && rule.covers.some((cover) => refKey(cover) === refKey(target)),
  ),
});

/** The reader who would see the site by other rules. */
export const byRules = (reader: Reader, rules: Rule[]): Reader => {
  const stored = rules.map((rule) => ({
    ...rule,
    name: rule.name ?? rule.id,
    on: rule.on !== false,
    doorstep: null,
    version: 0,
  }));
  return { ...reader, rules: stored, covering: compileRules(stored) };
};

/** How many items each group has; of all of them kept, for that is what the map is opened with. */
const countsOf = (now: Instant, sought: Sought): Promise<GroupCount[]> =>
  sought.search === '' && sought.without.length === 0
    ? keptPublished('groups of the map', now, () => countGroups(pool(), now, sought))
    : countGroups(pool(), now, sought);

/** The groups of the map in their order, with how many items each has and what it is set to. */
export async function mapGroups(reader: Reader, viewpoints: SeenFrom[], sought: Sought): Promise<MapGroup[]> {
  const [counts, categories, kinds] = [
    await countsOf(reader.now, sought),
    await keptCategories(),
    await keptKinds(),
  ];
  const t = await deskWords();
  const countOf = (group: Group): number =>
    counts.find((one) =>
      'category' in group
        ? one.category === group.category
        : one.type === group.type && one.category === null,
    )?.count ?? 0;
  const ofKind = (type: string, hasOthers: boolean): { group: Group; title: string; depth: number } => {
    const kind = kinds.find(({ id }) => id === type);
    const name = kind ? kindNames(kind, t).plural : type;
    return {
      group: { type },
      title: hasOthers ? desk('desk-access.without-category', { kind: name }) : name,
      depth: 0,
    };
  };
  const sorted = kinds.map(({ id }) => id).filter((id) => ![PAGE, FILE, LINK].includes(id));
  const all = [
    ofKind(PAGE, false),
    ...inTree(categories).map(({ category, depth }) => ({
      group: { category: category.id },
      title: category.name,
      depth,
    })),
    ...sorted.map((type) => ofKind(type, categories.length > 0)),
    ofKind(FILE, false),
    ofKind(LINK, false),
  ];
  return all.flatMap(({ group, title, depth }) => {
    const count = countOf(group);
    if (count === 0) return [];
    const target = targetOfGroup(group);
    const facts = factsOfGroup(group, categories, reader.now);
    const cells = viewpoints.map(({ person }) => {
      const question = questionOf({ ...reader, person }, facts);
      return cellOf(decide(question), reader.rules, target);
    });
    return [{ key: refKey(target), id: '', title, depth, target, cells, group, count }];
  });
}

/** The categories, each before those below it. */
function inTree(
  categories: Category[],
  parentId: string | null = null,
  depth = 0,
): { category: Category; depth: number }[] {
  return categories
    .filter((category) => category.parentId === parentId)
    .flatMap((category) => [{ category, depth }, ...inTree(categories, category.id, depth + 1)]);
}

/** Some rows of a group, decided from each viewpoint. */
export async function mapRows(
  reader: Reader,
  viewpoints: SeenFrom[],
  asked: Sought & { group: Group; limit: number; offset: number },
): Promise<MapRow[]> {
  const items = await listGroup(pool(), reader.now, asked);
  return rowsFor(reader, viewpoints, items);
}

export async function rowsFor(reader: Reader, viewpoints: SeenFrom[], items: ItemHead[]): Promise<MapRow[]> {
  const parents = await parentsAmong(items);
  const seen: Judged[] = [];
  for (const { person } of viewpoints) seen.push(await judge({ ...reader, person }, items));
  return items.map((item) => {
    const target = targetOf(item, parents);
    return {
      key: refKey({ kind: 'item', id: item.id }),
      id: item.id,
      title: item.title,
      depth: item.ancestors.length + 1,
      target,
      cells: seen.map((decisions) => cellOf(decisions(item.id), reader.rules, target)),
    };
  });
}

async function parentsAmong(items: ItemHead[]): Promise<Set<string>> {
  const pages = items.filter(({ type }) => type === PAGE).map(({ id }) => id);
  return pages.length > 0 ? findParents(pool(), pages) : new Set();
}

/** The facts of what cells of the map stand for, by the key of their target; what is gone is left out. */
export async function factsOfTargets(targets: Cover[], now: Instant): Promise<Map<string, ItemFacts>> {
  const categories = await keptCategories();
  const ids = targets.flatMap((target) =>
    target.kind === 'item' || target.kind === 'under' ? [target.id] : [],
  );
  const heads = new Map((await listHeads(pool(), ids)).map((head) => [head.id, head]));
  const found = new Map<string, ItemFacts>();
  for (const target of targets) {
    const key = refKey(target);
    if (target.kind === 'item' || target.kind === 'under') {
      const head = heads.get(target.id);
      if (head) found.set(key, head);
    } else if (target.kind === 'category' && categories.some(({ id }) => id === target.id))
      found.set(key, factsOfGroup({ category: target.id }, categories, now));
    else if (target.kind === 'type') found.set(key, factsOfGroup({ type: target.id }, categories, now));
  }
  return found;
}
