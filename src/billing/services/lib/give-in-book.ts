import type { HoldingId, TierId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import { done, refusedWith, type Result } from '@/platform/result';
import { refusal } from '@/words/problems';
import { happen } from './open-book';
import type { OpenBook } from './opened';

/** Gives a tier until an instant, or for good, to the member whose book is open. The answer is what they hold by it. */
export async function giveInBook(
  open: OpenBook,
  tier: TierId,
  to: Instant | null,
): Promise<Result<HoldingId>> {
  const before = new Set(open.stored.book.holdings.map(({ id }) => id));
  const happened = await happen(open, { do: 'give', kind: 'tier', tier, to });
  if (!happened.ok) return refusedWith(refusal(happened.why));
  const made = open.stored.book.holdings.find(({ id }) => !before.has(id));
  if (!made) throw new Error(`nothing was given of ${tier}`);
  return done(made.id);
}
