import type { Event } from '@/core/billing/event';
import type { Refusal } from '@/core/billing/work';
import { gatewayById } from '@/billing/gateways';
import type { GatewayPayment } from '@/billing/gateways/contract';
import { findSubscription } from '@/billing/store/subscriptions';
import type { StoredBook, Wanted } from '@/billing/store/book';
import { GATEWAY } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { keysOf } from './gateway-account';
import { findAgreementByRef, findStray, insertStray } from '@/billing/store/agreements';
import type { GatewayAccount } from '@/billing/store/gateways';
import { findPaymentByKey, findPaymentByRef, type Payment } from '@/billing/store/payments';
import { findDispute, listRefunds } from '@/billing/store/refunds';
import { doAsks } from './in-book';
import { happen, openBook } from './open-book';
import type { Instant } from '@/core/instants';
import type { SubscriptionId } from '@/core/ids';

/** What was done about a payment that the gateway speaks of; null: nothing yet, it may be only early. */
export type Synced = string | null;

/** What the book cannot use now, and will later: the message is looked at again. */
const WAITS: ReadonlySet<Refusal> = new Set(['under-way', 'disputed']);

/**
 * Brings the books in line with one payment as the gateway has it: how it ended, what of it was refunded there, and
 * whether it is disputed. Whatever comes twice, or in another order, comes to the same.
 */
export async function syncPayment(account: GatewayAccount, payment: GatewayPayment): Promise<Synced> {
  const ours = await findOurs(account, payment);
  if (!ours) return payment.agreementRef ? takeUpBills(account, payment.agreementRef) : null;
  const did: string[] = [];
  for (const next of [followOutcome, followRefunds, followDispute]) {
    const result = await next(ours, payment);
    if (result === null) return null;
    if (result) did.push(result);
  }
  return did.length > 0 ? did.join('; ') : 'known already';
}

async function findOurs(account: GatewayAccount, { key, ref }: GatewayPayment): Promise<Payment | undefined> {
  const ours =
    key === null ? await findPaymentByRef(pool(), account.id, ref) : await findPaymentByKey(pool(), key);
  return ours?.gatewayAccountId === account.id ? ours : undefined;
}

/** One thing happens in the book that a payment is in. Null: not now; '': it was known. */
async function bring(
  ours: Payment,
  wanted: Wanted,
  event: Event,
  words: string,
  at?: Instant,
): Promise<Synced> {
  const site = await currentSite();
  const done = await transaction(async (db) => {
    const open = await openBook(db, site, GATEWAY, ours, wanted, at);
    const happened = await happen(open, event);
    return { happened, stored: open.stored };
  });
  if (!done.happened.ok) return WAITS.has(done.happened.why) ? null : '';
  await doAsks(GATEWAY, site, done.stored, done.happened.asks);
  return words;
}

/** How an attempt ended: a success outranks a failure that was recorded before, and never the other way round. */
async function followOutcome(ours: Payment, payment: GatewayPayment): Promise<Synced> {
  const answer = { charge: ours.chargeId, attempt: ours.id, ref: payment.ref };
  const wanted = { charges: [ours.chargeId] };
  if (ours.state === 'intent') {
    const event: Event =
      payment.state === 'succeeded'
        ? { do: 'paid', ...answer }
        : { do: 'declined', ...answer, code: payment.code ?? 'declined' };
    // What is open happened when it was asked for.
    return bring(ours, wanted, event, `recorded as ${payment.state}`, ours.at);
  }
  if (ours.state === 'succeeded' || payment.state !== 'succeeded') return '';
  const late = await bring(ours, wanted, { do: 'late-success', ...answer }, 'recorded as succeeded');
  // It can no longer begin anything: the money is recorded, and returned.
  return late === '' ? bring(ours, wanted, { do: 'unusable', ...answer }, 'recorded, and returned') : late;
}

/** Refunds that were made at the gateway itself, or asked for by us and not heard of. */
async function followRefunds(ours: Payment, { refunds }: GatewayPayment): Promise<Synced> {
  const known = await listRefunds(pool(), [ours.id]);
  const wanted = { payments: [ours.id] };
  let took = false;
  for (const { ref, key, amount } of refunds) {
    const asked = known.find((one) => one.gatewayRef === ref || (key !== null && one.idempotencyKey === key));
    if (asked && asked.state !== 'intent') continue;
    const event: Event = asked
      ? { do: 'refunded', refund: asked.id, ref }
      : { do: 'refunded-there', payment: ours.id, amount, ref };
    const result = await bring(ours, { ...wanted, refunds: asked ? [asked.id] : [] }, event, 'taken');
    if (result === null) return null;
    took ||= result !== '';
  }
  return took ? 'refunds made at the gateway are in the books' : '';
}

/** A dispute that was opened or decided: what its money paid for is suspended, restored, or ended. */
async function followDispute(ours: Payment, { dispute }: GatewayPayment): Promise<Synced> {
  if (!dispute) return '';
  const known = await findDispute(pool(), ours.id);
  // What is decided is not opened again by a message that comes late.
  if (known && (known.state === dispute || known.state !== 'open')) return '';
  const wanted = { payments: [ours.id] };
  // A gateway may tell only of the end.
  const opened = known
    ? ''
    : await bring(ours, wanted, { do: 'dispute', payment: ours.id }, 'a dispute is open');
  if (opened === null || dispute === 'open') return opened;
  const event: Event = { do: dispute === 'won' ? 'dispute-won' : 'dispute-lost', payment: ours.id };
  return bring(ours, wanted, event, `the dispute is ${dispute}`);
}

/** Money that is for nothing: it is shown, and the worker returns it. */
async function keepToReturn(
  { id: gatewayAccountId, mode }: GatewayAccount,
  { ref: gatewayRef, amount, currency, at }: GatewayPayment,
  subscriptionId: SubscriptionId,
  reason: string,
): Promise<string> {
  await insertStray(pool(), {
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

/**
 * The bills of an agreement that the books do not know, oldest first, whichever of them was spoken of: each is for the
 * oldest unpaid charge.
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

/** A bill that a wallet made by itself: for the oldest unpaid charge, or for nothing that runs. */
async function billed(account: GatewayAccount, payment: GatewayPayment): Promise<Synced> {
  const agreement = await findAgreementByRef(pool(), account.id, payment.agreementRef ?? '');
  if (!agreement) return null;
  const known = await findStray(pool(), account.id, payment.ref);
  if (known) return known.reason;
  // Until a checkout or a running subscription uses its approval, a bill pays for nothing.
  if (agreement.state === 'asked') return null;
  const of = await findSubscription(pool(), agreement.subscriptionId);
  if (agreement.state !== 'running' || !of) {
    if (payment.state === 'declined') return 'a bill of an agreement that has ended was not paid';
    return keepToReturn(
      account,
      payment,
      agreement.subscriptionId,
      'billed under an agreement that has ended',
    );
  }
  const site = await currentSite();
  const at = account.mode === 'test' ? payment.at : siteNow(site, 'live');
  const code = payment.state === 'declined' ? (payment.code ?? 'declined') : undefined;
  const done = await transaction(async (db): Promise<{ stored: StoredBook; why: Refusal | null }> => {
    const open = await openBook(db, site, GATEWAY, of, {}, at);
    if (await findPaymentByRef(db, account.id, payment.ref)) return { stored: open.stored, why: 'known' };
    // What is asked for elsewhere is answered there first.
    if (open.stored.accounts.get(of.id)?.gatewayAccountId !== account.id)
      return { stored: open.stored, why: 'under-way' };
    const happened = await happen(open, { do: 'billed', subscription: of.id, ref: payment.ref, code });
    return { stored: open.stored, why: happened.ok ? null : happened.why };
  });
  if (done.why === 'known') return 'recorded before';
  if (done.why === null) return `recorded as ${payment.state}`;
  if (WAITS.has(done.why)) return null;
  if (code) return 'a bill for what was paid already was not paid';
  return keepToReturn(account, payment, of.id, 'billed for what was paid already');
}
