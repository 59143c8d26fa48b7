import type { Instant } from '@/core/instants';
import { maybeOne, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { offerKey } from './book-from-rows';
import type { MemberId, OfferVersionId, SubscriptionId } from '@/core/ids';

/** What a switch was said to come to; the rest of it is in the book. */
export type StoredQuote = {
  id: string;
  memberId: MemberId;
  mode: Mode;
  subscriptionId: SubscriptionId;
  offerVersionId: OfferVersionId;
  /** The offer switched to, as a book calls it. */
  to: string;
  atOnce: boolean;
  at: Instant;
};

export async function findQuote(db: Db, id: string): Promise<StoredQuote | undefined> {
  const row = await maybeOne<Omit<StoredQuote, 'to'> & { addedTax: number }>(
    db,
    'SELECT id, member_id, mode, subscription_id, offer_version_id, added_tax, at_once, at FROM switch_quotes WHERE id = $1',
    [id],
  );
  return row && { ...row, to: offerKey(row.offerVersionId, row.addedTax) };
}

/** Quotes that were shown long ago: they hold no more. */
export async function deleteOldQuotes(db: Db): Promise<number> {
  return run(db, `DELETE FROM switch_quotes WHERE created_at < now() - interval '1 day'`);
}
