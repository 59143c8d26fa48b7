import { addLength, isBefore } from '@/core/calendar';
import { findQuote } from '@/store/credits';
import { transaction } from '@/platform/store/db';
import { setMemberMove } from '@/store/offers';
import { findOpenPayment } from '@/store/payments';
import { lockSubscription } from '@/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';

/** Accepts a switch down: at the end of what is paid the subscription goes on under the other offer. */
export async function acceptLater(actor: Actor, quoteId: string): Promise<Result<null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const quote = await findQuote(db, quoteId);
    if (!quote) return missing();
    const subscription = await lockSubscription(db, quote.subscriptionId);
    const now = siteNow(site, quote.mode);
    const until = addLength(quote.at, { n: 1, unit: 'hour' }, site.zone);
    // What begins at once is paid for at once: that is a joining.
    const isLater = isBefore(quote.at, quote.startsAt);
    if (!subscription || !isLater || subscription.events !== quote.events || isBefore(until, now))
      return refusedField('', 'What this switch means has changed since the page was opened. Load it again.');
    if (subscription.state === 'cancelling')
      return refusedField('', 'You have cancelled. Take that back in your account first, then switch.');
    if (await findOpenPayment(db, subscription.id))
      return refusedField('', 'A payment is under way. Try again in a minute.');
    await setMemberMove(db, subscription.id, quote.offerVersionId);
    await record(db, actor, now, 'switch asked for', `subscription:${subscription.id}`, { quote: quote.id });
    return done(null);
  });
}
