import { cacheOn } from '../cache-on';
import type { Instant } from '../instants';
import {
  decide,
  judgeRule,
  layersOf,
  plainPlanOf,
  type Decision,
  type Plan,
  type Question,
  type SiteDefault,
} from './decide';
import { keysOf, matches } from './facts';
import { compareSpecificity, coverLayer, isExcepted, ruleLayer, type Specificity } from './layers';
import { edgeInstant, judgeOpener, opensInstant, type Verdict } from './openers';
import type { Opener, Rule } from './rule';

/** What one line of a rule says to the person, and from when and until when it is open to them. */
export type LineReason = {
  line: Opener;
  /** Whether the line speaks of this person at all. */
  isTheirs: boolean;
  state: Verdict['state'];
  opensAt?: Instant;
  closesAt?: Instant;
  /** The line counts from something that the person never had, so it is closed. */
  countsFromNothing: boolean;
};
export type RuleReason = { rule: string; layer: Specificity; verdict: Verdict; lines: LineReason[] };

/** All that led to a decision. */
export type Explanation = {
  decision: Decision;
  /** The rules that decide: those of the most specific layer. */
  deciding: RuleReason[];
  /** Rules that cover the item too, but less specifically, so they are not looked at; the most specific first. */
  notReached: { rule: string; layer: Specificity }[];
  /** Rules that would cover the item if they did not except it. */
  excepted: string[];
  /** Every rule that must be open as well, with what it says. */
  required: RuleReason[];
  /** Whom the site is open to, where no rule decides. */
  default: SiteDefault | null;
};

/** Explanations of a plan, by which of its names are the person's: one bit for each. */
const EXPLAINED = Symbol('explained');
type ExplainedPlan = Plan & { [EXPLAINED]?: Explanation[] };
const MOST_NAMES = 10;

/**
 * Why a person may see an item, or not: the same decision as `decide` makes, with what led to it. Where names alone decide, it is
 * the same for everyone who has the same of these names, and is worked out once for them: it is not to be changed.
 */
export function explain(question: Question): Explanation {
  const plan: ExplainedPlan | null = plainPlanOf(question);
  if (!plan?.plain || plan.plain.length > MOST_NAMES) return explainAnew(question);
  const keys = keysOf(question.person);
  let named = 0;
  for (const name of plan.plain) named = named * 2 + (keys.has(name) ? 1 : 0);
  const explained = plan[EXPLAINED] ?? cacheOn<Explanation[]>(plan, EXPLAINED, []);
  return (explained[named] ??= explainAnew(question));
}

function explainAnew(question: Question): Explanation {
  const { rules, item } = question;
  const decision = decide(question);
  const layered = layersOf(rules, item);
  const top = layered[0];
  const isTop = ({ layer }: { layer: Specificity }): boolean =>
    top !== undefined && compareSpecificity(layer, top.layer) === 0;
  const isOn = (rule: Rule): boolean => rule.on !== false;
  const isByRules = decision.by === 'rule' || decision.by === 'default';
  return {
    decision,
    deciding: isByRules
      ? layered.filter(isTop).map(({ rule, layer }) => reasonOf(rule, layer, question))
      : [],
    notReached: layered
      .filter((one) => !isByRules || !isTop(one))
      .map(({ rule, layer }) => ({ rule: rule.id, layer })),
    excepted: rules
      .filter((rule) => isOn(rule) && isExcepted(rule, item) && coverLayer(rule, item) !== null)
      .map(({ id }) => id),
    required: isByRules
      ? rules.flatMap((rule) => {
          const layer = rule.alsoRequire ? ruleLayer(rule, item) : null;
          return layer ? [reasonOf(rule, layer, question)] : [];
        })
      : [],
    default: decision.by === 'default' ? question.default : null,
  };
}

function reasonOf(rule: Rule, layer: Specificity, question: Question): RuleReason {
  return {
    rule: rule.id,
    layer,
    verdict: judgeRule(rule, question),
    lines: rule.openTo.map((line) => lineReason(line, question, rule)),
  };
}

function lineReason(line: Opener, { item, person, now, zone }: Question, rule: Rule): LineReason {
  const isTheirs = matches(line.who, person);
  const opensAt = isTheirs ? opensInstant(line, item, person, zone, rule) : undefined;
  const closesAt =
    isTheirs && line.closes ? edgeInstant(line.closes, line.who, item, person, zone) : undefined;
  return {
    line,
    isTheirs,
    state: judgeOpener(line, item, person, { now, zone }, rule).state,
    countsFromNothing: opensAt === null || closesAt === null,
    ...(opensAt && { opensAt }),
    ...(closesAt && { closesAt }),
  };
}
