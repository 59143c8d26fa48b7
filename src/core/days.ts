import { addLength, localDate, startOfDate } from './calendar';
import type { Instant, LocalDate } from './instants';

/** So many local dates in a row from a first one on; with a negative `count`, those before it, the earliest first. */
export function daysFrom(first: LocalDate, count: number, zone: string): LocalDate[] {
  const start = startOfDate(first, zone);
  return Array.from({ length: Math.abs(count) }, (_, n) =>
    localDate(addLength(start, { n: count < 0 ? n + count : n, unit: 'day' }, zone), zone),
  );
}

type Dated = { at: Instant; amount: number; currency: string };
export type DaySum = { date: LocalDate; count: number; sums: { currency: string; amount: number }[] };

/** Of some days, how much falls on each, by currency in minor units; what falls on none of them is left out. */
export function sumByDay(rows: readonly Dated[], days: readonly LocalDate[], zone: string): DaySum[] {
  const sums = new Map(days.map((date) => [date, { count: 0, sums: new Map<string, number>() }]));
  for (const { at, amount, currency } of rows) {
    const day = sums.get(localDate(at, zone));
    if (!day) continue;
    day.count += 1;
    day.sums.set(currency, (day.sums.get(currency) ?? 0) + amount);
  }
  return [...sums].map(([date, day]) => ({
    date,
    count: day.count,
    sums: [...day.sums].map(([currency, amount]) => ({ currency, amount })),
  }));
}
