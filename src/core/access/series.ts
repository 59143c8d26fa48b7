import { addLength } from '../calendar';
import { isBefore, type Instant, type Length, type LocalDate, type Unit } from '../instants';
import type { ItemFacts } from './facts';
import { ruleLayer } from './layers';
import type { Edge, Opener, Placed, Rule } from './rule';

/** How long after the opening edge of a line an item opens: so many times a length, while it had that place. */
type Step = { times: number; until: Instant | null };

/**
 * The steps of an item in the series that a rule makes of the pages below one that it covers; those of a page deeper down are
 * those of the one above it that is in the series. Null where the rule makes no series of it.
 */
export function stepsOf(rule: Rule, item: ItemFacts): Step[] | null {
  if (!rule.each) return null;
  const line = [item.id, ...item.ancestors];
  const at = line.findIndex((id) => rule.covers.some((cover) => cover.kind === 'under' && cover.id === id));
  if (at === -1) return null;
  const [parent, child] = [line[at], line[at - 1]];
  if (child === undefined) return [{ times: 0, until: null }];
  return (rule.places?.[child] ?? []).filter((placed) => placed.parent === parent).map(stepFor(rule));
}

const stepFor =
  ({ firstAtOnce }: Rule) =>
  ({ place, until }: Placed): Step => ({ times: firstAtOnce ? place - 1 : place, until });

/** The steps of all pages in the series that a rule makes. */
export const allSteps = (rule: Rule): Step[] =>
  rule.each
    ? Object.values(rule.places ?? {})
        .flat()
        .map(stepFor(rule))
    : [];

/**
 * When an item of a series opens, counted from the opening edge of a line: by the place that it has, or by one that it had, if
 * that was reached while it had it, so that moving pages closes nothing that was open. Null where it has no place.
 */
export function seriesInstant(from: Instant, each: Length, steps: Step[], zone: string): Instant | null {
  let first: Instant | null = null;
  for (const { times, until } of steps) {
    const at = addLength(from, each, zone, times);
    const isReached = until === null || !isBefore(until, at);
    if (isReached && (first === null || isBefore(at, first))) first = at;
  }
  return first;
}

/** How some rules cover an item: what is covered alike is decided alike, but for waits that count from publishing. */
export const coverageKey = (rules: Rule[], item: ItemFacts): string =>
  JSON.stringify(rules.map((rule) => [rule.id, ruleLayer(rule, item), stepsOf(rule, item)]));

/** The page that a rule makes a series of, where it makes one. */
export const seriesParents = (rule: Rule): string[] =>
  rule.each ? rule.covers.flatMap((cover) => (cover.kind === 'under' ? [cover.id] : [])) : [];

/** A line of a rule as it is for one page of the series that the rule makes, without the series. */
export function lineOutOfSeries(line: Opener, rule: Rule, item: ItemFacts): Opener {
  const { each } = rule;
  const times = stepsOf(rule, item)?.find(({ until }) => until === null)?.times ?? 0;
  if (!each || times === 0) return line;
  const wait = { n: each.n * times, unit: each.unit };
  return { ...line, opens: later(line.opens, wait) };
}

function later(opens: Edge | undefined, wait: Length): Edge {
  if (!opens) return { since: 'held', after: wait };
  if ('since' in opens) return { ...opens, after: sum(opens.after, wait) };
  // Noon of the day is within it in every zone, whatever its clocks do.
  const at = addLength(`${opens.on}T12:00:00Z`, wait, 'UTC');
  return { on: at.slice(0, 10) as LocalDate };
}

const IN_MONTHS: Partial<Record<Unit, number>> = { month: 1, year: 12 };
const IN_HOURS: Partial<Record<Unit, number>> = { hour: 1, day: 24, week: 168 };

/** The hours of a length; of months no more than any so many months have. */
function hoursOf({ n, unit }: Length): number {
  const months = IN_MONTHS[unit];
  return months ? (Math.floor(n * months * 30.4) - 3) * 24 : n * (IN_HOURS[unit] ?? 0);
}

/** Two lengths as one; of months and days together it is no longer than they are one after the other. */
function sum(one: Length, other: Length): Length {
  if (one.unit === other.unit) return { n: one.n + other.n, unit: one.unit };
  const [a, b] = [IN_MONTHS[one.unit], IN_MONTHS[other.unit]];
  if (a && b) return { n: one.n * a + other.n * b, unit: 'month' };
  const hours = hoursOf(one) + hoursOf(other);
  return hours % 24 === 0 ? { n: hours / 24, unit: 'day' } : { n: hours, unit: 'hour' };
}
