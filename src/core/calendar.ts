import { Temporal } from 'temporal-polyfill';
import {
  fromMs,
  isToTheMs,
  toMs,
  type Instant,
  type Length,
  type LocalDate,
  type LocalMonth,
} from './instants';
import { addInZone, dateInZone } from './zone-table';

/** As PostgreSQL writes instants in JSON: in UTC, without zeros at the end. */
const IN_UTC = /^(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d)(\.\d{0,8}[1-9])?(?:Z|\+00:00)$/;

/** Text from elsewhere as an instant, in our way of writing it. @throws where it is none */
export function readInstant(text: string): Instant {
  const [, whole, fraction = ''] = IN_UTC.exec(text) ?? [];
  const ms = whole === undefined ? NaN : Date.parse(`${whole}Z`);
  // What is no day of the calendar comes back as another.
  if (!Number.isNaN(ms) && new Date(ms).toISOString().startsWith(`${whole}.`))
    return `${whole}${fraction}Z` as Instant;
  return written(Temporal.Instant.from(text));
}

/**
 * `start` plus `times` lengths, in the zone's calendar. Counted from the start in one stride, so month ends
 * clamp without drifting; the local hour is kept across clock changes; a missing hour moves later, a doubled
 * hour takes the earlier; adding nothing changes nothing. Hours are exact.
 * Source: Temporal.ZonedDateTime.add with disambiguation "compatible" (ECMA-262 proposal).
 */
export function addLength(start: Instant, length: Length, zone: string, times = 1): Instant {
  const n = length.n * times;
  if (n === 0) return start;
  const end = isToTheMs(start) ? addToMs(toMs(start), length, zone, times) : null;
  return end === null ? addLengthByTemporal(start, length, zone, times) : fromMs(end);
}

/** The same on ms since 1970, without Temporal; null where it does not reach. */
function addToMs(start: number, { n, unit }: Length, zone: string, times: number): number | null {
  const count = n * times;
  if (count === 0) return start;
  if (unit !== 'hour') return addInZone(start, count, unit, zone);
  const end = start + count * 3_600_000;
  return Math.abs(end) < 4e15 ? end : null;
}

const written = (instant: Temporal.Instant): Instant => instant.toString() as Instant;
const dateWritten = (date: Temporal.PlainDate): LocalDate => date.toString() as LocalDate;

/** The same by Temporal alone: the truth that the faster way is held to. */
export function addLengthByTemporal(start: Instant, length: Length, zone: string, times = 1): Instant {
  const n = length.n * times;
  if (n === 0) return start;
  const instant = Temporal.Instant.from(start);
  if (length.unit === 'hour') return written(instant.add({ hours: n }));
  const plural = `${length.unit}s`;
  return written(
    instant
      .toZonedDateTimeISO(zone)
      .add({ [plural]: n })
      .toInstant(),
  );
}

/**
 * What a schedule asks of a calendar. The rules are the same in each; an instant is ISO text, or, for work in bulk,
 * ms since 1970. `between` is the ms from the first to the second.
 */
export type Calendar<Time> = {
  add: (start: Time, length: Length, zone: string, times: number) => Time;
  endOfDate: (date: LocalDate, zone: string) => Time;
  between: (from: Time, to: Time) => number;
};

const between = (from: Instant, to: Instant): number => toMs(to) - toMs(from);

export const CALENDAR: Calendar<Instant> = { add: addLength, endOfDate, between };

/** Temporal alone: some 100 µs an operation. */
export const TEMPORAL_CALENDAR: Calendar<Instant> = { add: addLengthByTemporal, endOfDate, between };

const endsOfDates = new Map<string, number>();

export const MS_CALENDAR: Calendar<number> = {
  add: (start, length, zone, times) =>
    addToMs(start, length, zone, times) ?? toMs(addLengthByTemporal(fromMs(start), length, zone, times)),
  endOfDate: (date, zone) => {
    const key = `${date} ${zone}`;
    const known = endsOfDates.get(key) ?? toMs(endOfDate(date, zone));
    // Offers end on few dates; the bound is against a flood of made-up ones.
    if (endsOfDates.size < 10_000) endsOfDates.set(key, known);
    return known;
  },
  between: (from, to) => to - from,
};

/** The first instant of a local date. */
export function startOfDate(date: LocalDate, zone: string): Instant {
  return written(Temporal.PlainDate.from(date).toZonedDateTime({ timeZone: zone }).toInstant());
}

/**
 * The instant of a local date and time, as a form has it: "2027-03-01T08:30". A time that a clock change leaves out is
 * moved later, of one that comes twice the earlier is meant. Null where it is none.
 */
export function readLocalTime(text: string, zone: string): Instant | null {
  try {
    return written(Temporal.PlainDateTime.from(text).toZonedDateTime(zone).toInstant());
  } catch {
    return null;
  }
}

/** An instant as a form has it, to the minute: "2027-03-01T08:30". */
export const localTime = (instant: Instant, zone: string): string =>
  Temporal.Instant.from(instant)
    .toZonedDateTimeISO(zone)
    .toPlainDateTime()
    .toString({ smallestUnit: 'minute', roundingMode: 'trunc' });

/** The instant at which a local date ends. */
export function endOfDate(date: LocalDate, zone: string): Instant {
  return startOfDate(dateWritten(Temporal.PlainDate.from(date).add({ days: 1 })), zone);
}

/** The local date on which an instant falls. */
export function localDate(instant: Instant, zone: string): LocalDate {
  return (dateInZone(toMs(instant), zone) as LocalDate | null) ?? localDateByTemporal(instant, zone);
}

/** The same by Temporal alone: the truth that the faster way is held to. */
export function localDateByTemporal(instant: Instant, zone: string): LocalDate {
  return dateWritten(Temporal.Instant.from(instant).toZonedDateTimeISO(zone).toPlainDate());
}

/** Local dates from `from` to `to`: 31 from 10 January to 10 February. */
export function daysBetween(from: LocalDate, to: LocalDate): number {
  return Temporal.PlainDate.from(from).until(Temporal.PlainDate.from(to), { largestUnit: 'day' }).days;
}

/** The local month of an instant: "2027-02". */
export function localMonth(instant: Instant, zone: string): LocalMonth {
  return localDate(instant, zone).slice(0, 7) as LocalMonth;
}

/** The local days of a stretch of time, from its first to its last: "1 – 30 Nov 2026". The last is the day before it ends, unless it ends on its first. */
export function formatDays(from: Instant, to: Instant, zone: string, locale: string): string {
  const [first, end] = [localDate(from, zone), localDate(to, zone)];
  const last = end > first ? localDate(fromMs(toMs(startOfDate(end, zone)) - 1), zone) : first;
  const noon = (date: LocalDate): number => Date.parse(`${date}T12:00:00Z`);
  return new Intl.DateTimeFormat(locale, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  }).formatRange(noon(first), noon(last));
}
