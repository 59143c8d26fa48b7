/**
 * The next twelve months of charges for 100,000 subscriptions of mixed offers: with the product's calendar, and with
 * Temporal alone, in one run over the same subscriptions. npm run bench -- schedules [HOW-MANY]
 */
import { isDeepStrictEqual } from 'node:util';
import { TEMPORAL_CALENDAR } from '../src/core/calendar';
import { fromMs } from '../src/core/instants';
import type { Offer } from '../src/core/offers/offer';
import { offerSchema } from '../src/core/offers/offer-schema';
import { forecast, forecastBy, type Agreement, type ForecastMonth } from '../src/core/reports/forecast';

const ZONE = 'Europe/London';
const NOW = '2027-01-31T15:00:00Z';
const MONTHS = 12;

const offer = (currency: string, steps: unknown[], rest: object = {}): Offer =>
  offerSchema.parse({ tier: 'observer', currency, steps, after: 'end', ...rest });
const repeat = (amount: number, n: number, unit: string, times: number | null = null) => ({
  kind: 'repeat',
  amount,
  every: { n, unit },
  times,
});
const trial = (n: number, amount = 0) => ({ kind: 'trial', amount, lasts: { n, unit: 'day' } });

const OFFERS: Offer[] = [
  offer('GBP', [trial(14), repeat(600, 1, 'month')]),
  offer('GBP', [trial(14), repeat(6000, 1, 'year')]),
  offer('GBP', [trial(30), repeat(1500, 1, 'month')], { joiningFee: { amount: 1000, due: 'first-payment' } }),
  offer('GBP', [repeat(200, 1, 'month', 3), repeat(600, 1, 'month')]),
  offer('GBP', [repeat(4500, 1, 'month', 4)], { after: 'keep' }),
  offer('EUR', [repeat(250, 10, 'day')]),
  offer('EUR', [repeat(1700, 3, 'month')]),
  offer('GBP', [repeat(3200, 6, 'month')]),
  offer('GBP', [{ kind: 'once', amount: 2500, lasts: { until: '2027-08-09' } }]),
  offer('GBP', [trial(7, 500), repeat(7000, 1, 'year')]),
  offer('JPY', [repeat(900, 1, 'month')]),
  offer('KWD', [repeat(1250, 4, 'week')]),
];

/** The same subscriptions in each pass, made as they are needed: joined at any hour of the six years before now. */
function* subscriptions(count: number): Generator<Agreement> {
  let seed = 20_270_131;
  const random = (below: number): number => {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    return seed % below;
  };
  for (let n = 0; n < count; n++) {
    const startedAt = fromMs(Date.parse(NOW) - random(6 * 365 * 24) * 3_600_000 - random(3600) * 1000);
    yield { offer: OFFERS[n % OFFERS.length] as Offer, startedAt, skipTrial: random(5) === 0 };
  }
}

function measure(work: () => ForecastMonth[]) {
  const begun = performance.now();
  const sums = work();
  return { sums, ms: performance.now() - begun };
}

const peakMb = (): number => Math.round(process.resourceUsage().maxRSS / 1024);

export function run(args: string[]): void {
  const count = Number(args[0] ?? 100_000);
  forecast(subscriptions(1_000), ZONE, NOW, MONTHS);
  const fast = measure(() => forecast(subscriptions(count), ZONE, NOW, MONTHS));
  const afterFast = peakMb();
  const slow = measure(() =>
    forecastBy(TEMPORAL_CALENDAR, (instant) => instant, subscriptions(count), ZONE, NOW, MONTHS),
  );
  const charges = fast.sums.reduce((sum, month) => sum + month.charges, 0);
  if (!isDeepStrictEqual(fast.sums, slow.sums)) throw new Error('the two passes came to different sums');
  const seconds = (ms: number): string => `${(ms / 1000).toFixed(2)} s`;
  console.log(`  ${count} subscriptions of ${OFFERS.length} offers: ${charges} charges in ${MONTHS} months`);
  console.log(`  the product's calendar   ${seconds(fast.ms).padStart(9)}   peak memory ${afterFast} MB`);
  console.log(`  Temporal alone           ${seconds(slow.ms).padStart(9)}   peak memory ${peakMb()} MB`);
  console.log(`  the same sums, ${(slow.ms / fast.ms).toFixed(1)} times as fast`);
}
