import { z } from 'zod';
import type { Instant } from '@/core/calendar';
import { formatMoney, parseAmount } from '@/core/money';
import { gatewayById } from '@/gateways';
import { findGatewayAccount } from '@/store/gateways';
import { pool, transaction, type Transaction } from '@/store/db';
import { findMember } from '@/store/members';
import { findPayment, lockPayment, type Payment } from '@/store/payments';
import {
  findRefundByKey,
  insertRefund,
  refundable,
  settleRefund,
  voidCredit,
  type Refund,
} from '@/store/refunds';
import { lockSubscription } from '@/store/subscriptions';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { keysOf } from './connect-gateway';
import { happen } from './happen';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';
import { termsOf } from './terms';
import { writeMail } from './write-mail';

const inputSchema = z.object({
  paymentId: z.uuid(),
  /** Made when the form was shown: sent twice, it is one refund. */
  requestId: z.uuid(),
  /** As people type it: "3.50". */
  amount: z.string().trim().min(1, 'Type how much goes back.'),
  endsAccess: z.boolean(),
  reason: z.string().trim().max(300, 'At most 300 characters.').default(''),
});

export type Refunded = { amount: number; currency: string; state: Refund['state'] | 'by-hand' };

/** Gives a payment back, all or part, with access kept or ended. */
export async function refundPayment(actor: Actor, raw: unknown): Promise<Result<Refunded>> {
  requireRight(actor, 'manage money');
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { paymentId, requestId, endsAccess, reason } = parsed.data;
  const site = await currentSite();
  const asked = await transaction(async (db): Promise<Result<Refund>> => {
    const payment = await lockPayment(db, paymentId);
    if (payment?.state !== 'succeeded')
      return refusedField('', 'Only a payment that came can be given back.');
    const known = await findRefundByKey(db, requestId);
    if (known) return done(known);
    const amount = parseAmount(parsed.data.amount, payment.currency);
    if (!amount.ok) return refusedField('amount', amount.reason);
    const left = await refundable(db, paymentId);
    if (amount.amount < 1 || amount.amount > left)
      return refusedField(
        'amount',
        left === 0
          ? 'Nothing of this payment is left to give back.'
          : `Between the smallest amount and ${formatMoney(left, payment.currency)}: that is what is left of this payment.`,
      );
    const { mode, currency } = payment;
    const at = siteNow(site, mode);
    const refund = await insertRefund(db, {
      paymentId,
      mode,
      idempotencyKey: requestId,
      amount: amount.amount,
      currency,
      state: 'intent',
      gatewayRef: null,
      reason,
      endsAccess,
      at,
    });
    await record(db, actor, at, 'refund asked for', `subscription:${payment.subscriptionId}`, {
      payment: paymentId,
      amount: amount.amount,
      endsAccess,
      reason,
    });
    return done(refund);
  });
  if (!asked.ok) return asked;
  const { amount, currency } = asked.value;
  if (asked.value.state !== 'intent') return done({ amount, currency, state: asked.value.state });
  const outcome = await collectRefund(actor, asked.value);
  if (outcome.state === 'refused') return refusedField('', `${outcome.reason}. Nothing was given back.`);
  if (outcome.state === 'unknown')
    return refusedField(
      '',
      `${outcome.reason}, so we do not know yet whether the money went back. It is asked for again by itself, and never given back twice.`,
    );
  return done({ amount, currency, state: outcome.state });
}

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
  const site = await currentSite();
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
