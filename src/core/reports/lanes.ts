import { addLength, localDate, startOfDate } from '../calendar';
import { firstOf, isLocalMonth, toMs, type Instant } from '../instants';

/** The time that the lanes of a member's file show. */
export type LaneWindow = { from: Instant; to: Instant; now: Instant };

const MONTHS_BEFORE = 12;
const MONTHS_AHEAD = 6;

/** From when someone joined, or a year ago, whichever is later, until half a year ahead; at least half a year back. */
export function laneWindow(joined: Instant, now: Instant, zone: string): LaneWindow {
  const back = (months: number): Instant => addLength(now, { n: -months, unit: 'month' }, zone);
  const [earliest, latest] = [back(MONTHS_BEFORE), back(MONTHS_AHEAD)];
  const from = toMs(joined) < toMs(earliest) ? earliest : toMs(joined) > toMs(latest) ? latest : joined;
  return { from, to: addLength(now, { n: MONTHS_AHEAD, unit: 'month' }, zone), now };
}

/** Where an instant is in the window, in per cent of its width; what is outside is at its edge. */
export function placeOf({ from, to }: LaneWindow, at: Instant): number {
  const share = (toMs(at) - toMs(from)) / (toMs(to) - toMs(from));
  return Math.round(Math.min(1, Math.max(0, share)) * 10_000) / 100;
}

export type LanePart = { left: number; width: number; isAhead: boolean };

/** What of a stretch is in the window: what is past, and what is ahead as things are. `to` null: no end is known. */
export function partsOf(window: LaneWindow, from: Instant, to: Instant | null): LanePart[] {
  const [begin, now] = [placeOf(window, from), placeOf(window, window.now)];
  const end = to === null ? 100 : placeOf(window, to);
  const part = (left: number, right: number, isAhead: boolean): LanePart[] =>
    right > left ? [{ left, width: Math.round((right - left) * 100) / 100, isAhead }] : [];
  return [...part(begin, Math.min(end, now), false), ...part(Math.max(begin, now), end, true)];
}

/** The beginnings of the months in the window, every second one, each at its place. */
export function monthsOf(window: LaneWindow, zone: string): { at: Instant; left: number }[] {
  const months: { at: Instant; left: number }[] = [];
  const first = localDate(window.from, zone).slice(0, 7);
  if (!isLocalMonth(first)) return months;
  const start = startOfDate(firstOf(first), zone);
  for (let n = 1; ; n += 2) {
    const at = addLength(start, { n, unit: 'month' }, zone);
    if (toMs(at) >= toMs(window.to)) return months;
    months.push({ at, left: placeOf(window, at) });
  }
}
