import { compileRules } from './compile';
import { decide, type Question } from './decide';
import type { ItemFacts, PersonFacts } from './facts';
import { compareSpecificity, ruleLayer } from './layers';
import { bucketOf, turningPoints } from './rights';
import type { Rule } from './rule';
import { coverageKey } from './series';

/** Items that a change of the rules opens to a person, and that it closes to them. A free read counts as closed. */
export type Impact<Item> = { opens: Item[]; closes: Item[] };

type Asked = Omit<Question, 'item' | 'person' | 'rules' | 'meters' | 'reads'>;

/** Items that the same rules cover in the same way, before and after: they are decided alike. */
type Alike<Item> = { items: Item[]; first: Item; was: Rule[]; is: Rule[] };

/** The items that a changed rule may cover, before or after, put together where they are decided alike. */
function alike<Item extends ItemFacts>(
  { now, zone }: Asked,
  { before, after }: { before: Rule[]; after: Rule[] },
  items: Item[],
): Alike<Item>[] {
  const changed = changedIds(before, after);
  const [coveringBefore, coveringAfter] = [compileRules(before), compileRules(after)];
  const points = turningPoints([...before, ...after], ['published'], now, zone);
  const known = new Map<string, Alike<Item>>();
  for (const item of items) {
    const [was, is] = [coveringBefore(item), coveringAfter(item)];
    if (![...was, ...is].some(({ id }) => changed.has(id))) continue;
    const published = item.publishedAt ? bucketOf(item.publishedAt, points) : '';
    const key = `${coverageKey(was, item)} ${coverageKey(is, item)} ${published}`;
    const kind = known.get(key);
    if (kind) kind.items.push(item);
    else known.set(key, { items: [item], first: item, was, is });
  }
  return [...known.values()];
}

/** What a change of the rules opens and closes to each of some people. */
export function impactOf<Item extends ItemFacts>(
  asked: Asked,
  rules: { before: Rule[]; after: Rule[] },
  items: Item[],
  people: PersonFacts[],
): Impact<Item>[] {
  const impacts: Impact<Item>[] = people.map(() => ({ opens: [], closes: [] }));
  eachChange(asked, rules, items, people, (n, which, some) => {
    for (const item of some) impacts[n]?.[which].push(item);
  });
  return impacts;
}

/** How many items a change of the rules opens to someone, and closes to them. */
export type Count = { opens: number; closes: number };

/**
 * The same, counted: for a great many people, or one of each kind of people who are decided alike. It takes time by the kinds
 * of items and of people, and not by how many there are of each.
 */
export function countImpact(
  asked: Asked,
  rules: { before: Rule[]; after: Rule[] },
  items: ItemFacts[],
  people: PersonFacts[],
): Count[] {
  const counts = people.map(() => ({ opens: 0, closes: 0 }));
  eachChange(asked, rules, items, people, (n, which, some) => {
    const count = counts[n];
    if (count) count[which] += some.length;
  });
  return counts;
}

/** Tells of each person, and of items that are decided alike, where that is another decision afterwards. */
function eachChange<Item extends ItemFacts>(
  asked: Asked,
  rules: { before: Rule[]; after: Rule[] },
  items: Item[],
  people: PersonFacts[],
  tell: (person: number, which: 'opens' | 'closes', items: Item[]) => void,
): void {
  for (const { items: some, first, was, is } of alike(asked, rules, items))
    people.forEach((person, n) => {
      const [wasOpen, isNowOpen] = [was, is].map((each) => isOpen(asked, each, first, person));
      if (wasOpen !== isNowOpen) tell(n, isNowOpen ? 'opens' : 'closes', some);
    });
}

const isOpen = (asked: Asked, rules: Rule[], item: ItemFacts, person: PersonFacts): boolean =>
  decide({ now: asked.now, zone: asked.zone, default: asked.default, rules, item, person }).state === 'open';

function changedIds(before: Rule[], after: Rule[]): Set<string> {
  const [was, is] = [before, after].map(
    (rules) => new Map(rules.map((rule) => [rule.id, JSON.stringify(rule)])),
  );
  const ids = new Set([...(was?.keys() ?? []), ...(is?.keys() ?? [])]);
  return new Set([...ids].filter((id) => was?.get(id) !== is?.get(id)));
}

/** How one rule meets another: in how many items both decide, in how many one of them decides and the other is not looked at. */
export type Meeting = { rule: string; together: number; decides: number; gives: number };

/** The other rules that cover some of what a rule covers. Rules that must be open as well meet none: they narrow, whatever decides. */
export function meetingsOf(rule: Rule, others: Rule[], items: ItemFacts[]): Meeting[] {
  if (rule.alsoRequire) return [];
  const covering = compileRules(others.filter(({ id, alsoRequire }) => id !== rule.id && !alsoRequire));
  const mine = compileRules([rule]);
  const meetings = new Map<string, Meeting>();
  for (const item of items) {
    const layer = mine(item).length > 0 ? ruleLayer(rule, item) : null;
    if (!layer) continue;
    for (const other of covering(item)) {
      const theirs = ruleLayer(other, item);
      if (!theirs) continue;
      const meeting = meetings.get(other.id) ?? { rule: other.id, together: 0, decides: 0, gives: 0 };
      meetings.set(other.id, meeting);
      const order = compareSpecificity(layer, theirs);
      if (order === 0) meeting.together++;
      else if (order < 0) meeting.decides++;
      else meeting.gives++;
    }
  }
  return [...meetings.values()];
}
