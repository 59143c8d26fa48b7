import type { Instant } from '@/core/calendar';
import { gatewayById } from '@/gateways';
import { findGatewayAccount } from '@/store/gateways';
import { pool, transaction, type Transaction } from '@/platform/store/db';
import { findMember } from '@/store/members';
import { findPayment, type Payment } from '@/store/payments';
import {
  findRefundByKey,
  insertRefund,
  refundable,
  settleRefund,
  voidCredit,
  type Refund,
} from '@/store/refunds';
import { lockSubscription } from '@/store/subscriptions';
import { type Actor } from '@/platform/actor';
import { keysOf } from '@/services/lib/gateway-account';
import { happen } from '@/services/lib/happen';
import { record } from '@/platform/record';
import { currentSite } from '@/platform/site';
import { termsOf } from '@/services/lib/terms';
import { writeMail } from '@/services/lib/write-mail';

/** In the caller's transaction: a payment that nothing followed from is to go back. The worker sees to it. */
export async function askToReturn(
  db: Transaction,
  payment: Payment,
  reason: string,
  at: Instant,
): Promise<void> {
  const { mode, currency } = payment;
  const idempotencyKey = `return:${payment.id}`;
  if (await findRefundByKey(db, idempotencyKey)) return;
  const amount = await refundable(db, payment.id);
  if (amount === 0) return;
  const intent = {
    paymentId: payment.id,
    mode,
    idempotencyKey,
    amount,
    currency,
    gatewayRef: null,
    reason,
    at,
  };
  await insertRefund(db, { ...intent, state: 'intent', endsAccess: false });
}

/** Asks the gateway to give an open refund back, and records the answer. The same refund is never given twice. */
export async function collectRefund(
  actor: Actor,
  refund: Refund,
): Promise<{ state: 'succeeded' | 'by-hand' } | { state: 'refused' | 'unknown'; reason: string }> {
  const payment = await findPayment(pool(), refund.paymentId);
  const account = payment && (await findGatewayAccount(pool(), payment.gatewayAccountId));
  if (!payment || !account) throw new Error(`refund ${refund.id} has lost its payment`);
  const outcome = await gatewayById(account.gateway).refund(keysOf(account), {
    paymentRef: payment.gatewayRef ?? '',
    amount: refund.amount,
    idempotencyKey: refund.idempotencyKey,
  });
  if (outcome.state === 'unknown') return outcome;
  await recordRefund(actor, refund, payment, outcome);
  return outcome;
}

/** Records how a refund ended, with all that follows: credit of the payment voided, access ended where that was asked. */
async function recordRefund(
  actor: Actor,
  refund: Refund,
  payment: Payment,
  outcome: { state: 'succeeded'; ref: string } | { state: 'by-hand' } | { state: 'refused'; reason: string },
): Promise<void> {
  const { at } = refund;
  await transaction(async (db) => {
    const settled = await settleRefund(
      db,
      refund.id,
      outcome.state === 'refused'
        ? { state: 'refused' }
        : { state: 'succeeded', gatewayRef: outcome.state === 'succeeded' ? outcome.ref : null },
      at,
    );
    if (!settled) return;
    if (outcome.state === 'refused')
      await record(db, actor, at, 'refund refused', `subscription:${payment.subscriptionId}`, {
        payment: payment.id,
        reason: outcome.reason,
      });
    else await followRefund(db, actor, payment, refund, outcome.state === 'by-hand');
  });
}

/** What follows from money that went back, whoever gave it. */
export async function followRefund(
  db: Transaction,
  actor: Actor,
  payment: Payment,
  { amount, endsAccess, at, id }: Pick<Refund, 'id' | 'amount' | 'endsAccess' | 'at'>,
  byHand = false,
): Promise<void> {
  const site = await currentSite(db);
  await record(db, actor, at, 'refunded', `subscription:${payment.subscriptionId}`, {
    payment: payment.id,
    amount,
    creditVoided: await voidCredit(db, payment.id),
    ...(byHand ? { byHand } : {}),
  });
  const subscription = await lockSubscription(db, payment.subscriptionId);
  const member = subscription?.memberId ? await findMember(db, subscription.memberId) : undefined;
  if (!subscription || !member) return;
  const bought = await termsOf(db, site, subscription);
  if (endsAccess) await happen(db, site, actor, subscription, { type: 'end-now' }, at);
  const content = {
    template: 'refunded' as const,
    tierName: bought.offer.tierName,
    amount,
    currency: payment.currency,
    byHand,
    endsAccess,
  };
  await writeMail(db, site, member, content, `refund:${id}`, at);
}
