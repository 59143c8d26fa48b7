import { addLength, startOfDate } from '../calendar';
import { compare, isBefore, type Instant } from '../instants';
import { matches, type ItemFacts, type PersonFacts } from './facts';
import type { Edge, Opener, Rule, Who } from './rule';
import { seriesInstant, stepsOf } from './series';

export type Verdict =
  { state: 'open' } | { state: 'later'; at: Instant } | { state: 'ended'; at: Instant } | { state: 'closed' };

export type Moment = { now: Instant; zone: string };

const CLOSED: Verdict = { state: 'closed' };
const ORDER = { open: 0, later: 1, ended: 2, closed: 3 } as const;

/** What one line of a rule says to a person at a moment. `rule`: the line's, where that may make a series of pages. */
export function judgeOpener(
  line: Opener,
  item: ItemFacts,
  person: PersonFacts,
  { now, zone }: Moment,
  rule?: Rule,
): Verdict {
  if (!matches(line.who, person)) return CLOSED;
  const opens = opensInstant(line, item, person, zone, rule);
  const closes = line.closes && edgeInstant(line.closes, line.who, item, person, zone);
  // An edge that has nothing to count from closes the line.
  if (opens === null || closes === null) return CLOSED;
  if (closes && !isBefore(now, closes)) return { state: 'ended', at: closes };
  if (opens && closes && !isBefore(opens, closes)) return CLOSED;
  if (opens && isBefore(now, opens)) return { state: 'later', at: opens };
  return { state: 'open' };
}

/**
 * When a line opens to a person; null where it has nothing to count from, undefined where it is open from the start. In a series
 * without an opening edge it counts from getting what the line names.
 */
export function opensInstant(
  { who, opens }: Opener,
  item: ItemFacts,
  person: PersonFacts,
  zone: string,
  rule?: Rule,
): Instant | null | undefined {
  const steps = rule?.each ? stepsOf(rule, item) : null;
  if (!rule?.each || !steps) return opens && edgeInstant(opens, who, item, person, zone);
  const from = opens
    ? edgeInstant(opens, who, item, person, zone)
    : anchor({ since: 'held' }, who, item, person);
  return from && seriesInstant(from, rule.each, steps, zone);
}

/** When an edge of a line is reached for a person; null where it has nothing to count from. */
export function edgeInstant(
  edge: Edge,
  who: Who,
  item: ItemFacts,
  person: PersonFacts,
  zone: string,
): Instant | null {
  if ('on' in edge) return startOfDate(edge.on, zone);
  const from = anchor(edge, who, item, person);
  return from ? addLength(from, edge.after, zone) : null;
}

function anchor(
  edge: Pick<Exclude<Edge, { on: string }>, 'since' | 'of'>,
  who: Who,
  item: ItemFacts,
  person: PersonFacts,
): Instant | null {
  if (edge.since === 'published') return item.publishedAt;
  if (edge.since === 'joined') return person.joinedAt ?? null;
  const of = edge.of ?? (who.kind === 'tier' || who.kind === 'pass' ? who : null);
  if (of) {
    const held =
      of.kind === 'tier'
        ? person.tiers.filter((h) => h.tier === of.id)
        : person.passes.filter((h) => h.pass === of.id);
    return first(held);
  }
  if (who.kind === 'paying') return first(person.tiers.filter((held) => held.paid));
  return person.joinedAt ?? null;
}

function first(held: { since: Instant }[]): Instant | null {
  return held.map((h) => h.since).sort(compare)[0] ?? null;
}

/** The best of several lines: open, else the earliest later, else the latest ended, else closed. */
export function bestOf(verdicts: Verdict[]): Verdict {
  return verdicts.reduce<Verdict>((best, next) => {
    if (ORDER[next.state] !== ORDER[best.state]) return ORDER[next.state] < ORDER[best.state] ? next : best;
    if (next.state === 'later' && best.state === 'later') return isBefore(next.at, best.at) ? next : best;
    if (next.state === 'ended' && best.state === 'ended') return isBefore(best.at, next.at) ? next : best;
    return best;
  }, CLOSED);
}

/** The worst of several that must all hold: closed, else ended, else later, else open; of two laters the later, of two ended the earlier. */
export function worstOf(verdicts: Verdict[]): Verdict {
  return verdicts.reduce<Verdict>(
    (worst, next) => {
      if (ORDER[next.state] !== ORDER[worst.state])
        return ORDER[next.state] > ORDER[worst.state] ? next : worst;
      if (next.state === 'later' && worst.state === 'later')
        return isBefore(worst.at, next.at) ? next : worst;
      if (next.state === 'ended' && worst.state === 'ended')
        return isBefore(next.at, worst.at) ? next : worst;
      return worst;
    },
    { state: 'open' },
  );
}
