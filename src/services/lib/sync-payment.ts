import type { Instant } from '@/core/calendar';
import { gatewayById } from '@/gateways';
import { outcomeOf, type GatewayPayment } from '@/gateways/contract';
import { findAgreementByRef, findStray, insertStray } from '@/store/agreements';
import { pool, transaction, type Db, type Transaction } from '@/platform/store/db';
import type { GatewayAccount } from '@/store/gateways';
import {
  findOpenPayment,
  findPaymentByKey,
  findPaymentByRef,
  lockPayment,
  type Payment,
} from '@/store/payments';
import {
  findDispute,
  hasOpenDispute,
  insertRefund,
  listRefunds,
  saveDispute,
  settleRefund,
  voidCredit,
} from '@/store/refunds';
import { findSubscription, lockSubscription } from '@/store/subscriptions';
import { GATEWAY } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { keysOf } from '@/services/lib/gateway-account';
import { happen } from './happen';
import { writeIntent } from './collect-payment';
import { record } from '@/platform/record';
import { recordOutcome, recordOutcomeIn } from './record-outcome';
import { followRefund } from '@/services/lib/give-refund';
import { currentSite } from '@/platform/site';
import { termsOf } from './terms';
import { periodToPay } from '@/core/subscriptions/upcoming';
import { addLength, isBefore } from '@/core/calendar';

/** What was done about a payment that the gateway speaks of; null: nothing here is it about, and it may only be early. */
export type Synced = string | null;

/**
 * Brings the books in line with one payment as the gateway has it: how it ended, what of it was given back there, and
 * whether it is disputed. Whatever comes twice, or in another order, comes to the same.
 */
export async function syncPayment(account: GatewayAccount, payment: GatewayPayment): Promise<Synced> {
  const ours = await findOurs(account, payment);
  if (!ours) return payment.agreementRef ? takeUpBills(account, payment.agreementRef) : null;
  const did: string[] = [];
  if (ours.state === 'intent' || (ours.state === 'declined' && payment.state === 'succeeded')) {
    const { state } = payment;
    // A success that outranks a failure happened when it is heard of; what is open happened when it was asked for.
    const at = ours.state === 'intent' ? ours.at : siteNow(await currentSite(), ours.mode);
    if ((await recordOutcome(GATEWAY, ours, outcomeOf(payment), at)) === 'recorded')
      did.push(`recorded as ${state}`);
  }
  if (await takeOverRefunds(ours, payment)) did.push('money given back at the gateway is in the books');
  const dispute = await followDispute(ours, payment);
  if (dispute) did.push(dispute);
  return did.length > 0 ? did.join('; ') : 'known already';
}

/** Money that is for nothing: it is shown, and the worker returns it. */
async function keepToReturn(
  db: Db,
  { id: gatewayAccountId, mode }: GatewayAccount,
  { ref: gatewayRef, amount, currency, at }: GatewayPayment,
  subscriptionId: string,
  reason: string,
): Promise<string> {
  await insertStray(db, {
    gatewayAccountId,
    mode,
    gatewayRef,
    subscriptionId,
    amount,
    currency,
    reason,
    at,
  });
  return `${reason}; it is returned`;
}

async function findOurs(account: GatewayAccount, { key, ref }: GatewayPayment): Promise<Payment | undefined> {
  const ours =
    key === null ? await findPaymentByRef(pool(), account.id, ref) : await findPaymentByKey(pool(), key);
  return ours?.gatewayAccountId === account.id ? ours : undefined;
}

/**
 * The bills of an agreement that the books do not know, oldest first, whichever of them was spoken of: each is for the
 * oldest unpaid period.
 */
export async function takeUpBills(account: GatewayAccount, agreementRef: string): Promise<Synced> {
  const listed = await gatewayById(account.gateway).listPayments(keysOf(account), agreementRef);
  if (!listed.ok) return null;
  let result: Synced = 'recorded before';
  for (const bill of listed.payments) {
    if (await findOurs(account, bill)) continue;
    result = await billed(account, bill);
    if (result === null) return null;
  }
  return result;
}

/** A bill that a wallet made by itself: for the oldest unpaid period, or for nothing that runs. */
async function billed(account: GatewayAccount, payment: GatewayPayment): Promise<Synced> {
  const agreement = await findAgreementByRef(pool(), account.id, payment.agreementRef ?? '');
  if (!agreement) return null;
  const known = await findStray(pool(), account.id, payment.ref);
  if (known) return known.reason;
  const subscription = await findSubscription(pool(), agreement.subscriptionId);
  const isDead = agreement.state === 'ending' || agreement.state === 'ended';
  // Before its approval is taken up, by the joining or by what runs already, a bill is for nothing yet.
  if (agreement.state === 'asked') return null;
  if (isDead || !subscription?.memberId) {
    if (payment.state === 'declined') return 'a bill of an agreement that has ended was not paid';
    return keepToReturn(
      pool(),
      account,
      payment,
      agreement.subscriptionId,
      'billed under an agreement that has ended',
    );
  }
  const site = await currentSite();
  return transaction(async (db) => {
    const locked = await lockSubscription(db, agreement.subscriptionId);
    if (!locked || (await findPaymentByRef(db, account.id, payment.ref))) return 'recorded before';
    const { state } = payment;
    const outcome = outcomeOf(payment);
    const open = await findOpenPayment(db, locked.id);
    const { terms } = await termsOf(db, site, locked);
    const at = account.mode === 'test' ? payment.at : siteNow(site, 'live');
    // What is asked for elsewhere is answered there first.
    if (open && open.gatewayAccountId !== account.id) return null;
    if (open) {
      await recordOutcomeIn(db, site, GATEWAY, open, outcome, at);
      return `recorded as ${state}`;
    }
    // It came before our own clock had the period fall due; on a test clock the worker is about to ask for it.
    const period = periodToPay(locked, terms, at);
    if (!period) return null;
    // A clock may be a little ahead of ours; whole days are not: two approvals ran beside one another for a while.
    if (isBefore(addLength(at, { n: 1, unit: 'day' }, site.zone), period.from))
      return state === 'succeeded'
        ? keepToReturn(db, account, payment, locked.id, 'billed for what was paid already')
        : 'a bill for what was paid already was not paid';
    if (isBefore(at, period.from)) return null;
    const asked = await writeIntent(db, locked, { period, currency: payment.currency, at });
    if (!('intent' in asked)) return null;
    await recordOutcomeIn(db, site, GATEWAY, asked.intent, outcome, at);
    return `recorded as ${state}`;
  });
}

/** Refunds that were made at the gateway itself; access stays, for nobody here decided otherwise. */
async function takeOverRefunds(ours: Payment, payment: GatewayPayment): Promise<boolean> {
  if (payment.refunds.length === 0) return false;
  const site = await currentSite();
  return transaction(async (db) => {
    if (!(await lockPayment(db, ours.id))) return false;
    const known = await listRefunds(db, [ours.id]);
    let took = false;
    for (const { ref, key, amount } of payment.refunds) {
      const at = siteNow(site, ours.mode);
      const asked = known.find(
        (refund) => refund.gatewayRef === ref || (key !== null && refund.idempotencyKey === key),
      );
      if (asked) {
        if (asked.state !== 'intent') continue;
        if (await settleRefund(db, asked.id, { state: 'succeeded', gatewayRef: ref }, asked.at))
          await followRefund(db, GATEWAY, ours, asked);
        took = true;
        continue;
      }
      const refund = await insertRefund(db, {
        paymentId: ours.id,
        mode: ours.mode,
        idempotencyKey: `gateway:${ref}`,
        amount,
        currency: ours.currency,
        state: 'succeeded',
        gatewayRef: ref,
        reason: 'given back at the gateway',
        endsAccess: false,
        at,
      });
      await followRefund(db, GATEWAY, ours, refund);
      took = true;
    }
    return took;
  });
}

/** A dispute that was opened or decided: its own subscription stops, goes on, or ends. */
async function followDispute(ours: Payment, { dispute }: GatewayPayment): Promise<string | null> {
  if (!dispute) return null;
  const site = await currentSite();
  return transaction(async (db) => {
    const subscription = await lockSubscription(db, ours.subscriptionId);
    const known = await findDispute(db, ours.id);
    // What is decided is not opened again by a message that comes late.
    if (!subscription || known?.state === dispute || (known && known.state !== 'open')) return null;
    const at = siteNow(site, ours.mode);
    await saveDispute(db, ours.id, ours.mode, dispute, at);
    await record(
      db,
      GATEWAY,
      at,
      `dispute ${dispute === 'open' ? 'opened' : dispute}`,
      `subscription:${subscription.id}`,
      {
        payment: ours.id,
      },
    );
    if (dispute === 'lost') await voidCredit(db, ours.id);
    await applyDispute(db, subscription.id, dispute, at);
    return dispute === 'open' ? 'a dispute is open' : `the dispute is ${dispute}`;
  });
}

async function applyDispute(
  db: Transaction,
  id: string,
  dispute: 'open' | 'won' | 'lost',
  at: Instant,
): Promise<void> {
  const site = await currentSite(db);
  const subscription = await lockSubscription(db, id);
  if (!subscription?.memberId) return;
  // Of several disputes, it goes on only when the last is won.
  if (dispute === 'won' && (await hasOpenDispute(db, id))) return;
  const type = ({ open: 'dispute-opened', won: 'dispute-won', lost: 'dispute-lost' } as const)[dispute];
  await happen(db, site, GATEWAY, subscription, { type }, at);
}
