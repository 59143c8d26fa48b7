/**
 * A year of one member's life in the book, beside the bare schedule of the same offer, in one run.
 * npm run bench -- lives [how many]
 */
import { play, type Life } from '../src/core/billing/play';
import { expand } from '../src/core/offers/schedule';
import type { Offer } from '../src/core/offers/offer';

const START = '2027-01-31T10:00:00Z';
const END = '2028-01-31T10:00:00Z';
const ZONE = 'Europe/London';
const every = (unit: 'week' | 'month'): Offer => ({
  tier: 'observer',
  currency: 'GBP',
  steps: [{ kind: 'repeat', amount: 600, every: { n: 1, unit }, times: null }],
  after: 'end',
});
const lifeOf = (offer: Offer): Life => ({
  zone: ZONE,
  start: START,
  horizon: END,
  offer: 'o',
  offers: { o: offer },
  ladder: ['observer'],
  settings: { retryDays: [1, 3, 5, 7], graceDays: 5, creditUnused: true, waitDays: 0, downAtOnce: false },
  card: [],
  events: [],
});

/** Milliseconds for one, the best of five rounds. */
function best(count: number, one: () => unknown): number {
  let least = Infinity;
  for (let round = 0; round < 5; round++) {
    const begun = performance.now();
    for (let n = 0; n < count; n++) one();
    least = Math.min(least, (performance.now() - begun) / count);
  }
  return least;
}

export function run(args: string[]): void {
  const count = Number(args[0] ?? 300);
  for (const unit of ['month', 'week'] as const) {
    const offer = every(unit);
    const life = lifeOf(offer);
    const played = best(count, () => play(life));
    const expanded = best(count, () => expand(offer, START, ZONE, END, false));
    console.log(`a year by the ${unit}`);
    console.log(`  play    ${(played * 1000).toFixed(0)} µs, ${play(life).money.length} charges`);
    console.log(`  expand  ${(expanded * 1000).toFixed(0)} µs`);
    console.log(`  play takes ${(played / expanded).toFixed(1)} times as long (goal: within 20)`);
  }
}
