import type { Period } from '@/core/offers/schedule';
import type { Subscription } from '@/core/subscriptions/subscription';
import { transition } from '@/core/subscriptions/transition';
import { nextCharge, renewalOf, upcomingPeriod } from '@/core/subscriptions/upcoming';
import type { ChargeOutcome } from '@/gateways/contract';
import { creditSpentOn } from '@/store/credits';
import { transaction, type Transaction } from '@/store/db';
import { findJoiningOfSubscription } from '@/store/joinings';
import { findMember } from '@/store/members';
import { findCharge, markChargePaid, settlePayment, type Payment } from '@/store/payments';
import type { Site } from '@/store/site';
import { lockSubscription, type StoredSubscription } from '@/store/subscriptions';
import { findTier } from '@/store/tiers';
import type { Actor } from './actor';
import { applyTransition } from './apply-transition';
import { completeJoining } from './complete-joining';
import { record } from './record';
import { currentSite } from './site';
import { termsOf, type Bought } from './terms';
import { writeMail } from './write-mail';

export type Outcome = Exclude<ChargeOutcome, { state: 'unknown' }>;

/**
 * Records how an attempt ended, with all that follows from it, in one transaction. Whoever learns the outcome
 * (checkout, worker, sweep, webhook) comes through here; the second to come changes nothing.
 */
export async function recordOutcome(
  actor: Actor,
  payment: Payment,
  outcome: Outcome,
): Promise<'recorded' | 'known'> {
  const site = await currentSite();
  return transaction(async (db) => {
    const subscription = await lockSubscription(db, payment.subscriptionId);
    if (!subscription) throw new Error(`no subscription ${payment.subscriptionId}`);
    const { at } = payment;
    const settled = await settlePayment(
      db,
      payment.id,
      outcome.state === 'succeeded'
        ? { state: 'succeeded', gatewayRef: outcome.ref }
        : { state: 'declined', gatewayRef: outcome.ref, declineCode: outcome.code },
      at,
    );
    if (!settled) return 'known';
    await record(
      db,
      actor,
      at,
      outcome.state === 'succeeded' ? 'payment received' : 'payment declined',
      `subscription:${subscription.id}`,
      {
        payment: payment.id,
        amount: payment.amount,
        currency: payment.currency,
        attempt: payment.attempt,
        ...(outcome.state === 'declined' ? { code: outcome.code } : {}),
      },
    );
    if (outcome.state === 'succeeded') await markChargePaid(db, payment.chargeId, at);
    await follow(db, site, actor, subscription, payment, outcome);
    return 'recorded';
  });
}

async function follow(
  db: Transaction,
  site: Site,
  actor: Actor,
  subscription: StoredSubscription,
  payment: Payment,
  outcome: Outcome,
): Promise<void> {
  const { at } = payment;
  const bought = await termsOf(db, site, subscription);
  const { terms } = bought;
  const charge = await findCharge(db, payment.chargeId);
  const renews = charge?.renews ?? false;
  // A renewal that was refused changes nothing: what is held runs to its end as it did.
  if (renews && outcome.state === 'declined') return;
  const period = renews ? renewalOf(subscription, terms)?.period : upcomingPeriod(subscription, terms);
  if (subscription.state === 'pending') {
    const joining = await findJoiningOfSubscription(db, subscription.id);
    if (outcome.state === 'declined' || !joining || !period) return;
    const member = await completeJoining(db, site, actor, joining, subscription, bought, period, at, payment);
    const settled = transition(subscription, { type: 'paid', period }, terms, at);
    if (member && settled.ok)
      await receipt(db, site, member, settled.subscription, bought, period, payment, subscription);
    return;
  }
  const member = subscription.memberId ? await findMember(db, subscription.memberId) : undefined;
  if (!member || !period) throw new Error(`subscription ${subscription.id} has nothing to settle`);
  const event =
    outcome.state === 'succeeded'
      ? ({ type: renews ? 'renewed' : 'paid', period } as const)
      : ({ type: 'failed', reason: outcome.code } as const);
  const next = transition(subscription, event, terms, at);
  if (!next.ok) {
    // The money moved all the same; staff must see that nothing followed from it.
    await record(db, actor, at, 'payment without effect', `subscription:${subscription.id}`, {
      payment: payment.id,
      reason: next.reason,
    });
    return;
  }
  await applyTransition(db, site, actor, { ...subscription, memberId: member.id }, next, bought, at);
  if (outcome.state === 'succeeded')
    await receipt(db, site, member, next.subscription, bought, period, payment, subscription);
}

async function receipt(
  db: Transaction,
  site: Site,
  member: { id: string; email: string; name: string },
  after: Subscription,
  { terms, offer }: Bought,
  period: Period,
  payment: Payment,
  { methodLabel }: StoredSubscription,
): Promise<void> {
  const tier = await findTier(db, period.tier);
  const next = nextCharge(after, terms);
  const content = {
    template: 'receipt' as const,
    tierName: tier?.name ?? offer.name,
    amount: payment.amount,
    currency: payment.currency,
    joiningFee: period.joiningFee,
    credit: await creditSpentOn(db, payment.chargeId),
    paidAt: payment.at,
    methodLabel,
    nextCharge: next && { at: next.at, amount: next.period.amount, currency: payment.currency },
  };
  await writeMail(db, site, member, content, `receipt:${payment.id}`, payment.at);
}
