import { findQuote } from '@/billing/store/quotes';
import type { Actor } from '@/platform/actor';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { inBookForPerson } from './in-book';
import type { QuoteId } from '@/core/ids';

/** Accepts the quote of a switch that waits for the end of what is paid; what begins at once is paid for at checkout. */
export async function acceptLater(actor: Actor, quoteId: QuoteId): Promise<Result<null>> {
  const quote = await findQuote(pool(), quoteId);
  if (!quote) return missing();
  if (quote.atOnce) return refusedField('', 'switch.at-once');
  const ended = await inBookForPerson(
    actor,
    quote,
    { quote: quoteId, offers: [quote.to] },
    {
      do: 'switch',
      subscription: quote.subscriptionId,
      to: quote.to,
      quote: true,
    },
  );
  return ended.ok ? done(null) : ended;
}
