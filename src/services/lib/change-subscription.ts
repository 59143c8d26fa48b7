import type { Event } from '@/core/subscriptions/subscription';
import { may } from '@/core/staff';
import { transaction, type Transaction } from '@/platform/store/db';
import { findOpenPayment } from '@/store/payments';
import type { Site } from '@/platform/store/site';
import { lockSubscription } from '@/store/subscriptions';
import { NotAllowed, type Actor } from '@/platform/actor';
import type { HeldSubscription } from './apply-transition';
import { siteNow } from '@/platform/clock';
import { happen } from './happen';
import { refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';

/** A subscription, locked, for its member or for staff who manage members. @throws NotAllowed for anybody else */
export async function lockForChange(db: Transaction, actor: Actor, id: string): Promise<HeldSubscription> {
  const subscription = await lockSubscription(db, id);
  if (
    !subscription?.memberId ||
    (subscription.memberId !== actor.memberId && !may(actor.staffRole, 'manage members'))
  )
    throw new NotAllowed('This subscription is not yours.');
  return { ...subscription, memberId: subscription.memberId };
}

/** Has one event happen to a subscription, where its state allows it and no payment is under way. */
export async function changeSubscription(
  actor: Actor,
  id: string,
  event: Event,
  mayNot: (subscription: HeldSubscription, db: Transaction, site: Site) => Promise<string | null> = () =>
    Promise.resolve(null),
): Promise<Result<null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const subscription = await lockForChange(db, actor, id);
    const open = await findOpenPayment(db, id);
    if (open && !open.isAwaited) return refusedField('', 'A payment is under way. Try again in a minute.');
    const against = await mayNot(subscription, db, site);
    if (against) return refusedField('', against);
    return happen(db, site, actor, subscription, event, siteNow(site, subscription.mode));
  });
}
