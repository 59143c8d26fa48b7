import 'server-only';
import type { AccessMap } from '@/access/services/access-map';
import type { Names } from '@/access/ui/rule-words';

export function ruleNames(map: AccessMap): Names {
  return {
    items: new Map(map.rows.map(({ item }) => [item.id, item.title])),
    categories: new Map(map.categories.map((category) => [category.id, category.name])),
    tiers: new Map(map.tiers.map((tier) => [tier.id, tier.name])),
  };
}
