import type { ItemFacts } from './facts';
import { normalisePath, readPattern } from './paths';
import type { Cover, Rule } from './rule';

/** The rules that may cover an item, in the order in which they were given. Whether one does, exceptions and all, is decided with it. */
export type Covering<R extends Rule> = (item: ItemFacts) => R[];

/**
 * Sorts rules by what they cover, once, so that an item is compared with those alone that may cover it. Deciding with these
 * is the same as deciding with all; rules that are off are left out.
 */
export function compileRules<R extends Rule>(rules: R[]): Covering<R> {
  const places = new Map<string, number[]>();
  rules.forEach((rule, place) => {
    if (rule.on === false) return;
    for (const cover of rule.covers) {
      const key = keyOf(cover);
      if (key === null) continue;
      const known = places.get(key);
      if (known) known.push(place);
      else places.set(key, [place]);
    }
  });
  const find = (item: ItemFacts): R[] => {
    const found = new Set<number>();
    for (const key of keysOf(item)) for (const place of places.get(key) ?? []) found.add(place);
    return [...found].sort((a, b) => a - b).flatMap((place) => rules[place] ?? []);
  };
  // Facts are never changed: what covers them is found once.
  const known = new WeakMap<ItemFacts, R[]>();
  return (item) => {
    let covering = known.get(item);
    if (!covering) known.set(item, (covering = find(item)));
    return covering;
  };
}

/** Under which key a cover is found; null where it covers nothing, for its address is refused. */
function keyOf(cover: Cover): string | null {
  if (cover.kind === 'site') return 'site';
  if (cover.kind !== 'path') return `${cover.kind} ${cover.id}`;
  const read = readPattern(cover.pattern);
  if (read === null) return null;
  return read.kind === 'pattern' ? 'pattern' : `${read.kind} ${read.literal || '/'}`;
}

/** All keys under which a rule may cover an item. */
function keysOf({ id, type, path, ancestors, categories, tags }: ItemFacts): string[] {
  return [
    'site',
    // What a pattern with stars covers, only matching it tells.
    'pattern',
    `item ${id}`,
    `type ${type}`,
    `under ${id}`,
    ...ancestors.map((ancestor) => `under ${ancestor}`),
    ...categories.map((category) => `category ${category}`),
    ...tags.map((tag) => `tag ${tag}`),
    ...pathKeys(path),
  ];
}

function pathKeys(raw: string): string[] {
  const path = normalisePath(raw);
  if (path === null) return [];
  const keys = [`address ${path}`, 'folder /'];
  for (let at = path.length; at > 0; at = path.lastIndexOf('/', at - 1))
    keys.push(`folder ${path.slice(0, at)}`);
  return keys;
}
