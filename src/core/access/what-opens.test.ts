import { describe, expect, it } from 'vitest';
import { compileRules } from './compile';
import type { ItemFacts } from './facts';
import { ruleSchema } from './rule-schema';
import { compareTiers, coveredBy, movesWithTime, OTHERS, whatTiersOpen } from './what-opens';
import type { Instant } from '../instants';

const NOW = '2027-05-10T12:00:00Z';
const item = (
  id: string,
  category: string | null,
  publishedAt: Instant | null = '2027-05-09T12:00:00Z',
): ItemFacts => ({
  id,
  type: 'post',
  path: `/posts/${id}`,
  ancestors: [],
  categories: category ? [category] : [],
  tags: [],
  publishedAt,
});
const rule = (id: string, category: string, openTo: unknown[]) =>
  ruleSchema.parse({
    id,
    name: id,
    on: true,
    covers: [{ kind: 'category', id: category }],
    except: [],
    openTo,
    alsoRequire: false,
  });
const after = (n: number) => ({ since: 'published', after: { n, unit: 'day' } });
const rules = [
  rule('guides', 'guides', [
    { who: { kind: 'tier', id: 'observer' } },
    { who: { kind: 'tier', id: 'warden' } },
  ]),
  rule('frames', 'frames', [
    { who: { kind: 'tier', id: 'warden' } },
    { who: { kind: 'tier', id: 'observer' }, opens: after(3) },
    { who: { kind: 'everyone' }, opens: after(30) },
  ]),
  rule('library', 'library', [{ who: { kind: 'paying' } }]),
];
const items = [item('g', 'guides'), item('f', 'frames'), item('l', 'library'), item('open', null)];
const tiers = [
  { tier: 'gazer', paid: false },
  { tier: 'observer', paid: true },
  { tier: 'warden', paid: true },
];
const question = { now: NOW, zone: 'Europe/London', default: 'everyone' } as const;
const openedOf = (some: ItemFacts[]) => whatTiersOpen(question, coveredBy(compileRules(rules), some), tiers);
const opened = openedOf(items);
const ids = (tier: string, when: 'now' | 'later') => opened.get(tier)?.[when].map(({ id }) => id);

it('of items that the same rules cover is decided once, and yet for each', () => {
  const many = Array.from({ length: 300 }, (_, n) =>
    item(
      `x${n}`,
      ['guides', 'frames', 'library', null][n % 4] ?? null,
      n % 3 ? '2027-05-09T12:00:00Z' : '2027-01-01T12:00:00Z',
    ),
  );
  const whole = openedOf(many);
  for (const { tier } of tiers) {
    const alone = many.map((one) => openedOf([one]).get(tier));
    expect(whole.get(tier)).toEqual({
      now: alone.flatMap((one) => one?.now ?? []),
      later: alone.flatMap((one) => one?.later ?? []),
    });
  }
});

it('ends to be closed when the longest wait from publishing has passed, to the hour', () => {
  const at = {
    almost: '2027-04-10T13:00:00Z',
    just: '2027-04-10T12:00:00Z',
    long: '2026-04-10T12:00:00Z',
  } as const;
  const some = Object.entries(at).map(([id, publishedAt]) => item(id, 'frames', publishedAt));
  const ofWarden = openedOf([...some, item('never', 'frames', null)]).get('warden');
  expect(ofWarden?.now.map(({ id }) => id)).toEqual(['almost', 'never']);
});

it('moves with the clock where a date or publishing is counted from', () => {
  expect(movesWithTime(rules)).toBe(true);
  expect(movesWithTime(rules.slice(0, 1))).toBe(false);
});

describe('what a tier opens', () => {
  it('is what is not open without it: at once, and after a wait', () => {
    expect([ids('observer', 'now'), ids('observer', 'later')]).toEqual([['g', 'l'], ['f']]);
    expect([ids('warden', 'now'), ids('warden', 'later')]).toEqual([['g', 'f', 'l'], []]);
  });

  it('is not what opens to everyone after the same wait', () => {
    expect([ids('gazer', 'now'), ids('gazer', 'later')]).toEqual([[], []]);
  });

  it('is shown side by side, a line for each group, with those that open none', () => {
    expect(compareTiers(opened, (each) => each.categories[0] ?? each.type)).toEqual([
      {
        group: 'frames',
        total: 1,
        cells: [
          { tier: 'gazer', now: 0, later: 0 },
          { tier: 'observer', now: 0, later: 1 },
          { tier: 'warden', now: 1, later: 0 },
        ],
      },
      expect.objectContaining({ group: 'guides', total: 1 }),
      expect.objectContaining({ group: 'library', total: 1 }),
    ]);
  });

  it('has no more lines than asked for: all other groups share the last one', () => {
    const lines = compareTiers(opened, (each) => each.categories[0] ?? each.type, 2);
    expect(lines.map(({ group, total }) => [group, total])).toEqual([
      ['frames', 1],
      [OTHERS, 2],
    ]);
    expect(lines[1]?.cells.find(({ tier }) => tier === 'observer')).toEqual({
      tier: 'observer',
      now: 2,
      later: 0,
    });
  });
});
