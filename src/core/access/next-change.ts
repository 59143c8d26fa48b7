import { addLength, startOfDate } from '../calendar';
import { DAY_MS, fromMs, toMs, type Instant, type Length } from '../instants';
import { edgesOf, type Rule } from './rule';
import { allSteps } from './series';

const DAYS = {
  hour: [1 / 24, 1 / 24],
  day: [1, 1],
  week: [7, 7],
  month: [28, 31],
  year: [365, 366],
} as const;

type Waited = { lengths: { length: Length; times: number }[]; from: Instant; to: Instant };

/**
 * The waits of some rules that count from publishing, each with the stretch of time in which an item was published whose
 * wait may end between `from` and `to`. A day more on either side, for changes of the clocks.
 */
export function publishingWaits(rules: Rule[], from: Instant, to: Instant): Waited[] {
  const waits = new Map<string, Waited['lengths']>();
  for (const rule of rules)
    for (const edge of edgesOf(rule)) {
      if (!('since' in edge) || edge.since !== 'published') continue;
      const after = { length: edge.after, times: 1 };
      for (const lengths of [[after], ...seriesLengths(rule).map((one) => [after, one])])
        waits.set(JSON.stringify(lengths), lengths);
    }
  return [...waits.values()].map((lengths) => {
    const days = (end: 0 | 1): number =>
      lengths.reduce((sum, { length: { n, unit }, times }) => sum + n * times * DAYS[unit][end], 0);
    return {
      lengths,
      from: fromMs(toMs(from) - (days(1) + 1) * DAY_MS),
      to: fromMs(toMs(to) - (days(0) - 1) * DAY_MS),
    };
  });
}

const seriesLengths = (rule: Rule): Waited['lengths'] => {
  const { each } = rule;
  return each ? allSteps(rule).map(({ times }) => ({ length: each, times })) : [];
};

/** When the pages of series open that count from a date: not only at the start of a day. */
export const datedOpenings = (rules: Rule[], zone: string): Instant[] =>
  rules.flatMap((rule) =>
    edgesOf(rule).flatMap((edge) =>
      'on' in edge
        ? seriesLengths(rule).map(({ length, times }) =>
            addLength(startOfDate(edge.on, zone), length, zone, times),
          )
        : [],
    ),
  );
