import { DAY_MS, fromMs, toMs, type Instant, type Length } from '../instants';
import { edgesOf, type Rule } from './rule';

const DAYS = {
  hour: [1 / 24, 1 / 24],
  day: [1, 1],
  week: [7, 7],
  month: [28, 31],
  year: [365, 366],
} as const;

/**
 * The waits of some rules that count from publishing, each with the stretch of time in which an item was published whose
 * wait may end between `from` and `to`. A day more on either side, for changes of the clocks.
 */
export function publishingWaits(
  rules: Rule[],
  from: Instant,
  to: Instant,
): { length: Length; from: Instant; to: Instant }[] {
  const lengths = new Map<string, Length>();
  for (const edge of rules.flatMap(edgesOf))
    if ('since' in edge && edge.since === 'published')
      lengths.set(`${edge.after.n} ${edge.after.unit}`, edge.after);
  return [...lengths.values()].map((length) => {
    const [least, most] = DAYS[length.unit];
    return {
      length,
      from: fromMs(toMs(from) - (length.n * most + 1) * DAY_MS),
      to: fromMs(toMs(to) - (length.n * least - 1) * DAY_MS),
    };
  });
}
