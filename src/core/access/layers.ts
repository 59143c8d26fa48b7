import type { ItemFacts } from './facts';
import { matchPath } from './paths';
import type { Cover, Rule } from './rule';

/**
 * How specific a cover is for an item, most specific first: item, nearest parent, longest literal path,
 * category and tag, type, site. Two covers with equal numbers are in one layer.
 */
export type Specificity = [rank: number, within: number];

export const LAYERS = ['item', 'parent', 'path', 'category', 'type', 'site'] as const;

export function compareSpecificity(a: Specificity, b: Specificity): number {
  return a[0] - b[0] || a[1] - b[1];
}

/** Null where the cover does not cover the item. */
export function specificity(cover: Cover, item: ItemFacts): Specificity | null {
  switch (cover.kind) {
    case 'item':
      return cover.id === item.id ? [0, 0] : null;
    case 'under': {
      const distance = [item.id, ...item.ancestors].indexOf(cover.id);
      return distance === -1 ? null : [1, distance];
    }
    case 'path': {
      const length = matchPath(cover.pattern, item.path);
      return length === null ? null : [2, -length];
    }
    case 'category':
      return item.categories.includes(cover.id) ? [3, 0] : null;
    case 'tag':
      return item.tags.includes(cover.id) ? [3, 0] : null;
    case 'type':
      return cover.id === item.type ? [4, 0] : null;
    case 'site':
      return [5, 0];
  }
}

/** The layer of a rule for an item: that of its most specific cover. Null: off, elsewhere, or excepted. */
export function ruleLayer(rule: Rule, item: ItemFacts): Specificity | null {
  return rule.on === false || isExcepted(rule, item) ? null : coverLayer(rule, item);
}

export const isExcepted = (rule: Rule, item: ItemFacts): boolean =>
  rule.except?.some((cover) => specificity(cover, item) !== null) ?? false;

/** The layer of a rule's most specific cover, exceptions left aside. */
export function coverLayer(rule: Rule, item: ItemFacts): Specificity | null {
  return rule.covers
    .map((cover) => specificity(cover, item))
    .filter((found) => found !== null)
    .reduce<Specificity | null>(
      (best, next) => (best && compareSpecificity(best, next) <= 0 ? best : next),
      null,
    );
}
