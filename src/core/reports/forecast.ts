import { addLength, localDate, MS_CALENDAR, startOfDate, type Calendar, localMonth } from '../calendar';
import { toMs, type Instant, firstOf } from '../instants';
import type { Offer } from '../offers/offer';
import { periodsBy } from '../offers/schedule';

/** A running agreement, as far as its coming charges are decided by it. */
export type Agreement = { offer: Offer; startedAt: Instant; skipTrial: boolean };

/** What falls due in one local month, in minor units of one currency. */
export type ForecastMonth = { month: string; currency: string; charges: number; amount: number };

/**
 * What the schedules themselves say will fall due from `now` on: the rest of this local month, and so many whole
 * months after it. One line for each month and currency in which something is due, in order.
 */
export function forecast(
  agreements: Iterable<Agreement>,
  zone: string,
  now: Instant,
  months: number,
): ForecastMonth[] {
  return forecastBy(MS_CALENDAR, toMs, agreements, zone, now, months);
}

/** The same by any calendar; `read` turns an instant into what that calendar counts with. */
export function forecastBy<Time>(
  calendar: Calendar<Time>,
  read: (instant: Instant) => Time,
  agreements: Iterable<Agreement>,
  zone: string,
  now: Instant,
  months: number,
): ForecastMonth[] {
  const firstDay = startOfDate(firstOf(localMonth(now, zone)), zone);
  const starts = Array.from({ length: months + 2 }, (_, n) =>
    addLength(firstDay, { n: 1, unit: 'month' }, zone, n),
  );
  const names = starts.map((start) => localDate(start, zone).slice(0, 7));
  const edges = starts.slice(1).map(read);
  const sums = new Map<string, ForecastMonth[]>();
  const from = read(now);
  for (const { offer, startedAt, skipTrial } of agreements) {
    const ofCurrency = monthsOf(sums, offer.currency, names);
    let index = 0;
    for (const period of periodsBy(calendar, offer, read(startedAt), zone, skipTrial, from)) {
      for (let edge = edges[index]; edge !== undefined && calendar.between(edge, period.from) >= 0;)
        edge = edges[++index];
      const sum = edges[index] === undefined ? undefined : ofCurrency[index];
      if (!sum) break;
      if (period.amount === 0 || calendar.between(from, period.from) < 0) continue;
      sum.charges += 1;
      sum.amount += period.amount;
    }
  }
  return [...sums.values()]
    .flat()
    .filter((sum) => sum.charges > 0)
    .sort((a, b) => a.month.localeCompare(b.month) || a.currency.localeCompare(b.currency));
}

function monthsOf(sums: Map<string, ForecastMonth[]>, currency: string, names: string[]): ForecastMonth[] {
  const known = sums.get(currency);
  if (known) return known;
  const made = names.map((month) => ({ month, currency, charges: 0, amount: 0 }));
  sums.set(currency, made);
  return made;
}
