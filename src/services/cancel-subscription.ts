import type { Event } from '@/core/subscriptions/subscription';
import { transition } from '@/core/subscriptions/transition';
import { may } from '@/core/staff';
import { transaction } from '@/store/db';
import { findOpenPayment } from '@/store/payments';
import { lockSubscription } from '@/store/subscriptions';
import { NotAllowed, type Actor } from './actor';
import { applyTransition } from './apply-transition';
import { siteNow } from './clock';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';
import { termsOf } from './terms';

/** Cancels a subscription at the end of what is paid. By the member, or by staff who manage members. */
export function cancelSubscription(actor: Actor, id: string): Promise<Result<null>> {
  return change(actor, id, { type: 'cancel' });
}

/** Takes a cancellation back, until the end has come. */
export function undoCancel(actor: Actor, id: string): Promise<Result<null>> {
  return change(actor, id, { type: 'undo-cancel' });
}

async function change(actor: Actor, id: string, event: Event): Promise<Result<null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const subscription = await lockSubscription(db, id);
    if (
      !subscription?.memberId ||
      (subscription.memberId !== actor.memberId && !may(actor.staffRole, 'manage members'))
    ) {
      throw new NotAllowed('This subscription is not yours.');
    }
    if (await findOpenPayment(db, id))
      return refusedField('', 'A payment is under way. Try again in a minute.');
    const at = siteNow(site, subscription.mode);
    const bought = await termsOf(db, site, subscription);
    const next = transition(subscription, event, bought.terms, at);
    if (!next.ok) return refusedField('', next.reason);
    await applyTransition(
      db,
      site,
      actor,
      { ...subscription, memberId: subscription.memberId },
      next,
      bought,
      at,
    );
    return done(null);
  });
}
