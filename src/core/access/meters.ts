import { localMonth } from '../calendar';
import { compare, isBefore, toMs, type Instant } from '../instants';
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
  const allowances = meter.allowances.filter((a) => matches(a.who, person)).map((a) => a.reads);
  if (allowances.length === 0) return null;
  const items = readInWindow(meter, reads, moment);
  const counted = items.has(itemId);
  return { meter: meter.id, counted, left: Math.max(...allowances) - items.size - (counted ? 0 : 1) };
}

/** The meter that serves a read: one that counted this item already, else the one with most left, ties by id. */
export function chooseMeter(results: MeterResult[]): MeterResult | undefined {
  return results
    .filter((result) => result.left >= 0)
    .sort(
      (a, b) => Number(b.counted) - Number(a.counted) || b.left - a.left || (a.meter < b.meter ? -1 : 1),
    )[0];
}

const DAY_MS = 86_400_000;

function readInWindow(meter: Meter, reads: Read[], { now, zone }: Moment): Set<string> {
  const past = reads
    .filter((read) => read.meter === meter.id && !isBefore(now, read.at))
    .sort((a, b) => compare(a.at, b.at));
  if (meter.window === 'calendar-month') {
    const month = localMonth(now, zone);
    return new Set(past.filter((read) => localMonth(read.at, zone) === month).map((read) => read.item));
  }
  const length = (meter.days ?? 30) * DAY_MS;
  const isOver = (start: Instant, at: Instant): boolean => toMs(at) >= toMs(start) + length;
  let start: Instant | null = null;
  let items = new Set<string>();
  for (const read of past) {
    if (start === null || isOver(start, read.at)) {
      start = read.at;
      items = new Set();
    }
    items.add(read.item);
  }
  return start === null || isOver(start, now) ? new Set() : items;
}
