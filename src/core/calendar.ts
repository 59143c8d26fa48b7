import { Temporal } from 'temporal-polyfill';

/**
 * An instant in UTC as ISO 8601 text, as Temporal.Instant prints it: "2027-01-31T15:00:00Z".
 * Text, not Date, because instants travel through JSON, SQL and React unchanged.
 */
export type Instant = string;
/** A calendar date in the site's zone: "2027-08-09". */
export type LocalDate = string;

export const UNITS = ['hour', 'day', 'week', 'month', 'year'] as const;
export type Unit = (typeof UNITS)[number];
export type Length = { n: number; unit: Unit };

/** Milliseconds since 1970. */
export function toMs(instant: Instant): number {
  return Date.parse(instant);
}

export function fromMs(ms: number): Instant {
  return Temporal.Instant.fromEpochMilliseconds(ms).toString();
}

/** Below zero when `a` is earlier, above when later, 0 when they are the same instant. */
export function compare(a: Instant, b: Instant): number {
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
  const instant = Temporal.Instant.from(start);
  if (length.unit === 'hour') return instant.add({ hours: n }).toString();
  const plural = `${length.unit}s`;
  return instant
    .toZonedDateTimeISO(zone)
    .add({ [plural]: n })
    .toInstant()
    .toString();
}

/** The first instant of a local date. */
export function startOfDate(date: LocalDate, zone: string): Instant {
  return Temporal.PlainDate.from(date).toZonedDateTime({ timeZone: zone }).toInstant().toString();
}

/** The instant at which the whole of a local date is over. */
export function endOfDate(date: LocalDate, zone: string): Instant {
  return startOfDate(Temporal.PlainDate.from(date).add({ days: 1 }).toString(), zone);
}

/** The local date on which an instant falls. */
export function localDate(instant: Instant, zone: string): LocalDate {
  return Temporal.Instant.from(instant).toZonedDateTimeISO(zone).toPlainDate().toString();
}

/** Local dates from `from` to `to`: 31 from 10 January to 10 February. */
export function daysBetween(from: LocalDate, to: LocalDate): number {
  return Temporal.PlainDate.from(from).until(Temporal.PlainDate.from(to), { largestUnit: 'day' }).days;
}

/** The local month of an instant: "2027-02". */
export function localMonth(instant: Instant, zone: string): string {
  return localDate(instant, zone).slice(0, 7);
}

/** Whether text is a date that exists: "2027-02-30" is not. */
export function isLocalDate(text: string): boolean {
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
  return new Intl.DateTimeFormat(locale, {
    timeZone: zone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  })
    .format(toMs(instant))
    .replace(/,/g, '');
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

/** "14 days", "1 month"; with `bare`, a single unit has no number: "month". */
export function formatLength({ n, unit }: Length, bare = false): string {
  if (n === 1) return bare ? unit : `1 ${unit}`;
  return `${n} ${unit}s`;
}
