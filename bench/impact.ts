/**
 * What a change to one category would do to a million members with 5,000 distinct rights, and 100,000 items; and the same
 * rights with ten times fewer and more members. npm run bench -- impact
 */
import { countImpact } from '../src/core/access/impact';
import { VISITOR, type ItemFacts, type PersonFacts } from '../src/core/access/facts';
import type { Opener, Rule } from '../src/core/access/rule';

const NOW = '2027-01-31T15:00:00Z';
const asked = { now: NOW, zone: 'Europe/London', default: 'everyone' } as const;
const TIERS = Array.from({ length: 40 }, (_, n) => `t${n}`);

const lines = (n: number): Opener[] => [
  { who: { kind: 'tier', id: TIERS[n % 40] ?? '' } },
  {
    who: { kind: 'tier', id: TIERS[(n * 7 + 1) % 40] ?? '' },
    opens: { since: 'published', after: { n: 3, unit: 'day' } },
  },
  { who: { kind: 'group', id: `g${n % 20}` } },
];
const before: Rule[] = Array.from({ length: 200 }, (_, n) => ({
  id: `r${n}`,
  covers: [{ kind: 'category', id: `c${n}` }],
  openTo: lines(n),
}));
const after = before.map((rule) => (rule.id === 'r7' ? { ...rule, openTo: lines(8) } : rule));
const items: ItemFacts[] = Array.from({ length: 100_000 }, (_, n) => ({
  id: `i${n}`,
  type: 'post',
  path: `/posts/i${n}`,
  ancestors: [],
  categories: [`c${n % 200}`],
  tags: [],
  publishedAt: new Date(Date.parse(NOW) - (n % 1000) * 3_600_000)
    .toISOString()
    .replace('.000', '') as typeof NOW,
}));

/** So many people, no two with the same rights. */
const distinct = (count: number): PersonFacts[] =>
  Array.from({ length: count }, (_, n) => ({
    ...VISITOR,
    signedIn: true,
    joinedAt: NOW,
    tiers: [
      { tier: TIERS[n % 40] ?? '', since: NOW, paid: true },
      { tier: TIERS[Math.floor(n / 40) % 40] ?? '', since: NOW, paid: true },
    ],
    groups: [`g${Math.floor(n / 1600) % 20}`],
  }));

export function run(): void {
  for (const [rights, members] of [
    [500, 1_000_000],
    [5_000, 100_000],
    [5_000, 1_000_000],
    [5_000, 10_000_000],
    [20_000, 1_000_000],
  ] as const) {
    const people = distinct(rights);
    // Each right is held by as many: what is counted for it is counted for all of them.
    const share = members / rights;
    globalThis.gc?.();
    const begun = performance.now();
    const counts = countImpact(asked, { before, after }, items, people);
    const ms = performance.now() - begun;
    const affected = counts.filter(({ opens, closes }) => opens + closes > 0).length * share;
    const { rss, heapUsed } = process.memoryUsage();
    console.log(
      `${rights.toLocaleString('en-GB').padStart(7)} distinct rights of ${members.toLocaleString('en-GB').padStart(10)} members: ` +
        `${Math.round(ms)} ms, ${Math.round(affected).toLocaleString('en-GB')} members affected; ` +
        `${Math.round(heapUsed / 1e6)} MB of heap, ${Math.round(rss / 1e6)} MB in all`,
    );
  }
}
