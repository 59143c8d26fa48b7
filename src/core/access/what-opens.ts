import { isBefore } from '../instants';
import { decide, type Question } from './decide';
import { VISITOR, type ItemFacts, type PersonFacts } from './facts';
import type { Covering } from './compile';
import { ruleLayer } from './layers';
import type { Edge, Rule } from './rule';
import type { TierCandidate } from './would-open';

/**
 * What holding a tier opens that is not open to a signed-in person without one: at once, and after a wait that is
 * shorter than theirs, where they have one.
 */
export type Opened<Item> = { now: Item[]; later: Item[] };

/**
 * What each of the given tiers opens, computed from the rules as for a new holder at `now`. Items stay in the order
 * in which they are given; those of a part that was looked at before, `opened`, come first.
 */
export function whatTiersOpen<Item extends ItemFacts>(
  question: Omit<Question, 'item' | 'person' | 'meters' | 'rules'>,
  covering: Covering<Rule>,
  items: Item[],
  tiers: TierCandidate[],
  opened: Map<string, Opened<Item>> = new Map(),
): Map<string, Opened<Item>> {
  for (const { tier } of tiers) if (!opened.has(tier)) opened.set(tier, { now: [], later: [] });
  const answers = new Map<string, Answer>();
  for (const item of items) {
    const rules = covering(item);
    // Items that the same rules cover in the same way have the same answer; but what waits from publishing on has its own.
    const waits = rules.some(countsFromPublishing) ? item.publishedAt : '';
    const key = JSON.stringify([waits, rules.map((rule) => [rule.id, ruleLayer(rule, item)])]);
    const answer = answers.get(key) ?? answerFor({ ...question, item, rules }, tiers);
    answers.set(key, answer);
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
  const anyway = decide({ ...asked, person: without });
  if (anyway.state === 'open') return answer;
  for (const { tier, paid } of tiers) {
    const person = { ...without, tiers: [{ tier, paid, since: asked.now }] };
    const { state, opensAt } = decide({ ...asked, person });
    const isSooner = !anyway.opensAt || (opensAt !== undefined && isBefore(opensAt, anyway.opensAt));
    if (state === 'open') answer.now.push(tier);
    if (state === 'later' && isSooner) answer.later.push(tier);
  }
  return answer;
}

const edgesOf = ({ openTo }: Rule): Edge[] =>
  openTo.flatMap(({ opens, closes }) => [opens, closes].flatMap((e) => e ?? []));
const countsFromPublishing = (rule: Rule): boolean =>
  edgesOf(rule).some((edge) => 'since' in edge && edge.since === 'published');

/** Whether what new holders may open changes as time passes: by a date, or by how long ago something was published. */
export const movesWithTime = (rules: Rule[]): boolean =>
  rules.some((rule) => countsFromPublishing(rule) || edgesOf(rule).some((edge) => 'on' in edge));

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
  const sizes = new Map<string, Set<string>>();
  const all = [...opened].flatMap(([tier, { now, later }]) => [
    ...now.map((item) => ({ tier, item, isNow: true })),
    ...later.map((item) => ({ tier, item, isNow: false })),
  ]);
  for (const { item } of all) {
    const group = groupOf(item);
    sizes.set(group, (sizes.get(group) ?? new Set<string>()).add(item.id));
  }
  const fullest = [...sizes]
    .map(([group, ids]) => ({ group, total: ids.size }))
    .sort((a, b) => b.total - a.total || a.group.localeCompare(b.group));
  const named = fullest.length > most ? fullest.slice(0, most - 1) : fullest;
  const rest = fullest.slice(named.length).reduce((sum, { total }) => sum + total, 0);
  const lines = [...named, ...(rest > 0 ? [{ group: OTHERS, total: rest }] : [])].map((line) => ({
    ...line,
    cells: [...opened.keys()].map((tier) => ({ tier, now: 0, later: 0 })),
  }));
  const cells = new Map(
    lines.flatMap(({ group, cells: row }) => row.map((cell) => [`${group} ${cell.tier}`, cell])),
  );
  for (const { tier, item, isNow } of all) {
    const cell = cells.get(`${groupOf(item)} ${tier}`) ?? cells.get(`${OTHERS} ${tier}`);
    if (cell && isNow) cell.now++;
    else if (cell) cell.later++;
  }
  return lines;
}
