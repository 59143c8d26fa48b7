import { describe, expect, it } from 'vitest';
import { laneWindow, monthsOf, partsOf, placeOf } from './lanes';

const now = '2026-11-28T12:00:00Z';
const zone = 'Europe/London';
const window = laneWindow('2026-01-28T12:00:00Z', now, zone);

describe('the lanes of a member', () => {
  it('show half a year back at least, a year at most, and half a year ahead', () => {
    expect(window).toEqual({ from: '2026-01-28T12:00:00Z', to: '2027-05-28T11:00:00Z', now });
    expect(laneWindow('2020-01-01T00:00:00Z', now, zone).from).toBe('2025-11-28T12:00:00Z');
    expect(laneWindow('2026-11-20T00:00:00Z', now, zone).from).toBe('2026-05-28T11:00:00Z');
  });

  it('have each instant at its place, and what is outside at the edge', () => {
    expect(placeOf(window, window.from)).toBe(0);
    expect(placeOf(window, window.to)).toBe(100);
    expect(placeOf(window, '2020-01-01T00:00:00Z')).toBe(0);
    expect(placeOf(window, now)).toBeCloseTo(62.68, 1);
  });

  it('part what is past from what is ahead', () => {
    const [past, ahead, ...more] = partsOf(window, '2026-05-28T11:00:00Z', null);
    expect(more).toEqual([]);
    expect(past).toMatchObject({ isAhead: false });
    expect(ahead).toMatchObject({ isAhead: true, left: placeOf(window, now) });
    expect(past!.left + past!.width).toBeCloseTo(ahead!.left, 1);
    expect(ahead!.left + ahead!.width).toBeCloseTo(100, 1);
    expect(partsOf(window, '2026-05-28T11:00:00Z', '2026-06-28T11:00:00Z')).toHaveLength(1);
    expect(partsOf(window, '2025-01-01T00:00:00Z', '2025-06-01T00:00:00Z')).toEqual([]);
    expect(partsOf(window, '2027-01-01T00:00:00Z', '2027-02-01T00:00:00Z')).toMatchObject([
      { isAhead: true },
    ]);
  });

  it('are marked by every second month', () => {
    const months = monthsOf(window, zone);
    expect(months[0]).toEqual({ at: '2026-02-01T00:00:00Z', left: placeOf(window, '2026-02-01T00:00:00Z') });
    // The first of a month in summer is the last hour of the month before in UTC.
    expect(months.map(({ at }) => at.slice(0, 13))).toEqual([
      '2026-02-01T00',
      '2026-03-31T23',
      '2026-05-31T23',
      '2026-07-31T23',
      '2026-09-30T23',
      '2026-12-01T00',
      '2027-02-01T00',
      '2027-03-31T23',
    ]);
  });
});
