import { z } from 'zod';
import { addLength, endOfDate } from '../calendar';
import type { Instant } from '../instants';
import { lengthSchema, localDateSchema } from '../offers/offer-schema';

/** How long something is given for: for good, for a length from now, or through a last day of the site. */
export const giftTermSchema = z.discriminatedUnion('for', [
  z.object({ for: z.literal('good') }),
  z.object({ for: z.literal('length'), length: lengthSchema }),
  z.object({ for: z.literal('day'), lastDay: localDateSchema }),
]);
export type GiftTerm = z.infer<typeof giftTermSchema>;

/** When what is given at an instant ends, UTC; null: never. `zone`: the site's IANA zone. */
export function giftEnd(term: GiftTerm, now: Instant, zone: string): Instant | null {
  if (term.for === 'good') return null;
  return term.for === 'length' ? addLength(now, term.length, zone) : endOfDate(term.lastDay, zone);
}
