import { describe, expect, it } from 'vitest';
import {
  addLength,
  endOfDate,
  formatDays,
  localDate,
  localTime,
  readLocalTime,
  startOfDate,
  readInstant,
} from './calendar';
import {
  compare,
  daysOfMonth,
  earliest,
  formatDate,
  formatDateTime,
  formatDay,
  formatMonth,
  isLocalDate,
  isZone,
  latest,
  monthAfter,
  type Instant,
} from './instants';

const LONDON = 'Europe/London';

describe('an instant from elsewhere', () => {
  it.each([
    ['2027-01-31T15:00:00+00:00', '2027-01-31T15:00:00Z'],
    ['2027-01-31T15:00:00.125+00:00', '2027-01-31T15:00:00.125Z'],
    ['2027-01-31T15:00:00.123456Z', '2027-01-31T15:00:00.123456Z'],
    ['2027-01-31T15:00:00.500000Z', '2027-01-31T15:00:00.5Z'],
    ['2027-01-31T15:00:00.000Z', '2027-01-31T15:00:00Z'],
    ['2027-01-31T15:00+01:00', '2027-01-31T14:00:00Z'],
    ['0999-01-31T15:00:00Z', '0999-01-31T15:00:00Z'],
  ])('%s is %s', (text, instant) => expect(readInstant(text)).toBe(instant));

  it.each(['2027-02-30T00:00:00Z', '2027-13-01T00:00:00Z', '2027-01-31T24:00:00Z', 'tomorrow', ''])(
    'is not %s',
    (text) => expect(() => readInstant(text)).toThrow(RangeError),
  );
});

describe('local dates', () => {
  it('begin at midnight where the site is, summer and winter', () => {
    expect(startOfDate('2027-01-10', LONDON)).toBe('2027-01-10T00:00:00Z');
    expect(startOfDate('2027-07-10', LONDON)).toBe('2027-07-09T23:00:00Z');
    expect(endOfDate('2027-08-09', LONDON)).toBe('2027-08-09T23:00:00Z');
  });

  it('begin at one o’clock where midnight is left out', () => {
    expect(startOfDate('2018-11-04', 'America/Sao_Paulo')).toBe('2018-11-04T03:00:00Z');
  });

  it('of one instant differ from zone to zone', () => {
    expect(localDate('2027-06-10T23:30:00Z', LONDON)).toBe('2027-06-11');
    expect(localDate('2027-06-10T23:30:00Z', 'America/New_York')).toBe('2027-06-10');
  });

  it.each([
    ['2027-02-28', true],
    ['2027-02-29', false],
    ['2028-02-29', true],
    ['2027-2-1', false],
    ['soon', false],
  ])('%s exists: %s', (date, exists) => expect(isLocalDate(date)).toBe(exists));
});

describe('lengths', () => {
  it('clamp at month ends, in both directions', () => {
    expect(addLength('2027-03-31T12:00:00Z', { n: 1, unit: 'month' }, 'UTC', -1)).toBe(
      '2027-02-28T12:00:00Z',
    );
    expect(addLength('2028-02-29T12:00:00Z', { n: 1, unit: 'year' }, 'UTC')).toBe('2029-02-28T12:00:00Z');
  });

  it('of nothing change nothing, even within an hour that comes twice', () => {
    expect(addLength('2027-10-31T01:30:00Z', { n: 1, unit: 'day' }, LONDON, 0)).toBe('2027-10-31T01:30:00Z');
  });

  it('of hours are exact across a clock change', () => {
    expect(addLength('2027-03-27T12:00:00Z', { n: 24, unit: 'hour' }, LONDON)).toBe('2027-03-28T12:00:00Z');
    expect(addLength('2027-03-27T12:00:00Z', { n: 1, unit: 'day' }, LONDON)).toBe('2027-03-28T11:00:00Z');
  });
});

it('instants are compared as instants, whatever the width of their fractions', () => {
  expect(compare('2027-01-01T00:00:00.5Z', '2027-01-01T00:00:00Z')).toBeGreaterThan(0);
  expect(earliest('2027-01-01T00:00:00.25Z', '2027-01-01T00:00:00Z')).toBe('2027-01-01T00:00:00Z');
  expect(latest('2027-01-01T00:00:00.25Z', '2027-01-01T00:00:00Z')).toBe('2027-01-01T00:00:00.25Z');
});

it('are shown in the site’s zone', () => {
  expect(formatDate('2027-01-31T15:00:00Z', LONDON, 'en-GB')).toBe('Sun 31 Jan 2027');
  const at = '2027-07-31T23:05:00Z';
  expect(formatDateTime(at, LONDON, 'en-GB')).toBe('Sun 1 Aug 2027, 00:05');
  expect(formatDateTime(at, LONDON, 'de-DE')).toBe('So., 1. Aug. 2027, 00:05');
  expect(formatDateTime(at, LONDON, 'en-US').replace(/\u202f/g, ' ')).toBe('Sun, Aug 1, 2027, 12:05 AM');
  expect([formatDay('2027-08-01', 'de-DE'), formatMonth('2027-08', 'de-DE')]).toEqual([
    '1. Aug. 2027',
    'August 2027',
  ]);
});

it('zones are known by their IANA names', () => {
  expect([isZone(LONDON), isZone('Moor/Lantern')]).toEqual([true, false]);
});

it('writes the days of a stretch without the one on which the next begins', () => {
  const days = (from: Instant, to: Instant): string =>
    formatDays(from, to, 'Europe/London', 'en-GB').replace(/\u2009|\u202f/g, ' ');
  expect(days('2026-11-25T15:00:00Z', '2026-12-25T15:00:00Z')).toBe('25 Nov – 24 Dec 2026');
  expect(days('2026-11-01T00:00:00Z', '2026-12-01T00:00:00Z')).toBe('1 – 30 Nov 2026');
  expect(days('2026-12-31T12:00:00Z', '2027-12-31T12:00:00Z')).toBe('31 Dec 2026 – 30 Dec 2027');
  expect(days('2026-11-25T10:00:00Z', '2026-11-25T12:00:00Z')).toBe('25 Nov 2026');
});

describe('a local time as a form has it', () => {
  it('is an instant in the zone, over a clock change too', () => {
    expect(readLocalTime('2027-03-01T08:30', 'Europe/London')).toBe('2027-03-01T08:30:00Z');
    expect(readLocalTime('2027-07-01T08:30', 'Europe/London')).toBe('2027-07-01T07:30:00Z');
    // The hour that is left out, and the one that comes twice.
    expect(readLocalTime('2027-03-28T01:30', 'Europe/London')).toBe('2027-03-28T01:30:00Z');
    expect(readLocalTime('2027-10-31T01:30', 'Europe/London')).toBe('2027-10-31T00:30:00Z');
    for (const none of ['', 'soon', '2027-02-30T08:00', '2027-13-01T00:00'])
      expect(readLocalTime(none, 'Europe/London')).toBeNull();
  });

  it('is read as it was written, to the minute', () => {
    expect(localTime('2027-07-01T07:30:59.5Z', 'Europe/London')).toBe('2027-07-01T08:30');
  });
});

describe('months', () => {
  it('follow one another over the end of a year, and have their days', () => {
    expect([monthAfter('2027-12', 1), monthAfter('2027-01', -1), monthAfter('2027-05', 0)]).toEqual([
      '2028-01',
      '2026-12',
      '2027-05',
    ]);
    expect(daysOfMonth('2028-02')).toHaveLength(29);
    expect(daysOfMonth('2027-02').at(-1)).toBe('2027-02-28');
  });
});
