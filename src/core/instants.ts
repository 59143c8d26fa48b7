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

/** The first day of a local month. */
export const firstOf = (month: LocalMonth): LocalDate => `${month}-01`;

/** The month so many after another; below zero, before it. */
export function monthAfter(month: LocalMonth, months: number): LocalMonth {
  const [year = 0, number = 1] = month.split('-').map(Number);
  return new Date(Date.UTC(year, number - 1 + months, 1)).toISOString().slice(0, 7) as LocalMonth;
}

/** The dates of a month, in order. */
export function daysOfMonth(month: LocalMonth): LocalDate[] {
  const [year = 0, number = 1] = month.split('-').map(Number);
  const count = new Date(Date.UTC(year, number, 0)).getUTCDate();
  return Array.from(
    { length: count },
    (_, day) => `${month}-${String(day + 1).padStart(2, '0')}` as LocalDate,
  );
}

export const isLocalMonth = (text: string): text is LocalMonth => /^\d{4}-(0[1-9]|1[0-2])$/.test(text);

/** Whether text is a date that exists: "2027-02-30" is not. */
export function isLocalDate(text: string): text is LocalDate {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const ms = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(ms) && new Date(ms).toISOString().startsWith(text);
}

export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en-GB', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** A format is dear to make and cheap to use; there is one for each shape, zone and locale. */
const formats = new Map<string, Intl.DateTimeFormat>();
function formatOf(
  shape: string,
  locale: string,
  timeZone: string,
  options: Intl.DateTimeFormatOptions,
): Intl.DateTimeFormat {
  const key = `${shape} ${locale} ${timeZone}`;
  const known = formats.get(key);
  if (known) return known;
  const format = new Intl.DateTimeFormat(locale, { ...options, timeZone });
  formats.set(key, format);
  return format;
}

const DATE = { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' } as const;

/** "Sun 31 Jan 2027" in a zone, as a locale writes it. */
export function formatDate(instant: Instant, zone: string, locale: string): string {
  const text = formatOf('date', locale, zone, DATE).format(toMs(instant));
  // British writers put no comma after the day of the week.
  return locale === 'en-GB' ? text.replace(',', '') : text;
}

/** The last day of what ends at an instant: what ends as a day begins is held until the day before. */
export const formatUntil = (end: Instant, zone: string, locale: string): string =>
  formatDate(fromMs(toMs(end) - 1), zone, locale);

/** "Sun 31 Jan 2027, 21:40" in a zone, as a locale writes it. */
export function formatDateTime(instant: Instant, zone: string, locale: string): string {
  const time = formatOf('time', locale, zone, { hour: '2-digit', minute: '2-digit' });
  return `${formatDate(instant, zone, locale)}, ${time.format(toMs(instant))}`;
}

/** "31 Jan" in a zone, as a locale writes it. */
export const formatDayMonth = (instant: Instant, zone: string, locale: string): string =>
  formatOf('day-month', locale, zone, { day: 'numeric', month: 'short' }).format(toMs(instant));

/** "31 Jan 2027", as a locale writes it. */
export function formatDay(date: LocalDate, locale: string): string {
  const { weekday: _, ...day } = DATE;
  return formatOf('day', locale, 'UTC', day).format(Date.parse(`${date}T00:00:00Z`));
}

/** "January 2027", as a locale writes it. */
export function formatMonth(month: LocalMonth, locale: string): string {
  const format = formatOf('month', locale, 'UTC', { month: 'long', year: 'numeric' });
  return format.format(Date.parse(`${month}-01T00:00:00Z`));
}

/** "26 Nov": the day and month of a local date. */
export const formatShortDay = (date: LocalDate, locale: string): string =>
  formatOf('short-day', locale, 'UTC', { day: 'numeric', month: 'short' }).format(
    Date.parse(`${date}T00:00:00Z`),
  );

/** "Thu". */
export const formatWeekday = (date: LocalDate, locale: string): string =>
  formatOf('weekday', locale, 'UTC', { weekday: 'short' }).format(Date.parse(`${date}T00:00:00Z`));

/** "Jan 2027", as a locale writes it: two digits of a year would read as a day. */
export function formatShortMonth(month: LocalMonth, locale: string): string {
  const format = formatOf('short-month', locale, 'UTC', { month: 'short', year: 'numeric' });
  return format.format(Date.parse(`${month}-01T00:00:00Z`));
}
