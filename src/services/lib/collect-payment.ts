import type { Instant } from '@/core/calendar';
import type { Period } from '@/core/offers/schedule';
import { paymentKeyStart } from '@/core/subscriptions/ids';
import { gatewayById } from '@/gateways';
import { outcomeOf, type ChargeOutcome } from '@/gateways/contract';
import { spendCredit } from '@/store/credits';
import { pool, type Transaction } from '@/platform/store/db';
import { findGatewayAccount, noteAccountError, type GatewayAccount } from '@/store/gateways';
import {
  ensureCharge,
  ensureReference,
  insertIntent,
  type Payment,
  type StoredCharge,
} from '@/store/payments';
import { findSubscription, type StoredSubscription } from '@/store/subscriptions';
import type { Actor } from '@/platform/actor';
import type { Known } from './known-parts';
import { keysOf } from '@/services/lib/gateway-account';
import { recordOutcome } from './record-outcome';
import { newReference } from './transfer-reference';
import { walletOutcome } from './wallet-outcome';

export type Asked = {
  period: Period;
  currency: string;
  at: Instant;
  /** The period's number in the charge's key; by default counted on from where the schedule began. */
  number?: number;
  /** Paid for before its time, at the member's wish. */
  renews?: boolean;
  /** A try of the member's own accord: refused, it changes nothing. */
  byMember?: boolean;
  /** Credit of a switch, which is given only once the rest is paid. Minor units. */
  switchCredit?: number;
};

/** What became of a charge that is due: an attempt to collect it, or, where credit covers it, nothing to collect. */
export type Due =
  { intent: Payment; account: GatewayAccount; charge: StoredCharge } | { coveredChargeId: string };

/**
 * Writes down, in the caller's transaction, that a period is about to be charged, less the member's credit. Calls
 * nobody. Where credit covers all of it there is nothing to collect, and the caller settles the period.
 */
export async function writeIntent(
  db: Transaction,
  subscription: StoredSubscription,
  { period, currency, at, number, renews = false, byMember = false, switchCredit }: Asked,
): Promise<Due> {
  const { id: subscriptionId, mode, gatewayAccountId, memberId } = subscription;
  const n = number ?? subscription.numberFrom + period.n;
  const charge = await ensureCharge(db, {
    subscriptionId,
    mode,
    currency,
    step: period.step,
    n,
    amount: period.amount,
    joiningFee: period.joiningFee,
    dueAt: period.from,
    periodTo: period.to,
    renews,
  });
  const account = gatewayAccountId ? await findGatewayAccount(db, gatewayAccountId) : undefined;
  const gateway = account && gatewayById(account.gateway);
  // A wallet bills what was agreed: nothing can be taken off a single bill of it.
  const spends = memberId && (gateway?.carries.discount ?? true);
  const credit =
    switchCredit ?? (spends ? await spendCredit(db, memberId, mode, currency, charge.id, charge.amount) : 0);
  if (credit >= charge.amount) return { coveredChargeId: charge.id };
  if (!account || !gateway) throw new Error(`subscription ${subscriptionId} has no gateway`);
  const isAwaited = gateway.nature === 'transfer';
  const intent = await insertIntent(db, charge, {
    keyStart: paymentKeyStart(subscriptionId, period.step, n),
    gatewayAccountId: account.id,
    amount: charge.amount - credit,
    at,
    byMember,
    isAwaited,
    reference: isAwaited ? await ensureReference(db, charge.id, newReference()) : null,
  });
  return { intent, account, charge };
}

/**
 * Asks the gateway for the money of an open intent, and records the answer. An unknown outcome is left open for the
 * sweep; so is money that the payer, or a wallet, sends by itself.
 */
export async function collect(actor: Actor, intent: Payment, known?: Known): Promise<ChargeOutcome> {
  const { gateway, account, keys, subscription } = known
    ? { ...known, gateway: gatewayById(known.account.gateway), keys: keysOf(known.account) }
    : await partsOf(intent);
  if (gateway.nature === 'wallet')
    return noted(account, await walletOutcome(actor, intent, account, subscription));
  const outcome = await gateway.charge(keys, {
    customerRef: subscription.customerRef ?? '',
    methodRef: subscription.methodRef ?? '',
    amount: intent.amount,
    currency: intent.currency,
    idempotencyKey: intent.idempotencyKey,
    note: `${intent.idempotencyKey} at ${intent.at}`,
  });
  if (outcome.state === 'succeeded' || outcome.state === 'declined')
    await recordOutcome(actor, intent, outcome, intent.at, known);
  return noted(account, outcome);
}

/**
 * Settles an intent whose outcome nobody knows: asks the gateway first. Only where the gateway never heard of it
 * is the money asked for, under the same key.
 */
export async function settleOpenIntent(actor: Actor, intent: Payment): Promise<ChargeOutcome> {
  const { gateway, account, keys, subscription } = await partsOf(intent);
  if (gateway.nature !== 'card') return collect(actor, intent);
  const found = await gateway.findPayment(keys, { key: intent.idempotencyKey });
  if (!found.ok) return noted(account, { state: 'unknown', reason: found.reason });
  if (!found.payment) {
    // What has ended, or is disputed, is not charged any more, whatever was meant before.
    if (subscription.state === 'ended' || subscription.disputedAt) return notAsked(actor, intent);
    return collect(actor, intent);
  }
  const outcome = outcomeOf(found.payment);
  await recordOutcome(actor, intent, outcome);
  return outcome;
}

/** An attempt that never reached the gateway, and never will. */
async function notAsked(actor: Actor, intent: Payment): Promise<ChargeOutcome> {
  const outcome = { state: 'declined', ref: null, code: 'not-paid' } as const;
  await recordOutcome(actor, intent, outcome);
  return outcome;
}

/** The account's last error is what it said last. */
async function noted(account: GatewayAccount, outcome: ChargeOutcome): Promise<ChargeOutcome> {
  const error = outcome.state === 'unknown' ? outcome.reason : null;
  if (error !== account.lastError) await noteAccountError(pool(), account.id, error);
  return outcome;
}

async function partsOf(intent: Payment) {
  const account = await findGatewayAccount(pool(), intent.gatewayAccountId);
  const subscription = await findSubscription(pool(), intent.subscriptionId);
  if (!account || !subscription) throw new Error(`payment ${intent.id} has lost its gateway or subscription`);
  return { gateway: gatewayById(account.gateway), account, keys: keysOf(account), subscription };
}
