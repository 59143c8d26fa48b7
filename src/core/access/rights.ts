import { addLength } from '../calendar';
import { fromMs, isBefore, toMs, type Instant } from '../instants';
import { edgesOf, type Edge, type Rule } from './rule';

type Counted = Exclude<Edge, { on: string }>;
export type Since = Counted['since'];

/**
 * For each wait in these rules, the first start (of a holding, a membership or a publication) that is still waiting now;
 * sorted, without duplicates. Starts between the same two turning points are decided alike, because a later start never
 * passes its wait sooner.
 */
export function turningPoints(rules: Rule[], since: Since[], now: Instant, zone: string): Instant[] {
  const lengths = new Map<string, Counted['after']>();
  for (const rule of rules)
    if (rule.on !== false)
      for (const edge of edgesOf(rule))
        if ('since' in edge && since.includes(edge.since))
          lengths.set(JSON.stringify(edge.after), edge.after);
  const points = [...lengths.values()].map((after) => turningPoint(after, now, zone));
  return [...new Set(points)].sort((a, b) => a - b).map(fromMs);
}

const MOST_MS = {
  hour: 3_600_000,
  day: 25 * 3_600_000,
  week: 7.1 * 86_400_000,
  month: 32 * 86_400_000,
  year: 367 * 86_400_000,
};

/** The first start, in ms, whose wait has not passed now. */
function turningPoint(after: Counted['after'], now: Instant, zone: string): number {
  const isReached = (ms: number): boolean => !isBefore(now, addLength(fromMs(ms), after, zone));
  let [reached, open] = [toMs(now) - Math.ceil(after.n * MOST_MS[after.unit]) - 86_400_000, toMs(now) + 1];
  while (open - reached > 1) {
    const middle = Math.floor((reached + open) / 2);
    if (isReached(middle)) reached = middle;
    else open = middle;
  }
  return open;
}

/** Between which turning points an instant lies: how many of them it is not before. PostgreSQL's width_bucket counts the same. */
export function bucketOf(at: Instant, points: Instant[]): number {
  return points.filter((point) => !isBefore(at, point)).length;
}
