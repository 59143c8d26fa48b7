import type { ItemFacts } from './facts';
import { normalisePath, readPattern, type PathPattern } from './paths';
import type { Cover, Rule } from './rule';

/** The rules that may cover an item, in the order in which they were given. Whether one does, exceptions and all, is decided with it. */
export type Covering<R extends Rule> = (item: ItemFacts) => R[];

/**
 * Sorts rules by what they cover, once, so that an item is compared with those alone that may cover it. Deciding with these
 * is the same as deciding with all; rules that are off are left out.
 */
export function compileRules<R extends Rule>(rules: R[]): Covering<R> {
  /** Places of rules by what they cover, for each kind of cover. */
  const index = new Map<Kind, Map<string, number[]>>();
  rules.forEach((rule, place) => {
    if (rule.on === false) return;
    for (const cover of rule.covers) {
      const key = keyOf(cover);
      if (key === null) continue;
      const [kind, id] = key;
      const places = index.get(kind) ?? new Map<string, number[]>();
      index.set(kind, places);
      const known = places.get(id);
      if (known) known.push(place);
      else places.set(id, [place]);
    }
  });
  const find = (item: ItemFacts): R[] => {
    const found: number[] = [];
    const take = (kind: Kind, id: string): void => {
      for (const place of index.get(kind)?.get(id) ?? []) found.push(place);
    };
    take('site', '');
    // What a pattern with stars covers, only matching it tells.
    take('pattern', '');
    take('item', item.id);
    take('type', item.type);
    take('under', item.id);
    for (const ancestor of item.ancestors) take('under', ancestor);
    for (const category of item.categories) take('category', category);
    for (const tag of item.tags) take('tag', tag);
    takePath(item.path, take);
    found.sort((a, b) => a - b);
    return found.flatMap((place, n) => (place === found[n - 1] ? [] : (rules[place] ?? [])));
  };
  // Facts are never changed: what covers them is found once.
  const known = new WeakMap<ItemFacts, R[]>();
  return (item) => {
    let covering = known.get(item);
    if (!covering) known.set(item, (covering = find(item)));
    return covering;
  };
}

type Kind = Exclude<Cover['kind'], 'path'> | PathPattern['kind'];

/** By what a cover is found; null where it covers nothing, for its address is refused. */
function keyOf(cover: Cover): [Kind, string] | null {
  if (cover.kind === 'site') return ['site', ''];
  if (cover.kind !== 'path') return [cover.kind, cover.id];
  const read = readPattern(cover.pattern);
  if (read === null) return null;
  return [read.kind, read.kind === 'pattern' ? '' : read.literal || '/'];
}

function takePath(raw: string, take: (kind: Kind, id: string) => void): void {
  const path = normalisePath(raw);
  if (path === null) return;
  take('address', path);
  take('folder', '/');
  for (let at = path.length; at > 0; at = path.lastIndexOf('/', at - 1)) take('folder', path.slice(0, at));
}
