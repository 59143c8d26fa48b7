import { expect, it } from 'vitest';
import { addLength } from '../calendar';
import { isBefore, UNITS, type Instant } from '../instants';
import { publishingWaits } from './next-change';
import { ruleSchema } from './rule-schema';

const rule = (...edges: unknown[]) =>
  ruleSchema.parse({
    id: 'frames',
    covers: [{ kind: 'site' }],
    openTo: edges.map((opens) => ({ who: { kind: 'everyone' }, opens })),
  });
const published = (n: number, unit: string) => ({ since: 'published', after: { n, unit } });

it('names each wait from publishing once, and no date or wait from joining', () => {
  const waits = publishingWaits(
    [
      rule(published(3, 'day'), published(2, 'month')),
      rule(published(3, 'day'), { on: '2027-05-01' }, { since: 'joined', after: { n: 1, unit: 'day' } }),
    ],
    '2027-05-10T12:00:00Z',
    '2027-05-10T13:00:00Z',
  );
  expect(waits.map(({ lengths }) => lengths[0]?.length)).toEqual([
    { n: 3, unit: 'day' },
    { n: 2, unit: 'month' },
  ]);
});

it('takes in all items whose wait ends within the hour, in every month and over a change of the clocks', () => {
  const zone = 'Europe/London';
  const [from, to]: Instant[] = ['2027-03-28T00:00:00Z', '2027-03-28T02:00:00Z'];
  for (const unit of UNITS)
    for (const n of [1, 5]) {
      const [wait] = publishingWaits([rule(published(n, unit))], from!, to!);
      for (let hour = 0; hour < 24 * 460; hour++) {
        const at = new Date(
          Date.parse(n === 5 && unit === 'year' ? '2022-03-01T00:30:00Z' : '2026-01-01T00:30:00Z') +
            hour * 3_600_000,
        ).toISOString() as Instant;
        const ends = addLength(at, { n, unit }, zone);
        if (!isBefore(ends, from!) && isBefore(ends, to!))
          expect(!isBefore(at, wait!.from) && isBefore(at, wait!.to), `${n} ${unit} from ${at}`).toBe(true);
      }
    }
});
