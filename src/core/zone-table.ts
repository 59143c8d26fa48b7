import { Temporal } from 'temporal-polyfill';

/**
 * Calendar arithmetic on plain numbers, for work in bulk: the zone's offsets are read once, and every sum after
 * that is whole-number arithmetic. It answers exactly as Temporal does (property-tested against it), or null where
 * a date lies outside the years it covers.
 */
type Stretch = {
  /** Instants (ms since 1970, rising) from which an offset holds; the first is the stretch's beginning. */
  from: number[];
  /** Offset from UTC in ms, for each. */
  offset: number[];
};

const DAY = 86_400_000;
const FIRST = Date.UTC(1970, 0, 3);
const LAST = Date.UTC(2100, 0, 1);
/** No answer is given within two days of the edges, where an offset beyond them could matter. */
const EDGE = 2 * DAY;
/** Offsets are read for some eight years at a time, so that a single date does not wait for a century of them. */
const STRETCH = 3_000 * DAY;

/** By zone, its stretches by number. */
const tables = new Map<string, Stretch[]>();

function tableOf(zone: string): Stretch[] {
  const known = tables.get(zone);
  if (known) return known;
  const made: Stretch[] = [];
  tables.set(zone, made);
  return made;
}

function readStretch(zone: string, number: number): Stretch {
  const begin = number * STRETCH;
  let at = Temporal.Instant.fromEpochMilliseconds(begin).toZonedDateTimeISO(zone);
  const stretch: Stretch = { from: [begin], offset: [at.offsetNanoseconds / 1e6] };
  for (;;) {
    const next = at.getTimeZoneTransition('next');
    if (!next || next.epochMilliseconds >= begin + STRETCH) return stretch;
    stretch.from.push(next.epochMilliseconds);
    stretch.offset.push(next.offsetNanoseconds / 1e6);
    at = next;
  }
}

/** The offset that holds at an instant. */
function offsetAt(zone: string, ms: number): number {
  const table = tableOf(zone);
  const number = Math.floor(ms / STRETCH);
  const { from, offset } = (table[number] ??= readStretch(zone, number));
  let index = from.length - 1;
  while (index > 0 && (from[index] ?? 0) > ms) index--;
  return offset[index] ?? 0;
}

/** The instant of a local time: the earlier of a doubled hour, later by the gap where an hour is missing. */
function instantOf(zone: string, local: number): number {
  const before = offsetAt(zone, local - DAY);
  const after = offsetAt(zone, local + DAY);
  if (before === after) return local - before;
  const early = local - Math.max(before, after);
  if (offsetAt(zone, early) === Math.max(before, after)) return early;
  const late = local - Math.min(before, after);
  if (offsetAt(zone, late) === Math.min(before, after)) return late;
  return local - before;
}

/**
 * Days from 1970-01-01 to a date of the Gregorian calendar, and back: whole-number arithmetic on years that begin in
 * March, so that the leap day comes last. Months from 1. Source: Fliegel and Van Flandern's method, by eras of 400 years.
 */
function daysFromCivil(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146_097 + dayOfEra - 719_468;
}

function civilFromDays(days: number): { year: number; month: number; day: number } {
  const shifted = days + 719_468;
  const era = Math.floor(shifted / 146_097);
  const dayOfEra = shifted - era * 146_097;
  const yearOfEra = Math.floor(
    (dayOfEra -
      Math.floor(dayOfEra / 1460) +
      Math.floor(dayOfEra / 36_524) -
      Math.floor(dayOfEra / 146_096)) /
      365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const marchMonth = Math.floor((5 * dayOfYear + 2) / 153);
  const month = marchMonth < 10 ? marchMonth + 3 : marchMonth - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    day: dayOfYear - Math.floor((153 * marchMonth + 2) / 5) + 1,
  };
}

const digits = (number: number, width: number): string => String(number).padStart(width, '0');

/**
 * The local date of an instant, as "2027-01-31". Null outside the years 1970 to 2099.
 * @param ms since 1970
 */
export function dateInZone(ms: number, zone: string): string | null {
  if (!(ms > FIRST + EDGE && ms < LAST - EDGE)) return null;
  const { year, month, day } = civilFromDays(Math.floor((ms + offsetAt(zone, ms)) / DAY));
  return `${digits(year, 4)}-${digits(month, 2)}-${digits(day, 2)}`;
}

const MONTH_DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;

function addMonths(local: number, months: number): number {
  const days = Math.floor(local / DAY);
  const date = civilFromDays(days);
  const count = date.year * 12 + date.month - 1 + months;
  const year = Math.floor(count / 12);
  const month = count - year * 12;
  const length = month === 1 && isLeap(year) ? 29 : (MONTH_DAYS[month] ?? 31);
  // A month that is too short for the day ends earlier.
  return daysFromCivil(year, month + 1, Math.min(date.day, length)) * DAY + (local - days * DAY);
}

/**
 * `start` plus `n` units in the zone's calendar, with the same rules as Temporal's ZonedDateTime.add under
 * disambiguation "compatible". Null outside the years 1970 to 2099.
 * @param start ms since 1970
 */
export function addInZone(
  start: number,
  n: number,
  unit: 'day' | 'week' | 'month' | 'year',
  zone: string,
): number | null {
  if (start < FIRST + EDGE || start > LAST - EDGE) return null;
  const local = start + offsetAt(zone, start);
  const target =
    unit === 'day' || unit === 'week'
      ? local + n * (unit === 'week' ? 7 : 1) * DAY
      : addMonths(local, unit === 'year' ? n * 12 : n);
  if (!(target > FIRST + EDGE && target < LAST - EDGE)) return null;
  return instantOf(zone, target);
}
