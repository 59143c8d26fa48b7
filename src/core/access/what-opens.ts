import { DAY_MS, isBefore, toMs, type Length } from '../instants';
import { asOf, decide, type Question } from './decide';
import { VISITOR, type ItemFacts, type PersonFacts } from './facts';
import type { Covering } from './compile';
import { edgesOf, type Rule } from './rule';
import { allSteps, coverageKey } from './series';
import type { TierCandidate } from './would-open';

/**
 * What holding a tier opens that is not open to a signed-in person without one: at once, and after a wait that is
 * shorter than theirs, where they have one.
 */
export type Opened<Item> = { now: Item[]; later: Item[] };

/** What covers some items: they are all decided alike, but for waits that count from publishing. */
type Coverage = { rules: Rule[]; longestWait: number | null };
export type Covered<Item> = { item: Item; by: Coverage };

/** Finds for each item what covers it, in the order in which they are given. Holds until items or rules change, whatever the time. */
export function coveredBy<Item extends ItemFacts>(covering: Covering<Rule>, items: Item[]): Covered<Item>[] {
  const known = new Map<string, Coverage>();
  return items.map((item) => {
    const rules = covering(item);
    const key = coverageKey(rules, item);
    const by = known.get(key) ?? { rules, longestWait: longestWait(rules) };
    known.set(key, by);
    return { item, by };
  });
}

/**
 * What each of the given tiers opens, computed from the rules as for a new holder at `now`. Items stay in the order
 * in which they are given.
 */
export function whatTiersOpen<Item extends ItemFacts>(
  question: Omit<Question, 'item' | 'person' | 'meters' | 'rules'>,
  covered: Covered<Item>[],
  tiers: TierCandidate[],
): Map<string, Opened<Item>> {
  const opened = new Map(tiers.map(({ tier }): [string, Opened<Item>] => [tier, { now: [], later: [] }]));
  const now = toMs(question.now);
  const answers = new Map<Coverage, Map<string, Answer>>();
  for (const { item, by } of covered) {
    const known = answers.get(by) ?? new Map<string, Answer>();
    answers.set(by, known);
    // What still waits from publishing on has an answer of its own.
    const waits =
      by.longestWait !== null && !(item.publishedAt && toMs(item.publishedAt) + by.longestWait < now);
    const key = waits ? (item.publishedAt ?? 'never') : '';
    const answer = known.get(key) ?? answerFor({ ...question, item, rules: by.rules }, tiers);
    known.set(key, answer);
    for (const tier of answer.now) opened.get(tier)?.now.push(item);
    for (const tier of answer.later) opened.get(tier)?.later.push(item);
  }
  return opened;
}

/** The tiers that open an item at once, and those that open it after a wait. */
type Answer = { now: string[]; later: string[] };

function answerFor(asked: Omit<Question, 'person'>, tiers: TierCandidate[]): Answer {
  const without: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: asked.now };
  const answer: Answer = { now: [], later: [] };
  // What is open to everyone signed in is no reason to hold a tier.
  const anyway = decide(asOf(asked, without));
  if (anyway.state === 'open') return answer;
  for (const { tier, paid } of tiers) {
    const person = { ...without, tiers: [{ tier, paid, since: asked.now }] };
    const { state, opensAt } = decide(asOf(asked, person));
    const isSooner = !anyway.opensAt || (opensAt !== undefined && isBefore(opensAt, anyway.opensAt));
    if (state === 'open') answer.now.push(tier);
    if (state === 'later' && isSooner) answer.later.push(tier);
  }
  return answer;
}

const MOST_DAYS = { hour: 1 / 24, day: 1, week: 7, month: 31, year: 366 };

/** In ms, no less than the longest wait of some rules that counts from publishing; null where none does. */
function longestWait(rules: Rule[]): number | null {
  const days = ({ n, unit }: Length, times = 1): number => n * times * MOST_DAYS[unit];
  const waits = rules.flatMap((rule) => {
    const { each } = rule;
    const inSeries = each ? Math.max(0, ...allSteps(rule).map(({ times }) => days(each, times))) : 0;
    return (
      edgesOf(rule)
        .flatMap((edge) => ('since' in edge && edge.since === 'published' ? [edge.after] : []))
        // A day more, for the hour that a change of the clocks adds.
        .map((after) => (days(after) + inSeries + 1) * DAY_MS)
    );
  });
  return waits.length > 0 ? Math.max(...waits) : null;
}

/** Whether what new holders may open changes as time passes: by a date, or by how long ago something was published. */
export const movesWithTime = (rules: Rule[]): boolean =>
  longestWait(rules) !== null || rules.flatMap(edgesOf).some((edge) => 'on' in edge);

/** One line of the comparison of tiers: how many of a group's closed items each opens. */
export type ComparisonLine = {
  /** A category's id, or the type of items in none. */
  group: string;
  total: number;
  cells: { tier: string; now: number; later: number }[];
};

/** The group of what is in none of the fullest. */
export const OTHERS = '';

/**
 * What the tiers open, side by side: a line for each group that holds something closed, the fullest first. Groups beyond
 * `most` are one line together, the last.
 */
export function compareTiers<Item extends ItemFacts>(
  opened: Map<string, Opened<Item>>,
  groupOf: (item: Item) => string,
  most = Infinity,
): ComparisonLine[] {
  const groups = new Map<string, Line>();
  for (const [place, { now, later }] of [...opened.values()].entries())
    for (const [items, when] of [
      [now, 'now'],
      [later, 'later'],
    ] as const)
      for (const item of items) {
        const group = groupOf(item);
        let line = groups.get(group);
        if (!line) groups.set(group, (line = { group, items: new Set(), cells: emptyCells(opened) }));
        line.items.add(item);
        const cell = line.cells[place];
        if (cell) cell[when]++;
      }
  const fullest = [...groups.values()].sort(
    (a, b) => b.items.size - a.items.size || a.group.localeCompare(b.group),
  );
  const named = fullest.length > most ? fullest.slice(0, most - 1) : fullest;
  const lines = named.map(({ group, items, cells }) => ({ group, total: items.size, cells }));
  const others = fullest.slice(named.length);
  if (others.length === 0) return lines;
  const together = { group: OTHERS, total: 0, cells: emptyCells(opened) };
  for (const { items, cells } of others) {
    together.total += items.size;
    for (const [place, cell] of together.cells.entries()) {
      cell.now += cells[place]?.now ?? 0;
      cell.later += cells[place]?.later ?? 0;
    }
  }
  return [...lines, together];
}

type Line = { group: string; items: Set<unknown>; cells: ComparisonLine['cells'] };

const emptyCells = (opened: Map<string, unknown>): ComparisonLine['cells'] =>
  [...opened.keys()].map((tier) => ({ tier, now: 0, later: 0 }));
