import { addLength } from '../calendar';
import { fromMs, isBefore, toMs, type Instant, type Length } from '../instants';
import { edgesOf, type Edge, type Rule } from './rule';
import { allSteps } from './series';

type Counted = Exclude<Edge, { on: string }>;
export type Since = Counted['since'];

/** What must have passed since a start: lengths one after the other, each so many times. `by`: when it was looked at. */
type Wait = { lengths: { length: Length; times: number }[]; by: Instant };

/**
 * For each wait in these rules, the first start (of a holding, a membership or a publication) that is still waiting now;
 * sorted, without duplicates. Starts between the same two turning points are decided alike, because a later start never
 * passes its wait sooner.
 */
export function turningPoints(rules: Rule[], since: Since[], now: Instant, zone: string): Instant[] {
  const waits = new Map<string, Wait>();
  for (const wait of rules.filter(({ on }) => on !== false).flatMap((rule) => waitsOf(rule, since, now)))
    waits.set(JSON.stringify(wait), wait);
  const points = [...waits.values()].map((wait) => turningPoint(wait, zone));
  return [...new Set(points)].sort((a, b) => a - b).map(fromMs);
}

function waitsOf(rule: Rule, since: Since[], now: Instant): Wait[] {
  const counted = edgesOf(rule).flatMap((edge) =>
    'since' in edge && since.includes(edge.since) ? [[{ length: edge.after, times: 1 }]] : [],
  );
  const waits = counted.map((lengths) => ({ lengths, by: now }));
  const { each } = rule;
  if (!each) return waits;
  // A line without an opening edge counts from getting what it names, or from joining.
  const starts = since.some((one) => one !== 'published') ? [[], ...counted] : counted;
  const inSeries = allSteps(rule).flatMap(({ times, until }) =>
    starts.map((lengths) => ({ lengths: [...lengths, { length: each, times }], by: until ?? now })),
  );
  return [...waits, ...inSeries];
}

const MOST_MS = {
  hour: 3_600_000,
  day: 25 * 3_600_000,
  week: 7.1 * 86_400_000,
  month: 32 * 86_400_000,
  year: 367 * 86_400_000,
};

/** The first start, in ms, whose wait had not passed when it was looked at. */
function turningPoint({ lengths, by }: Wait, zone: string): number {
  const isReached = (ms: number): boolean =>
    !isBefore(
      by,
      lengths.reduce((at, { length, times }) => addLength(at, length, zone, times), fromMs(ms)),
    );
  const most = lengths.reduce((sum, { length: { n, unit }, times }) => sum + n * times * MOST_MS[unit], 0);
  let [reached, open] = [toMs(by) - Math.ceil(most) - 86_400_000, toMs(by) + 1];
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
