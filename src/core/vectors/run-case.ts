import { decide, type Question } from '../access/decide';
import { play, type Life } from '../billing/play';
import { expand } from '../offers/schedule';
import type { Offer } from '../offers/offer';
import { prorate } from '../prorate';
import type { Instant } from '../instants';

/** A worked example: inputs, a name, and what must come out. The fields present tell which function it is for. */
export type VectorCase = { name: string; expect: unknown } & Record<string, unknown>;

/** What must come out, as far as it is compared: why an event was refused is for the reader. */
export const expected = ({ expect }: VectorCase): unknown => withoutReasons(expect);

const withoutReasons = (result: unknown): unknown => {
  if (typeof result !== 'object' || result === null || !('refused' in result)) return result;
  return { ...result, refused: (result.refused as { event: number }[]).map(({ event }) => event) };
};

/** Runs the function that a worked example is about. Throws where its form is unknown. */
export function runCase(example: VectorCase): unknown {
  if ('events' in example) return withoutReasons(play(example as unknown as Life));
  if ('offer' in example) {
    const { offer, start, zone, horizon, skipTrial } = example as unknown as {
      offer: Offer; start: Instant; zone: string; horizon: Instant; skipTrial?: boolean;
    };
    return expand(offer, start, zone, horizon, skipTrial ?? false);
  }
  if ('amount' in example) {
    const { amount, from, to, at, zone } = example as unknown as {
      amount: number; from: Instant; to: Instant | null; at: Instant; zone: string;
    };
    return prorate(amount, from, to, at, zone);
  }
  if ('item' in example && 'person' in example) return decide(example as unknown as Question);
  throw new Error(`“${example.name}”: neither a life, a schedule, a proration nor an access question`);
}
