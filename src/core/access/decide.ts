import { cacheOn } from '../cache-on';
import { isShut } from '../staff';
import type { Instant } from '../instants';
import {
  bitOf,
  bitsOf,
  keysOf,
  matches,
  nameKey,
  type ItemFacts,
  type Meter,
  type PersonFacts,
  type Read,
} from './facts';
import { compareSpecificity, ruleLayer, type Specificity } from './layers';
import { chooseMeter, measure } from './meters';
import { bestOf, judgeOpener, worstOf, type Moment, type Verdict } from './openers';
import type { Opener, Rule } from './rule';

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
  const without = withoutRules(question);
  if (without) return without;
  const plan = planOf(question.rules, question.item);
  if (plan.bits !== 0) return (bitsOf(question.person) & plan.bits) === 0 ? plan.closed : plan.open;
  return decideByPlan(plan, question);
}

/** What is open whatever the rules say: pages of the site itself, and everything to staff who read everything. */
function withoutRules({ item, person }: Question): Decision | null {
  if (item.system) return { state: 'open', by: 'system', rules: [] };
  const readsIt = person.staff !== undefined && person.readsAll && !isShut(person.shutFrom ?? [], item);
  return readsIt ? { state: 'open', by: 'staff', rules: [] } : null;
}

/** The plan of a question that is decided by names alone which all have bits; null where anything else has a say. */
export function plainPlanOf(question: Question): Plan | null {
  if (withoutRules(question)) return null;
  const plan = planOf(question.rules, question.item);
  return plan.bits === 0 ? null : plan;
}

/** By a plan in which dates, waits, meters or rules that must be open as well have a say. */
function decideByPlan(plan: Plan, question: Question): Decision {
  const { person } = question;
  const { deciding, required, by } = plan;
  const base: Verdict =
    by === 'rule'
      ? judgeLines(plan.lines, question)
      : { state: matches({ kind: question.default }, person) ? 'open' : 'closed' };
  const narrowing = required.length > 0 ? narrowed(required, question) : NONE;
  if (narrowing.length === 0) {
    if (base.state === 'open') return plan.open;
    if (base.state === 'closed' && !plan.isMetered) return plan.closed;
    const free = plan.isMetered ? freeRead(deciding, question) : undefined;
    if (free) return { state: 'metered', by, rules: plan.ids, meter: free.meter, left: free.left };
  }
  const rules =
    narrowing.length === 0 ? plan.ids : sortedIds([...plan.ids, ...narrowing.map(({ id }) => id)]);
  const verdict = narrowing.length === 0 ? base : worstOf([base, ...narrowing.map((n) => n.verdict)]);
  if (verdict.state === 'later') return { state: 'later', by, rules, opensAt: verdict.at };
  if (verdict.state === 'ended') return { state: 'ended', by, rules, endedAt: verdict.at };
  return { state: verdict.state, by, rules };
}

/**
 * What is asked of one person, without what meters have counted. Written out, because it is asked a great many times: a copy
 * that begins with a spread takes the engine some 4 µs, more than the decision does.
 */
export const asOf = (
  { now, zone, default: siteDefault, rules, item }: Omit<Question, 'person'>,
  person: PersonFacts,
): Question => ({ now, zone, default: siteDefault, rules, item, person });

const NONE: { id: string; verdict: Verdict }[] = [];

/** The rules that must be open as well, and are not. */
const narrowed = (required: Rule[], question: Question): { id: string; verdict: Verdict }[] =>
  required
    .map((rule) => ({ id: rule.id, verdict: judgeRule(rule, question) }))
    .filter(({ verdict }) => verdict.state !== 'open');

/** The rules that decide about an item, independent of the reader and the time. */
export type Plan = {
  item: ItemFacts;
  by: 'rule' | 'default';
  deciding: Rule[];
  /** The bits of those whom they open it to, where that is all that counts: nothing waits or ends, is read for free, or must be open as well; 0 where it is not, or where one of them has no bit. */
  bits: number;
  /** Those of all that decide, each with the key of whom it names. */
  lines: { key: string; line: Opener; rule: Rule }[];
  isMetered: boolean;
  /** What is decided where it is open, and where it is closed for good. */
  open: Decision;
  closed: Decision;
  required: Rule[];
  ids: string[];
};

/** Rules and items are immutable, so each list of rules caches its plan for the last item it was asked about. */
const PLAN = Symbol('plan');
type Planned = Rule[] & { [PLAN]?: Plan };

function planOf(rules: Planned, item: ItemFacts): Plan {
  const known = rules[PLAN];
  if (known?.item === item) return known;
  const deciding = decidingLayer(rules, item);
  const by = deciding.length > 0 ? 'rule' : 'default';
  const ids = sortedIds(deciding.map(({ id }) => id));
  const lines = deciding.flatMap((rule) =>
    rule.openTo.map((line) => ({ key: nameKey(line.who), line, rule })),
  );
  const isMetered = deciding.some(({ meter }) => typeof meter === 'string');
  const required = rules.filter((rule) => rule.alsoRequire && ruleLayer(rule, item));
  const isPlain =
    by === 'rule' &&
    !isMetered &&
    required.length === 0 &&
    lines.every(({ line, rule }) => !line.opens && !line.closes && !rule.each);
  const plan: Plan = {
    item,
    by,
    deciding,
    bits: isPlain ? bitsOfAll(lines.map(({ key }) => bitOf(key))) : 0,
    lines,
    isMetered,
    required,
    ids,
    open: { state: 'open', by, rules: ids },
    closed: { state: 'closed', by, rules: ids },
  };
  return cacheOn(rules, PLAN, plan);
}

const bitsOfAll = (bits: number[]): number =>
  bits.includes(0) ? 0 : bits.reduce((all, bit) => all | bit, 0);

const sortedIds = (ids: string[]): string[] => [...new Set(ids)].sort();

/** The best of all lines that name the person. */
function judgeLines(lines: Plan['lines'], question: Question): Verdict {
  const keys = keysOf(question.person);
  let later: Verdict[] | null = null;
  for (const { key, line, rule } of lines) {
    if (!keys.has(key)) continue;
    if (!line.opens && !line.closes && !rule.each) return OPEN;
    (later ??= []).push(judgeOpener(line, question.item, question.person, question, rule));
  }
  return later ? bestOf(later) : CLOSED;
}

const OPEN: Verdict = { state: 'open' };
const CLOSED: Verdict = { state: 'closed' };

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
  return bestOf(rule.openTo.map((line) => judgeOpener(line, item, person, moment, rule)));
}

function freeRead(deciding: Rule[], { item, person, now, zone, reads = [], meters = {} }: Question) {
  const ids = new Set(deciding.map((rule) => rule.meter).filter((id) => typeof id === 'string'));
  const results = [...ids].map((id) => {
    const meter = meters[id];
    return meter ? measure(meter, item.id, person, reads, { now, zone }) : null;
  });
  return chooseMeter(results.filter((result) => result !== null));
}
