import type { Instant } from '@/core/calendar';
import type { Period } from '@/core/offers/schedule';
import { paymentKey } from '@/core/subscriptions/ids';
import { gatewayById } from '@/gateways';
import type { ChargeOutcome } from '@/gateways/contract';
import { pool, type Transaction } from '@/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { ensureCharge, findPaymentByKey, insertIntent, type Payment } from '@/store/payments';
import { findSubscription, type StoredSubscription } from '@/store/subscriptions';
import type { Actor } from './actor';
import { keysOf } from './connect-gateway';
import { recordOutcome } from './record-outcome';

/** Writes down, in the caller's transaction, that a period is about to be charged. Calls nobody. */
export async function writeIntent(
  db: Transaction,
  subscription: StoredSubscription,
  period: Period,
  attempt: number,
  currency: string,
  at: Instant,
): Promise<Payment> {
  const { id: subscriptionId, mode, gatewayAccountId } = subscription;
  if (!gatewayAccountId) throw new Error(`subscription ${subscriptionId} has no gateway`);
  const charge = await ensureCharge(db, {
    subscriptionId,
    mode,
    currency,
    step: period.step,
    n: period.n,
    amount: period.amount,
    joiningFee: period.joiningFee,
    dueAt: period.from,
    periodTo: period.to,
  });
  const idempotencyKey = paymentKey(subscriptionId, period.step, period.n, attempt);
  await insertIntent(db, {
    chargeId: charge.id,
    mode,
    gatewayAccountId,
    attempt,
    idempotencyKey,
    amount: charge.amount,
    currency,
    at,
  });
  const intent = await findPaymentByKey(db, idempotencyKey);
  if (!intent) throw new Error('the intent just written is not there');
  return intent;
}

/** Asks the gateway for the money of an open intent, and records the answer. An unknown outcome is left open for the sweep. */
export async function collect(actor: Actor, intent: Payment): Promise<ChargeOutcome> {
  const { gateway, keys, subscription } = await partsOf(intent);
  const outcome = await gateway.charge(keys, {
    customerRef: subscription.customerRef ?? '',
    methodRef: subscription.methodRef ?? '',
    amount: intent.amount,
    currency: intent.currency,
    idempotencyKey: intent.idempotencyKey,
    note: `${intent.idempotencyKey} at ${intent.at}`,
  });
  if (outcome.state !== 'unknown') await recordOutcome(actor, intent, outcome);
  return outcome;
}

/**
 * Settles an intent whose outcome nobody knows: asks the gateway first. Only where the gateway never heard of it
 * is the money asked for, under the same key.
 */
export async function settleOpenIntent(actor: Actor, intent: Payment): Promise<ChargeOutcome> {
  const { gateway, keys } = await partsOf(intent);
  const found = await gateway.findPayment(keys, { key: intent.idempotencyKey });
  if (!found.ok) return { state: 'unknown', reason: found.reason };
  if (!found.payment) return collect(actor, intent);
  const { state, ref, code } = found.payment;
  const outcome =
    state === 'succeeded' ? { state, ref } : { state, ref, code: code ?? ('declined' as const) };
  await recordOutcome(actor, intent, outcome);
  return outcome;
}

async function partsOf(intent: Payment) {
  const account = await findGatewayAccount(pool(), intent.gatewayAccountId);
  const subscription = await findSubscription(pool(), intent.subscriptionId);
  if (!account || !subscription) throw new Error(`payment ${intent.id} has lost its gateway or subscription`);
  return { gateway: gatewayById(account.gateway), keys: keysOf(account), subscription };
}
