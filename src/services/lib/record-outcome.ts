import type { Instant } from '@/core/calendar';
import type { Period } from '@/core/offers/schedule';
import type { Subscription } from '@/core/subscriptions/subscription';
import { transition } from '@/core/subscriptions/transition';
import { nextCharge, periodToPay, renewalOf, upcomingPeriod } from '@/core/subscriptions/upcoming';
import type { ChargeOutcome } from '@/gateways/contract';
import { transaction, type Transaction } from '@/platform/store/db';
import { findJoiningOfSubscription } from '@/store/joinings';
import { findMember } from '@/store/members';
import { findCharge, settlePayment, type Payment, type StoredCharge } from '@/store/payments';
import type { Site } from '@/platform/store/site';
import { findRunning, lockSubscription, type StoredSubscription } from '@/store/subscriptions';
import { findTier } from '@/store/tiers';
import type { Actor } from '@/platform/actor';
import { applyTransition } from './apply-transition';
import type { Known } from './known-parts';
import { completeJoining } from './complete-joining';
import { askToReturn } from '@/services/lib/give-refund';
import { record } from '@/platform/record';
import { currentSite } from '@/platform/site';
import { termsOf, type Bought } from './terms';
import { writeMail } from './write-mail';

export type Outcome = Exclude<ChargeOutcome, { state: 'unknown' | 'awaited' }>;

/**
 * Records how an attempt ended, with all that follows from it, in one transaction. Whoever learns the outcome
 * (checkout, worker, sweep, webhook, statement) comes through here; the second to come changes nothing. A success
 * outranks a failure that was recorded before.
 * @param at when it is taken to have happened, by the site's clock: when it was asked for, unless the payer came later
 */
export async function recordOutcome(
  actor: Actor,
  payment: Payment,
  outcome: Outcome,
  at: Instant = payment.at,
  known?: Known,
): Promise<'recorded' | 'known'> {
  const site = known?.site ?? (await currentSite());
  return transaction((db) => recordOutcomeIn(db, site, actor, payment, outcome, at, known));
}

/** The same in the caller's transaction. */
export async function recordOutcomeIn(
  db: Transaction,
  site: Site,
  actor: Actor,
  payment: Payment,
  outcome: Outcome,
  at: Instant,
  known?: Known,
): Promise<'recorded' | 'known'> {
  const subscription = await lockSubscription(db, payment.subscriptionId);
  const charge = known?.charge ?? (await findCharge(db, payment.chargeId));
  if (!subscription || !charge) throw new Error(`payment ${payment.id} has lost its subscription`);
  const settled = await settlePayment(
    db,
    payment.id,
    outcome.state === 'succeeded'
      ? { state: 'succeeded', gatewayRef: outcome.ref }
      : { state: 'declined', gatewayRef: outcome.ref, declineCode: outcome.code },
    at,
  );
  if (!settled) return 'known';
  const isPaid = outcome.state === 'succeeded';
  await record(
    db,
    actor,
    at,
    isPaid ? 'payment received' : 'payment declined',
    `subscription:${subscription.id}`,
    {
      payment: payment.id,
      amount: payment.amount,
      currency: payment.currency,
      attempt: payment.attempt,
      ...(isPaid ? {} : { code: outcome.code }),
    },
  );
  const bought = knownTerms(subscription, known) ?? (await termsOf(db, site, subscription));
  if (isPaid) await followSuccess(db, site, actor, subscription, bought, charge, payment, at);
  else await followFailure(db, site, actor, subscription, bought, charge, payment, outcome.code, at);
  return 'recorded';
}

/** The terms that whoever collected has read already, where they are still those of the subscription. */
function knownTerms(now: StoredSubscription, known: Known | undefined): Bought | null {
  if (!known) return null;
  const { offerVersionId, movesTo, addedTax } = known.subscription;
  const isSame =
    now.offerVersionId === offerVersionId && now.movesTo === movesTo && now.addedTax === addedTax;
  return isSame ? known.bought : null;
}

async function followFailure(
  db: Transaction,
  site: Site,
  actor: Actor,
  subscription: StoredSubscription,
  bought: Bought,
  charge: StoredCharge,
  payment: Payment,
  code: string,
  at: Instant,
): Promise<void> {
  // What the member tried of their own accord (joining, renewing, paying early) leaves everything as it was.
  const { memberId, disputedAt } = subscription;
  if (payment.byMember || charge.renews || memberId === null) return;
  // Nothing is overdue while a dispute stops its charges.
  if (disputedAt) return;
  const next = transition(subscription, { type: 'failed', reason: code }, bought.terms, at);
  if (next.ok) await applyTransition(db, site, actor, { ...subscription, memberId }, next, bought, at);
}

async function followSuccess(
  db: Transaction,
  site: Site,
  actor: Actor,
  subscription: StoredSubscription,
  bought: Bought,
  charge: StoredCharge,
  payment: Payment,
  at: Instant,
): Promise<void> {
  if (subscription.state === 'pending') {
    // Who pays later than they asked begins later: a transfer takes its days.
    const begun = { ...subscription, startedAt: at };
    const period = upcomingPeriod(begun, bought.terms);
    const joining = await findJoiningOfSubscription(db, subscription.id);
    if (!joining || !period) return withoutEffect(db, actor, payment, 'nothing of the offer is left', at);
    const member = await completeJoining(db, site, actor, joining, begun, bought, period, at, payment);
    const settled = transition(begun, { type: 'paid', period }, bought.terms, at);
    if (!member) return withoutEffect(db, actor, payment, 'it is held already', at);
    if (settled.ok)
      await receipt(db, site, member, settled.subscription, bought, period, payment, subscription);
    return;
  }
  const member = subscription.memberId ? await findMember(db, subscription.memberId) : undefined;
  if (!member) throw new Error(`subscription ${subscription.id} has no member`);
  const period = charge.renews
    ? renewalOf(subscription, bought.terms)?.period
    : periodToPay(subscription, bought.terms, at);
  const isForNow =
    period &&
    (charge.renews || (period.step === charge.step && subscription.numberFrom + period.n === charge.n));
  if (!isForNow) return withoutEffect(db, actor, payment, 'the period it is for is settled', at);
  if (subscription.state === 'ended') {
    const { mode, track, slot } = subscription;
    if (await findRunning(db, member.id, mode, track, slot))
      return withoutEffect(db, actor, payment, 'another subscription has taken its place', at);
  }
  const event = { type: charge.renews ? 'renewed' : 'paid', period } as const;
  const next = transition(subscription, event, bought.terms, at);
  if (!next.ok) return withoutEffect(db, actor, payment, next.reason, at);
  await applyTransition(db, site, actor, { ...subscription, memberId: member.id }, next, bought, at);
  await receipt(db, site, member, next.subscription, bought, period, payment, subscription);
}

/** The money moved all the same: staff see that nothing followed from it, and it goes back. */
async function withoutEffect(
  db: Transaction,
  actor: Actor,
  payment: Payment,
  reason: string,
  at: Instant,
): Promise<void> {
  await record(db, actor, at, 'payment without effect', `subscription:${payment.subscriptionId}`, {
    payment: payment.id,
    reason,
  });
  await askToReturn(db, payment, reason, at);
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
  const tier = period.tier === offer.tierId ? { name: offer.tierName } : await findTier(db, period.tier);
  const next = nextCharge(after, terms);
  const content = {
    template: 'receipt' as const,
    tierName: tier?.name ?? offer.name,
    amount: payment.amount,
    currency: payment.currency,
    joiningFee: period.joiningFee,
    // What the money did not pay of the charge, credit did.
    credit: period.amount - payment.amount,
    paidAt: payment.at,
    path: `/account/receipts/of/${payment.id}`,
    methodLabel,
    nextCharge: next && { at: next.at, amount: next.period.amount, currency: payment.currency },
  };
  await writeMail(db, site, member, content, `receipt:${payment.id}`, payment.at);
}
