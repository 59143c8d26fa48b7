import fc from 'fast-check';
import { expect, it } from 'vitest';
import { addLength } from '../calendar';
import { fromMs, isBefore, toMs } from '../instants';
import { bucketOf, turningPoints } from './rights';
import type { Rule } from './rule';

const zone = 'Europe/London';
const units = fc.constantFrom('hour', 'day', 'week', 'month', 'year');

it('two people who began between the same two turning points have reached the same edges', () => {
  const length = fc.record({ n: fc.integer({ min: 1, max: 40 }), unit: units });
  const now = fc.integer({ min: toMs('2026-01-01T00:00:00Z'), max: toMs('2028-01-01T00:00:00Z') });
  fc.assert(
    fc.property(
      fc.array(length, { minLength: 1, maxLength: 4 }),
      now,
      fc.nat(),
      fc.nat(),
      (lengths, ms, a, b) => {
        const at = fromMs(ms);
        const rules: Rule[] = lengths.map((after, n) => ({
          id: `r${n}`,
          covers: [{ kind: 'site' }],
          openTo: [{ who: { kind: 'signed-in' }, opens: { since: 'joined', after } }],
        }));
        const points = turningPoints(rules, ['joined'], at, zone);
        const reached = (began: string) =>
          lengths.map((after) => !isBefore(at, addLength(began as typeof at, after, zone)));
        const [one, other] = [a, b].map((n) => fromMs(ms - (n % (5 * 365 * 86_400_000))));
        if (one && other && bucketOf(one, points) === bucketOf(other, points))
          expect(reached(one)).toEqual(reached(other));
        for (const point of points) {
          const before = fromMs(toMs(point) - 1);
          expect(reached(before)).not.toEqual(reached(point));
        }
      },
    ),
    { numRuns: 500 },
  );
});

it('edges by date, of other anchors and of rules that are off have none', () => {
  const rule = (more: Partial<Rule>): Rule => ({ id: 'r', covers: [{ kind: 'site' }], openTo: [], ...more });
  const after = { n: 3, unit: 'day' } as const;
  const who = { kind: 'signed-in' } as const;
  const now = '2026-05-01T00:00:00Z';
  const dated = rule({ openTo: [{ who, opens: { on: '2026-01-01' } }] });
  const published = rule({ openTo: [{ who, closes: { since: 'published', after } }] });
  expect(turningPoints([dated, published], ['held', 'joined'], now, zone)).toEqual([]);
  expect(turningPoints([{ ...published, on: false }], ['published'], now, zone)).toEqual([]);
  expect(turningPoints([published], ['published'], now, zone)).toHaveLength(1);
});
