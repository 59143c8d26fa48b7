import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addLength } from '../calendar';
import { fromMs, toMs, type Instant } from '../instants';
import { decide } from './decide';
import { explain } from './explain';
import { VISITOR, type ItemFacts, type PersonFacts } from './facts';
import { countImpact } from './impact';
import { datedOpenings, publishingWaits } from './next-change';
import { paintRules } from './paint';
import { bucketOf, turningPoints } from './rights';
import type { Places, Rule } from './rule';
import { warningsOf } from './warnings';

const ZONE = 'Europe/London';
const SINCE = '2027-03-01T10:00:00Z';
const page = (id: string, ancestors: string[] = ['course']): ItemFacts => ({
  id,
  type: 'page',
  path: `/${id}`,
  ancestors,
  categories: [],
  tags: [],
  publishedAt: '2026-01-01T00:00:00Z',
});
const holder = (since: Instant = SINCE): PersonFacts => ({
  ...VISITOR,
  signedIn: true,
  joinedAt: since,
  tiers: [{ tier: 'maker', since, paid: true }],
});
/** In this order below the course. */
const inOrder = (...ids: string[]): Places =>
  Object.fromEntries(ids.map((id, n) => [id, [{ parent: 'course', place: n + 1, until: null }]]));
const course = (more: Partial<Rule> = {}): Rule => ({
  id: 'course',
  covers: [{ kind: 'under', id: 'course' }],
  openTo: [{ who: { kind: 'tier', id: 'maker' } }],
  each: { n: 1, unit: 'week' },
  places: inOrder('one', 'two', 'three'),
  ...more,
});
const asked = (rule: Rule, item: ItemFacts, now: Instant, person = holder()) => ({
  now,
  zone: ZONE,
  default: 'everyone' as const,
  rules: [rule],
  item,
  person,
});
const opens = (rule: Rule, item: ItemFacts, person = holder()) =>
  decide(asked(rule, item, SINCE, person)).opensAt;

describe('a series of pages', () => {
  it('opens its k-th page k times the length after the opening edge, over a change of the clocks too', () => {
    expect(opens(course(), page('one'))).toBe('2027-03-08T10:00:00Z');
    expect(opens(course(), page('two'))).toBe('2027-03-15T10:00:00Z');
    // At the same time of day, by the clock on the wall.
    expect(opens(course({ each: { n: 2, unit: 'week' } }), page('two'))).toBe('2027-03-29T09:00:00Z');
  });

  it('opens the first with the edge itself, where that was asked for; the page above is open from then on', () => {
    const rule = course({ firstAtOnce: true });
    expect(decide(asked(rule, page('one'), SINCE)).state).toBe('open');
    expect(opens(rule, page('two'))).toBe('2027-03-08T10:00:00Z');
    expect(decide(asked(rule, page('course', []), SINCE)).state).toBe('open');
  });

  it('counts from the edge of each line: a wait, a date, or joining', () => {
    const wait = { since: 'held', after: { n: 3, unit: 'day' } } as const;
    const line = (
      who: Rule['openTo'][number]['who'],
      edge?: typeof wait | { on: `${number}-${number}-${number}` },
    ) => ({
      openTo: [{ who, ...(edge && { opens: edge }) }],
    });
    const maker = { kind: 'tier', id: 'maker' } as const;
    expect(opens(course(line(maker, wait)), page('one'))).toBe('2027-03-11T10:00:00Z');
    expect(opens(course(line(maker, { on: '2027-04-01' })), page('one'))).toBe('2027-04-07T23:00:00Z');
    expect(opens(course(line({ kind: 'signed-in' })), page('one'))).toBe('2027-03-08T10:00:00Z');
    // A visitor has neither got anything nor joined.
    expect(decide(asked(course(line({ kind: 'everyone' })), page('one'), SINCE, VISITOR)).state).toBe(
      'closed',
    );
    expect(opens(course(line({ kind: 'everyone' }, { on: '2027-04-01' })), page('one'), VISITOR)).toBe(
      '2027-04-07T23:00:00Z',
    );
  });

  it('opens a page further down with the one above it that is in the series', () => {
    expect(opens(course(), page('aside', ['two', 'course']))).toBe('2027-03-15T10:00:00Z');
  });

  it('keeps a page without a place closed, and ends when the line does', () => {
    expect(decide(asked(course(), page('draft'), SINCE)).state).toBe('closed');
    expect(decide(asked(course({ places: undefined }), page('one'), SINCE)).state).toBe('closed');
    const closes = { since: 'held', after: { n: 10, unit: 'day' } } as const;
    const ending = course({ openTo: [{ who: { kind: 'tier', id: 'maker' }, closes }] });
    expect(opens(ending, page('one'))).toBe('2027-03-08T10:00:00Z');
    expect(decide(asked(ending, page('two'), SINCE)).state).toBe('closed');
  });

  it('is no series for what the rule covers in another way', () => {
    const rule = course({ covers: [{ kind: 'category', id: 'craft' }] });
    expect(decide(asked(rule, { ...page('one'), categories: ['craft'] }, SINCE)).state).toBe('open');
  });

  it('says when each line opens where it is explained', () => {
    const [reason] = explain(asked(course(), page('two'), SINCE)).deciding;
    expect(reason?.lines[0]).toMatchObject({ state: 'later', opensAt: '2027-03-15T10:00:00Z' });
  });
});

describe('pages that are moved', () => {
  const day = (n: number): Instant => fromMs(toMs(SINCE) + n * 86_400_000);
  const ids = ['a', 'b', 'c', 'd', 'e'];

  it('never close to anyone what was open to them, whatever is moved and when', () => {
    const move = fc.record({
      day: fc.integer({ min: 0, max: 60 }),
      order: fc.shuffledSubarray(ids, { minLength: 1 }),
    });
    fc.assert(
      fc.property(
        fc.array(move, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: -40, max: 40 }),
        (moves, joined) => {
          const sorted = moves.sort((one, other) => one.day - other.day);
          let places: Places = inOrder(...ids);
          const open = new Set<string>();
          for (const { day: at, order } of [...sorted, { day: 61, order: ids }]) {
            const rule = course({ places });
            for (const id of ids) {
              // What has no place now is a draft, which nobody reads.
              if (!places[id]?.some(({ until }) => until === null)) continue;
              const { state } = decide(asked(rule, page(id), day(at), holder(day(joined))));
              if (open.has(id)) expect(state, `${id} on day ${at}`).toBe('open');
              if (state === 'open') open.add(id);
            }
            places = moved(places, order, day(at));
          }
        },
      ),
    );
  });

  it('open by their new place to those to whom they were not open yet', () => {
    const places = moved(inOrder('a', 'b', 'c'), ['c', 'a', 'b'], day(8));
    // Who joined a week and a day before has read "a", which is second now; "c" comes first from now on.
    const rule = course({ places });
    expect(decide(asked(rule, page('a'), day(8))).state).toBe('open');
    expect(decide(asked(rule, page('c'), day(8))).state).toBe('open');
    expect(opens(rule, page('b'))).toBe(addLength(SINCE, { n: 3, unit: 'week' }, ZONE));
    expect(opens(rule, page('a'), holder(day(8)))).toBe(addLength(day(8), { n: 2, unit: 'week' }, ZONE));
  });

  /** The places after a move: those that change end, and are noted. */
  function moved(places: Places, order: string[], at: Instant): Places {
    return Object.fromEntries(
      ids.map((id) => {
        const place = order.indexOf(id) + 1;
        const known = places[id] ?? [];
        const now = known.find(({ until }) => until === null);
        if (now?.place === place) return [id, known];
        const past = known.map((one) => (one === now ? { ...one, until: at } : one));
        return [id, place > 0 ? [...past, { parent: 'course', place, until: null }] : past];
      }),
    );
  }
});

describe('what is worked out for many at once', () => {
  it('puts no two people together who have reached different pages, nor two pages of different places', () => {
    const rule = course({ openTo: [{ who: { kind: 'signed-in' } }], firstAtOnce: true });
    const now = '2027-06-01T12:00:00Z';
    const points = turningPoints([rule], ['held', 'joined'], now, ZONE);
    const start = fc.integer({ min: -40 * 24, max: 0 }).map((hours) => fromMs(toMs(now) + hours * 3_600_000));
    fc.assert(
      fc.property(start, start, (one, other) => {
        if (bucketOf(one, points) !== bucketOf(other, points)) return;
        for (const id of ['one', 'two', 'three'])
          expect(decide(asked(rule, page(id), now, holder(one))).state).toBe(
            decide(asked(rule, page(id), now, holder(other))).state,
          );
      }),
    );
    const opened = countImpact(
      { now, zone: ZONE, default: 'everyone' },
      { before: [{ ...rule, openTo: [] }], after: [rule] },
      ['one', 'two', 'three'].map((id) => page(id)),
      [holder(fromMs(toMs(now) - 8 * 86_400_000))],
    );
    expect(opened).toEqual([{ opens: 2, closes: 0 }]);
  });

  it('knows when pages open to visitors: so long after publishing, or after a date', () => {
    const published = { since: 'published', after: { n: 1, unit: 'day' } } as const;
    const visitors = course({
      openTo: [{ who: { kind: 'everyone' }, opens: published }],
      each: { n: 6, unit: 'hour' },
      places: inOrder('one', 'two'),
    });
    const waits = publishingWaits([visitors], '2027-06-01T12:00:00Z', '2027-06-01T13:00:00Z');
    expect(
      waits.map(({ lengths }) => lengths.map(({ length, times }) => [length.unit, length.n * times])),
    ).toEqual([
      [['day', 1]],
      [
        ['day', 1],
        ['hour', 6],
      ],
      [
        ['day', 1],
        ['hour', 12],
      ],
    ]);
    const dated = {
      ...visitors,
      openTo: [{ who: { kind: 'everyone' as const }, opens: { on: '2027-06-01' as const } }],
    };
    expect(datedOpenings([dated], ZONE)).toEqual(['2027-06-01T05:00:00Z', '2027-06-01T11:00:00Z']);
  });

  it('warns where a page opens after the tier has ended', () => {
    const tiers = [{ id: 'maker', paid: true, onSale: true, longest: { n: 2, unit: 'week' } as const }];
    const warned = (rule: Rule) =>
      warningsOf([rule], [page('one'), page('two'), page('three')], {
        now: SINCE,
        zone: ZONE,
        default: 'everyone',
        tiers,
        groups: [],
      }).filter(({ kind }) => kind === 'too-long');
    expect(warned(course())).toEqual([{ kind: 'too-long', rule: 'course', tier: 'maker' }]);
    expect(warned(course({ places: inOrder('one') }))).toEqual([]);
  });
});

describe('a page of a series whose cell is painted', () => {
  const painted = (rule: Rule) =>
    paintRules(
      [rule],
      [{ target: { kind: 'item', id: 'two' }, facts: page('two'), who: { kind: 'everyone' }, to: 'open' }],
      {
        default: 'everyone',
        tiers: [{ id: 'maker', paid: true }],
        newId: () => 'two',
      },
    ).after.find(({ id }) => id === 'two');

  it('keeps for the others the time at which it would open', () => {
    expect(painted(course())?.openTo).toEqual([
      { who: { kind: 'tier', id: 'maker' }, opens: { since: 'held', after: { n: 2, unit: 'week' } } },
      { who: { kind: 'everyone' } },
    ]);
    const edge = (opens: NonNullable<Rule['openTo'][number]['opens']>) =>
      painted(course({ openTo: [{ who: { kind: 'tier', id: 'maker' }, opens }] }))?.openTo[0]?.opens;
    expect(edge({ since: 'held', after: { n: 3, unit: 'day' } })).toEqual({
      since: 'held',
      after: { n: 17, unit: 'day' },
    });
    expect(edge({ on: '2027-03-20' })).toEqual({ on: '2027-04-03' });
    const monthly = course({
      each: { n: 1, unit: 'month' },
      openTo: [
        { who: { kind: 'tier', id: 'maker' }, opens: { since: 'held', after: { n: 5, unit: 'day' } } },
      ],
    });
    // No longer than any two months and five days: what was open stays so.
    expect(painted(monthly)?.openTo[0]?.opens).toEqual({ since: 'held', after: { n: 62, unit: 'day' } });
  });
});
