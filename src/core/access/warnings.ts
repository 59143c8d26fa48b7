import { addLength } from '../calendar';
import { isBefore, type Instant, type Length } from '../instants';
import { compileRules } from './compile';
import { decide, layersOf, type SiteDefault } from './decide';
import { VISITOR, type ItemFacts, type PersonFacts } from './facts';
import { compareSpecificity, ruleLayer } from './layers';
import type { Rule } from './rule';
import { allSteps, coverageKey } from './series';

/** What is probably not as it was meant. Items are told by their ids: how many, and the first of them. */
export type Warning =
  | { kind: 'covers-nothing'; rule: string }
  /** It covers something, but a more specific rule decides about all of it. */
  | { kind: 'never-reached'; rule: string; by: string[] }
  | { kind: 'tier-opens-nothing'; tier: string }
  | { kind: 'nobody'; items: string[]; count: number; rules: string[] }
  /** Both decide about the same, and open it to different people: whichever opens it does. */
  | { kind: 'meet'; rules: [string, string]; items: string[]; count: number }
  /** It is for a page that the site itself needs, which stays open whatever it says. */
  | { kind: 'system-page'; rule: string; items: string[] }
  /** It opens only after the tier that it waits for has ended. */
  | { kind: 'too-long'; rule: string; tier: string };

/** `longest`: how long it can be held at most without paying again; null where it runs on. */
export type WarnedTier = { id: string; paid: boolean; onSale: boolean; longest: Length | null };
type Context = { now: Instant; zone: string; default: SiteDefault; tiers: WarnedTier[]; groups: string[] };

const NAMED = 3;

/** Everything about some rules and items that an owner should look at. Takes time by how differently items are covered, not by how many there are. */
export function warningsOf(rules: Rule[], items: ItemFacts[], context: Context): Warning[] {
  const on = rules.filter((rule) => rule.on !== false);
  const kinds = kindsOf(on, items);
  return [
    ...on.flatMap((rule) => ruleWarnings(rule, kinds)),
    ...on.flatMap((rule) => waitWarnings(rule, context)),
    ...meetings(kinds),
    ...nobodys(kinds, context),
    ...tierWarnings(kinds, context),
  ];
}

/** Items that the same rules cover in the same way. */
type Kind = { items: ItemFacts[]; first: ItemFacts; rules: Rule[]; top: Rule[] };

function kindsOf(rules: Rule[], items: ItemFacts[]): Kind[] {
  const covering = compileRules(rules);
  const known = new Map<string, Kind>();
  for (const item of items) {
    const by = covering(item).filter((rule) => ruleLayer(rule, item) !== null);
    const key = (item.system ? 'system ' : '') + coverageKey(by, item);
    const kind = known.get(key);
    if (kind) {
      kind.items.push(item);
      continue;
    }
    const layered = layersOf(by, item);
    const [first] = layered;
    const top = first
      ? layered.filter(({ layer }) => compareSpecificity(layer, first.layer) === 0).map(({ rule }) => rule)
      : [];
    known.set(key, { items: [item], first: item, rules: by, top });
  }
  return [...known.values()];
}

const told = (items: ItemFacts[]): { items: string[]; count: number } => ({
  items: items.slice(0, NAMED).map(({ id }) => id),
  count: items.length,
});

function ruleWarnings(rule: Rule, kinds: Kind[]): Warning[] {
  const covered = kinds.filter(({ rules }) => rules.includes(rule));
  if (covered.length === 0) return [{ kind: 'covers-nothing', rule: rule.id }];
  const system = covered.filter(({ first }) => first.system).flatMap(({ items }) => items);
  const isNeedless = rule.covers.some(
    (cover) =>
      'id' in cover &&
      (cover.kind === 'item' || cover.kind === 'under') &&
      system.some(({ id }) => id === cover.id),
  );
  const warnings: Warning[] = isNeedless
    ? [{ kind: 'system-page', rule: rule.id, items: told(system).items }]
    : [];
  const isReached = rule.alsoRequire || covered.some(({ top, first }) => top.includes(rule) && !first.system);
  if (!isReached && !isNeedless) {
    const by = new Set(covered.flatMap(({ top }) => top.map(({ id }) => id)));
    warnings.push({ kind: 'never-reached', rule: rule.id, by: [...by].sort() });
  }
  return warnings;
}

/** Lines that count from holding a tier, or a tier named with it, for longer than that can be held. */
function waitWarnings(rule: Rule, { now, zone, tiers }: Context): Warning[] {
  const last = Math.max(0, ...allSteps(rule).flatMap(({ times, until }) => (until === null ? [times] : [])));
  const late = rule.openTo.flatMap(({ who, opens }) => {
    const isCounted = opens ? 'since' in opens && opens.since === 'held' : Boolean(rule.each);
    if (!isCounted) return [];
    const of = opens && 'of' in opens ? opens.of : undefined;
    const id = of?.kind === 'tier' ? of.id : who.kind === 'tier' ? who.id : null;
    const tier = tiers.find((one) => one.id === id);
    if (!tier?.longest) return [];
    const from = opens && 'after' in opens ? addLength(now, opens.after, zone) : now;
    const reached = rule.each ? addLength(from, rule.each, zone, last) : from;
    const ended = addLength(now, tier.longest, zone);
    return isBefore(reached, ended) ? [] : [tier.id];
  });
  return [...new Set(late)].map((tier) => ({ kind: 'too-long', rule: rule.id, tier }));
}

function meetings(kinds: Kind[]): Warning[] {
  const pairs = new Map<string, { rules: [string, string]; items: ItemFacts[] }>();
  const linesOf = (rule: Rule): string => JSON.stringify(rule.openTo);
  for (const { top, items, first } of kinds) {
    if (first.system) continue;
    const sorted = [...top].sort((a, b) => (a.id < b.id ? -1 : 1));
    sorted.forEach((one, n) => {
      for (const other of sorted.slice(n + 1)) {
        if (linesOf(one) === linesOf(other)) continue;
        const key = `${one.id}\n${other.id}`;
        const pair = pairs.get(key) ?? { rules: [one.id, other.id], items: [] };
        pair.items.push(...items.slice(0, NAMED));
        pairs.set(key, pair);
      }
    });
  }
  const count = ([one, other]: [string, string]): number =>
    kinds
      .filter(
        ({ top, first }) => !first.system && [one, other].every((id) => top.some((rule) => rule.id === id)),
      )
      .reduce((sum, { items }) => sum + items.length, 0);
  return [...pairs.values()].map(({ rules, items }) => ({
    kind: 'meet',
    rules,
    ...told(items),
    count: count(rules),
  }));
}

/** Everyone whom rules can ask for, but single members and staff. */
function everyKind({ now, tiers, groups }: Context): PersonFacts[] {
  const member = { ...VISITOR, signedIn: true, joinedAt: now };
  return [
    VISITOR,
    member,
    ...tiers.map(({ id, paid }) => ({ ...member, tiers: [{ tier: id, since: now, paid }] })),
    ...groups.map((group) => ({ ...member, groups: [group] })),
    // Someone who has all of it: what must be open as well may ask for two things at once.
    { ...member, tiers: tiers.map(({ id, paid }) => ({ tier: id, since: now, paid })), groups },
  ];
}

function nobodys(kinds: Kind[], context: Context): Warning[] {
  const people = everyKind(context);
  return kinds.flatMap(({ first, items, rules, top }): Warning[] => {
    const namesOne = rules.some(({ openTo }) =>
      openTo.some(({ who }) => ['member', 'staff', 'pass'].includes(who.kind)),
    );
    if (namesOne || top.some(({ meter }) => meter)) return [];
    const isOpen = people.some((person) => {
      const { state } = decide({
        now: context.now,
        zone: context.zone,
        default: context.default,
        rules,
        item: first,
        person,
      });
      return state === 'open' || state === 'later';
    });
    return isOpen ? [] : [{ kind: 'nobody', ...told(items), rules: top.map(({ id }) => id).sort() }];
  });
}

function tierWarnings(kinds: Kind[], context: Context): Warning[] {
  const { tiers, now } = context;
  const member: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: now };
  const stateFor = ({ first, rules }: Kind, person: PersonFacts) =>
    decide({ now: context.now, zone: context.zone, default: context.default, rules, item: first, person })
      .state;
  const closed = kinds.filter((kind) => stateFor(kind, member) !== 'open');
  return tiers
    .filter(({ onSale }) => onSale)
    .filter(({ id, paid }) => {
      const holder = { ...member, tiers: [{ tier: id, since: now, paid }] };
      return !closed.some((kind) => ['open', 'later'].includes(stateFor(kind, holder)));
    })
    .map(({ id }) => ({ kind: 'tier-opens-nothing', tier: id }));
}
