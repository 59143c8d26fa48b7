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
import { bitsOf, matches, VISITOR } from './facts';
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

/** Explanations, by the bits of those of a plan's names that are the person's. */
type Explained = { bits: number[]; explanations: Explanation[] };
const EXPLAINED = Symbol('explained');
type ExplainedPlan = Plan & { [EXPLAINED]?: Explained };

/**
 * Why a person may see an item, or not: the same decision as `decide` makes, with what led to it. Where names alone decide, it is
 * the same for everyone who has the same of these names, and is worked out once for them: it is not to be changed.
 */
export function explain(question: Question): Explanation {
  const plan: ExplainedPlan | null = plainPlanOf(question);
  if (!plan) return explainAnew(question);
  const explained = plan[EXPLAINED] ?? cacheOn(plan, EXPLAINED, explainedAlike(plan, question));
  const bits = bitsOf(question.person) & plan.bits;
  for (let n = 0; n < explained.bits.length; n++)
    if (explained.bits[n] === bits) return explained.explanations[n] as Explanation;
  const explanation = explainAnew(question);
  explained.bits.push(bits);
  explained.explanations.push(explanation);
  return explanation;
}

const ALIKE = Symbol('alike');
type ExplainedRule = Rule & { [ALIKE]?: Map<string, Explained> };

/**
 * What is kept of all items that are explained alike, as most of a category are: it is little, so the processor has it at hand.
 * What is said to a visitor names every line that decides by names, so items of which the same is said to visitors are
 * explained alike to everyone.
 */
function explainedAlike({ deciding: [rule] }: Plan, question: Question): Explained {
  const first: Explained = { bits: [], explanations: [] };
  if (!rule) return first;
  const owner: ExplainedRule = rule;
  const alike = owner[ALIKE] ?? cacheOn(owner, ALIKE, new Map<string, Explained>());
  const said = JSON.stringify(explainAnew({ ...question, person: VISITOR }));
  const known = alike.get(said);
  if (!known) alike.set(said, first);
  return known ?? first;
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
