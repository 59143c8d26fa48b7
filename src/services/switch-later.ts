import { z } from 'zod';
import { addLength, isBefore } from '@/core/calendar';
import { findQuote } from '@/store/credits';
import { transaction } from '@/store/db';
import { setMemberMove } from '@/store/offers';
import { findOpenPayment } from '@/store/payments';
import { lockSubscription } from '@/store/subscriptions';
import { NotAllowed, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';

/** Accepts a switch down, by the member or (`by`) by staff for them: at the end of what is paid the subscription goes on under the other offer. */
export async function switchLater(actor: Actor, quoteId: string, by: Actor = actor): Promise<Result<null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const quote = z.uuid().safeParse(quoteId).success ? await findQuote(db, quoteId) : undefined;
    if (!quote || quote.memberId !== actor.memberId) throw new NotAllowed('This switch is not yours.');
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
    await record(db, by, now, 'switch asked for', `subscription:${subscription.id}`, { quote: quote.id });
    return done(null);
  });
}

/** Takes a switch back that was asked for and has not come yet. */
export async function undoSwitchLater(actor: Actor, subscriptionId: string): Promise<Result<null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const subscription = await lockSubscription(db, subscriptionId);
    if (!subscription?.memberId || subscription.memberId !== actor.memberId)
      throw new NotAllowed('This subscription is not yours.');
    await setMemberMove(db, subscriptionId, null);
    await record(db, actor, siteNow(site), 'switch taken back', `subscription:${subscriptionId}`);
    return done(null);
  });
}
