import { Temporal } from 'temporal-polyfill';
import { addInZone } from './zone-table';

/**
 * An instant in UTC as ISO 8601 text, as Temporal.Instant prints it: "2027-01-31T15:00:00Z".
 * Text, not Date, because instants travel through JSON, SQL and React unchanged. The form is its type, so that no date, id
 * or unread text passes for one.
 */
export type Instant = `${number}-${number}-${number}T${string}Z`;
/** A calendar date in the site's zone: "2027-08-09". */
export type LocalDate = `${number}-${number}-${number}`;
/** A month in the site's zone: "2027-08". */
export type LocalMonth = `${number}-${number}`;

export const UNITS = ['hour', 'day', 'week', 'month', 'year'] as const;
export type Unit = (typeof UNITS)[number];
export type Length = { n: number; unit: Unit };

/** Milliseconds of a day of 24 hours. */
export const DAY_MS = 86_400_000;

/** Milliseconds since 1970. */
export function toMs(instant: Instant): number {
  return Date.parse(instant);
}

/** Text from elsewhere as an instant, in our way of writing it. @throws where it is none */
export const readInstant = (text: string): Instant => written(Temporal.Instant.from(text));

/** Whether it has nothing finer than a millisecond, which only Temporal counts with. */
export const isToTheMs = (instant: Instant): boolean => instant.length <= 24 && instant.endsWith('Z');

export function fromMs(ms: number): Instant {
  // As Temporal writes it: no fraction of a second where there is none, and no zeros at its end.
  const text = new Date(ms).toISOString();
  return (ms % 1000 === 0 ? `${text.slice(0, -5)}Z` : text.replace(/0+Z$/, 'Z')) as Instant;
}

/** Below zero when `a` is earlier, above when later, 0 when they are the same instant. */
export function compare(a: Instant, b: Instant): number {
  // Whole seconds of years with four digits sort as text.
  if (a.length === 20 && b.length === 20) return a < b ? -1 : a > b ? 1 : 0;
  return toMs(a) - toMs(b);
}

export const isBefore = (a: Instant, b: Instant): boolean => compare(a, b) < 0;
export const earliest = (a: Instant, b: Instant): Instant => (isBefore(b, a) ? b : a);
export const latest = (a: Instant, b: Instant): Instant => (isBefore(a, b) ? b : a);

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

/** The instant at which the whole of a local date is over. */
export function endOfDate(date: LocalDate, zone: string): Instant {
  return startOfDate(dateWritten(Temporal.PlainDate.from(date).add({ days: 1 })), zone);
}

/** The local date on which an instant falls. */
export function localDate(instant: Instant, zone: string): LocalDate {
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

/** The first day of a local month. */
export const firstOf = (month: LocalMonth): LocalDate => `${month}-01`;

export const isLocalMonth = (text: string): text is LocalMonth => /^\d{4}-(0[1-9]|1[0-2])$/.test(text);

/** Whether text is a date that exists: "2027-02-30" is not. */
export function isLocalDate(text: string): text is LocalDate {
  try {
    return /^\d{4}-\d{2}-\d{2}$/.test(text) && Temporal.PlainDate.from(text).toString() === text;
  } catch {
    return false;
  }
}

export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en-GB', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** "Sun 31 Jan 2027" in the site's zone. */
export function formatDate(instant: Instant, zone: string, locale = 'en-GB'): string {
  return dateFormat(locale, zone).format(toMs(instant)).replace(/,/g, '');
}

/** The last day of what ends at an instant: what ends as a day begins is held until the day before. */
export const formatUntil = (end: Instant, zone: string): string => formatDate(fromMs(toMs(end) - 1), zone);

/** A format is dear to make and cheap to use; there is one for each zone and locale. */
const dateFormats = new Map<string, Intl.DateTimeFormat>();
function dateFormat(locale: string, timeZone: string): Intl.DateTimeFormat {
  const key = `${locale} ${timeZone}`;
  let format = dateFormats.get(key);
  if (!format) {
    format = new Intl.DateTimeFormat(locale, {
      timeZone,
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      year: 'numeric',
    });
    dateFormats.set(key, format);
  }
  return format;
}

/** The local days of a stretch of time, from its first to its last: "1 – 30 Nov 2026". The last is the day before it ends, unless it ends on its first. */
export function formatDays(from: Instant, to: Instant, zone: string, locale = 'en-GB'): string {
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

/** "Sun 31 Jan 2027, 21:40" in the site's zone. */
export function formatDateTime(instant: Instant, zone: string, locale = 'en-GB'): string {
  const time = new Intl.DateTimeFormat(locale, {
    timeZone: zone,
    hour: '2-digit',
    minute: '2-digit',
    hour12: false,
  });
  return `${formatDate(instant, zone, locale)}, ${time.format(toMs(instant))}`;
}

/** "14 days", "1 month". */
export function formatLength({ n, unit }: Length): string {
  return n === 1 ? `1 ${unit}` : `${n} ${unit}s`;
}
