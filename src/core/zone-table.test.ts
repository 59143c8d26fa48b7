import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addLength, addLengthByTemporal, localDate, localDateByTemporal } from './calendar';
import { fromMs, UNITS } from './instants';
import { addInZone, dateInZone } from './zone-table';

/** Zones with every habit that clocks have: none, one hour, half an hour, a pause in Ramadan, a day left out. */
const ZONES = [
  'UTC',
  'Europe/London',
  'America/New_York',
  'Asia/Tokyo',
  'Australia/Lord_Howe',
  'Africa/Casablanca',
  'Pacific/Apia',
  'America/St_Johns',
  'Asia/Tehran',
];

describe('the local date on plain numbers', () => {
  it('is what Temporal says, whatever the zone and the year', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ZONES),
        fc.integer({ min: Date.UTC(1960, 0, 1), max: Date.UTC(2110, 0, 1) }),
        (zone, ms) => {
          expect(localDate(fromMs(ms), zone)).toBe(localDateByTemporal(fromMs(ms), zone));
        },
      ),
      { numRuns: 400 },
    );
  });

  it('is what Temporal says in the hours around midnight, also where a day is left out', () => {
    for (const zone of ZONES)
      for (const midnight of ['2027-03-28T00:00:00Z', '2011-12-30T10:00:00Z', '2028-02-29T00:00:00Z'])
        for (let quarter = -80; quarter <= 80; quarter++) {
          const at = fromMs(Date.parse(midnight) + quarter * 900_000);
          expect([zone, at, localDate(at, zone)]).toEqual([zone, at, localDateByTemporal(at, zone)]);
        }
  });

  it('is left to Temporal outside the years that it covers', () => {
    expect(dateInZone(Date.UTC(1969, 0, 1), 'UTC')).toBeNull();
    expect(dateInZone(Date.UTC(2101, 0, 1), 'UTC')).toBeNull();
  });
});

describe('adding on plain numbers', () => {
  it('answers exactly as Temporal does, whatever the zone, the day and the length', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ZONES),
        fc.integer({ min: Date.UTC(1971, 0, 1), max: Date.UTC(2095, 0, 1) }),
        fc.constantFrom(...UNITS),
        fc.integer({ min: -30, max: 60 }),
        (zone, ms, unit, n) => {
          const start = fromMs(ms);
          expect(addLength(start, { n, unit }, zone)).toBe(addLengthByTemporal(start, { n, unit }, zone));
        },
      ),
      { numRuns: 400 },
    );
  });

  it('answers exactly as Temporal does in the hours around a change of the clock', () => {
    const changes = ['2027-03-28T01:00:00Z', '2027-10-31T01:00:00Z', '2026-10-03T15:30:00Z'];
    for (const zone of ['Europe/London', 'Australia/Lord_Howe']) {
      for (const change of changes) {
        for (let quarter = -12; quarter <= 12; quarter++) {
          // A day, and a month, that end near the change.
          const end = Date.parse(change) + quarter * 900_000;
          for (const [unit, back] of [
            ['day', 1],
            ['week', 7],
            ['month', 31],
          ] as const) {
            const start = fromMs(end - back * 86_400_000);
            expect([zone, start, addLength(start, { n: 1, unit }, zone)]).toEqual([
              zone,
              start,
              addLengthByTemporal(start, { n: 1, unit }, zone),
            ]);
          }
        }
      }
    }
  });

  it('says nothing of years that it does not cover, and Temporal is asked', () => {
    expect(addInZone(Date.UTC(2099, 11, 1), 2, 'month', 'UTC')).toBeNull();
    expect(addInZone(Date.UTC(1969, 11, 1), 2, 'month', 'UTC')).toBeNull();
    expect(addLength('2099-12-01T00:00:00Z', { n: 50, unit: 'year' }, 'UTC')).toBe('2149-12-01T00:00:00Z');
    expect(addLength('2027-01-01T00:00:00.123456Z', { n: 1, unit: 'day' }, 'UTC')).toBe(
      '2027-01-02T00:00:00.123456Z',
    );
  });
});
