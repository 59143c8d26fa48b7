import { isBefore } from '../instants';
import { decide, type Question } from './decide';
import { VISITOR, type ItemFacts, type PersonFacts } from './facts';
import type { TierCandidate } from './would-open';

/**
 * What holding a tier opens that is not open to a signed-in person without one: at once, and after a wait that is
 * shorter than theirs, where they have one.
 */
export type Opened<Item> = { now: Item[]; later: Item[] };

/**
 * What each of the given tiers opens, computed from the rules as for a new holder at `now`. Items stay in the order
 * in which they are given.
 */
export function whatTiersOpen<Item extends ItemFacts>(
  question: Omit<Question, 'item' | 'person' | 'meters'>,
  items: Item[],
  tiers: TierCandidate[],
): Map<string, Opened<Item>> {
  const without: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: question.now };
  const opened = new Map<string, Opened<Item>>(tiers.map(({ tier }) => [tier, { now: [], later: [] }]));
  for (const item of items) {
    // What is open to everyone signed in is no reason to hold a tier.
    const anyway = decide({ ...question, item, person: without });
    if (anyway.state === 'open') continue;
    for (const { tier, paid } of tiers) {
      const person = { ...without, tiers: [{ tier, paid, since: question.now }] };
      const { state, opensAt } = decide({ ...question, item, person });
      const isSooner = !anyway.opensAt || (opensAt !== undefined && isBefore(opensAt, anyway.opensAt));
      if (state === 'open') opened.get(tier)?.now.push(item);
      if (state === 'later' && isSooner) opened.get(tier)?.later.push(item);
    }
  }
  return opened;
}

/** One line of the comparison of tiers: how many of a group's closed items each opens. */
export type ComparisonLine = {
  /** A category's id, or the type of items in none. */
  group: string;
  total: number;
  cells: { tier: string; now: number; later: number }[];
};

/** What the tiers open, side by side: a line for each category that holds something closed, the fullest first. */
export function compareTiers<Item extends ItemFacts>(
  opened: Map<string, Opened<Item>>,
  groupOf: (item: Item) => string,
): ComparisonLine[] {
  const totals = new Map<string, Set<string>>();
  const count = (items: Item[], group: string): number =>
    items.filter((item) => groupOf(item) === group).length;
  for (const { now, later } of opened.values()) {
    for (const item of [...now, ...later]) {
      const group = totals.get(groupOf(item)) ?? new Set();
      totals.set(groupOf(item), group.add(item.id));
    }
  }
  return [...totals]
    .map(([group, ids]) => ({
      group,
      total: ids.size,
      cells: [...opened].map(([tier, { now, later }]) => ({
        tier,
        now: count(now, group),
        later: count(later, group),
      })),
    }))
    .sort((a, b) => b.total - a.total || a.group.localeCompare(b.group));
}
