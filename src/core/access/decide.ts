import type { Instant } from '../instants';
import { matches, type ItemFacts, type Meter, type PersonFacts, type Read } from './facts';
import { compareSpecificity, ruleLayer, type Specificity } from './layers';
import { chooseMeter, measure } from './meters';
import { bestOf, judgeOpener, worstOf, type Moment, type Verdict } from './openers';
import type { Rule } from './rule';

export type SiteDefault = 'everyone' | 'signed-in' | 'paying';

export type Question = {
  /** Instant of the question, UTC. */
  now: Instant;
  /** The site's IANA zone. */
  zone: string;
  /** Whom items without a rule are open to. */
  default: SiteDefault;
  rules: Rule[];
  item: ItemFacts;
  person: PersonFacts;
  reads?: Read[];
  meters?: Record<string, Meter>;
};

export type Decision = {
  state: 'open' | 'metered' | 'later' | 'ended' | 'closed';
  by: 'system' | 'staff' | 'default' | 'rule';
  /** Ids of all rules of the deciding layer, and of every also-require rule that is not itself open; sorted. */
  rules: string[];
  opensAt?: Instant;
  endedAt?: Instant;
  meter?: string;
  /** Free reads left after this one. */
  left?: number;
};

/** Whether a person may see an item now, and what decided it. The order of the rules never matters. */
export function decide(question: Question): Decision {
  const { item, person, rules } = question;
  if (item.system) return { state: 'open', by: 'system', rules: [] };
  if (person.staff !== undefined && person.readsAll) return { state: 'open', by: 'staff', rules: [] };

  const deciding = decidingLayer(rules, item);
  const base: Verdict =
    deciding.length > 0
      ? bestOf(deciding.map((rule) => judgeRule(rule, question)))
      : { state: matches({ kind: question.default }, person) ? 'open' : 'closed' };
  const required = rules
    .filter((rule) => rule.alsoRequire && ruleLayer(rule, item))
    .map((rule) => ({ id: rule.id, verdict: judgeRule(rule, question) }));
  const narrowing = required.filter(({ verdict }) => verdict.state !== 'open');

  const head = {
    by: deciding.length > 0 ? ('rule' as const) : ('default' as const),
    rules: [...new Set([...deciding.map((rule) => rule.id), ...narrowing.map(({ id }) => id)])].sort(),
  };
  if (base.state !== 'open' && narrowing.length === 0) {
    const free = freeRead(deciding, question);
    if (free) return { state: 'metered', ...head, meter: free.meter, left: free.left };
  }
  const verdict = worstOf([base, ...narrowing.map((n) => n.verdict)]);
  if (verdict.state === 'later') return { state: 'later', ...head, opensAt: verdict.at };
  if (verdict.state === 'ended') return { state: 'ended', ...head, endedAt: verdict.at };
  return { state: verdict.state, ...head };
}

export type Layered = { rule: Rule; layer: Specificity };

/** The rules that cover an item and may decide about it, the most specific first; also-require rules never do. */
export function layersOf(rules: Rule[], item: ItemFacts): Layered[] {
  const covering: Layered[] = [];
  for (const rule of rules) {
    const layer = rule.alsoRequire ? null : ruleLayer(rule, item);
    if (layer) covering.push({ rule, layer });
  }
  return covering.sort((a, b) => compareSpecificity(a.layer, b.layer));
}

/** The rules of the most specific layer that covers the item. */
function decidingLayer(rules: Rule[], item: ItemFacts): Rule[] {
  const covering = layersOf(rules, item);
  const top = covering[0];
  return top
    ? covering.filter(({ layer }) => compareSpecificity(layer, top.layer) === 0).map(({ rule }) => rule)
    : [];
}

/** What a rule says to a person by its own lines, whatever it covers. */
export function judgeRule(rule: Rule, { item, person, now, zone }: Question): Verdict {
  const moment: Moment = { now, zone };
  return bestOf(rule.openTo.map((line) => judgeOpener(line, item, person, moment)));
}

function freeRead(deciding: Rule[], { item, person, now, zone, reads = [], meters = {} }: Question) {
  const ids = new Set(deciding.map((rule) => rule.meter).filter((id) => typeof id === 'string'));
  const results = [...ids].map((id) => {
    const meter = meters[id];
    return meter ? measure(meter, item.id, person, reads, { now, zone }) : null;
  });
  return chooseMeter(results.filter((result) => result !== null));
}
