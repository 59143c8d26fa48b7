import { compileRules } from './compile';
import { decide, type Question } from './decide';
import type { ItemFacts, PersonFacts } from './facts';
import { compareSpecificity, ruleLayer } from './layers';
import { edgesOf, type Rule } from './rule';

/** Items that a change of the rules opens to a person, and that it closes to them. A free read counts as closed. */
export type Impact<Item> = { opens: Item[]; closes: Item[] };

type Asked = Omit<Question, 'item' | 'person' | 'rules' | 'meters' | 'reads'>;

/**
 * What a change of the rules opens and closes to each of some people. Only items that a changed rule may cover, before or
 * after, are looked at; those that the same rules cover in the same way are decided once.
 */
export function impactOf<Item extends ItemFacts>(
  asked: Asked,
  { before, after }: { before: Rule[]; after: Rule[] },
  items: Item[],
  people: PersonFacts[],
): Impact<Item>[] {
  const changed = changedIds(before, after);
  const [coveringBefore, coveringAfter] = [compileRules(before), compileRules(after)];
  const known = new Map<string, boolean[][]>();
  const impacts: Impact<Item>[] = people.map(() => ({ opens: [], closes: [] }));
  for (const item of items) {
    const [was, is] = [coveringBefore(item), coveringAfter(item)];
    if (![...was, ...is].some(({ id }) => changed.has(id))) continue;
    const key = JSON.stringify([layersFor(was, item), layersFor(is, item)]);
    const open =
      known.get(key) ?? [was, is].map((rules) => people.map((person) => isOpen(asked, rules, item, person)));
    known.set(key, open);
    impacts.forEach((impact, n) => {
      const [wasOpen, isNowOpen] = [open[0]?.[n], open[1]?.[n]];
      if (isNowOpen && !wasOpen) impact.opens.push(item);
      if (wasOpen && !isNowOpen) impact.closes.push(item);
    });
  }
  return impacts;
}

const isOpen = (asked: Asked, rules: Rule[], item: ItemFacts, person: PersonFacts): boolean =>
  decide({ ...asked, rules, item, person }).state === 'open';

/** By which rules an item is decided; with its own time, where one of them counts from publishing. */
function layersFor(rules: Rule[], item: ItemFacts): unknown {
  const waits = rules.flatMap(edgesOf).some((edge) => 'since' in edge && edge.since === 'published');
  return [waits ? item.publishedAt : null, rules.map((rule) => [rule.id, ruleLayer(rule, item)])];
}

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
