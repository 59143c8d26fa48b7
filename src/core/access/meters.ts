import { addLength, localMonth, startOfDate } from '../calendar';
import { DAY_MS, firstOf, fromMs, isBefore, toMs, type Instant } from '../instants';
import { matches, type Meter, type PersonFacts, type Read } from './facts';
import type { Moment } from './openers';
import type { ItemId } from '../ids';

export type MeterResult = { meter: string; left: number; counted: boolean };

/** What a meter leaves a person after reading one item now; null where it gives the person nothing at all. */
export function measure(
  meter: Meter,
  itemId: ItemId,
  person: PersonFacts,
  reads: Read[],
  moment: Moment,
): MeterResult | null {
  const allowance = allowanceOf(meter, person);
  if (allowance === null) return null;
  const items = readInWindow(meter, reads, moment);
  const counted = items.has(itemId);
  return { meter: meter.id, counted, left: allowance - items.size - (counted ? 0 : 1) };
}

/** How many reads a meter gives a person per window: the largest allowance that matches; null if none does. */
export function allowanceOf(meter: Meter, person: PersonFacts): number | null {
  const allowances = meter.allowances.filter(({ who }) => matches(who, person)).map(({ reads }) => reads);
  return allowances.length > 0 ? Math.max(...allowances) : null;
}

/** The meter that serves a read: one that counted this item already, else the one with most left, ties by id. */
export function chooseMeter(results: MeterResult[]): MeterResult | undefined {
  return results
    .filter((result) => result.left >= 0)
    .sort(
      (a, b) => Number(b.counted) - Number(a.counted) || b.left - a.left || (a.meter < b.meter ? -1 : 1),
    )[0];
}

function readInWindow(meter: Meter, reads: Read[], moment: Moment): Set<string> {
  const window = windowOf(meter, reads, moment);
  if (!window) return new Set();
  const within = reads.filter(
    ({ meter: id, at }) =>
      id === meter.id && !isBefore(at, window.from) && !isBefore(moment.now, at) && isBefore(at, window.to),
  );
  return new Set(within.map(({ item }) => item));
}

export type Window = { from: Instant; to: Instant };

/**
 * The current window of a meter; `to` is exclusive. A rolling window starts with a counted read: null if the last one has
 * expired, or none has started.
 */
export function windowOf(meter: Meter, reads: Read[], { now, zone }: Moment): Window | null {
  if (meter.window === 'calendar-month') {
    const month = localMonth(now, zone);
    const from = startOfDate(firstOf(month), zone);
    return { from, to: addLength(from, { n: 1, unit: 'month' }, zone) };
  }
  const length = (meter.days ?? 30) * DAY_MS;
  const times = reads
    .filter((read) => read.meter === meter.id && !isBefore(now, read.at))
    .map(({ at }) => toMs(at))
    .sort((a, b) => a - b);
  let start: number | null = null;
  for (const at of times) if (start === null || at >= start + length) start = at;
  if (start === null || toMs(now) >= start + length) return null;
  return { from: fromMs(start), to: fromMs(start + length) };
}
