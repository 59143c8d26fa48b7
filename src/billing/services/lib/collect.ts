import { config } from '@/platform/config';
import type { Attempt, Charge } from '@/core/billing/book';
import type { Event } from '@/core/billing/event';
import { gatewayById } from '@/billing/gateways';
import { outcomeOf, type ChargeOutcome, type Gateway, type Keys } from '@/billing/gateways/contract';
import { extendPurchaseLease } from '@/billing/store/purchases';
import { attemptKey, payerOf } from '@/billing/store/save-charges';
import type { StoredBook } from '@/billing/store/book';
import type { Actor } from '@/platform/actor';
import { pool, transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { keysOf } from './gateway-account';
import { findAgreementOf, findStray } from '@/billing/store/agreements';
import { findGatewayAccount, noteAccountError, type GatewayAccount } from '@/billing/store/gateways';
import { findPaymentByRef } from '@/billing/store/payments';
import { extendLease } from '@/billing/store/subscription-work';
import { happen, openAgain } from './open-book';
import { askForTransfer } from './transfer-details';

/** An attempt in a book, with whom it is asked of. */
type Asked = {
  stored: StoredBook;
  charge: Charge;
  attempt: Attempt;
  account: GatewayAccount;
  gateway: Gateway;
  keys: Keys;
};

/**
 * Asks the gateway for the money of an attempt that is written down, and brings the answer into the book. Silence is left
 * for the worker to ask about; what the payer, or a wallet, sends by itself is awaited.
 */
export async function collect(
  actor: Actor,
  site: Site,
  stored: StoredBook,
  attemptId: string,
  isNew = true,
): Promise<ChargeOutcome> {
  const asked = await partsOf(stored, attemptId);
  const outcome = isNew ? await charge(site, asked) : await askAbout(site, asked);
  const { account, attempt } = asked;
  const error = outcome.state === 'unknown' ? outcome.reason : null;
  if (error !== account.lastError) await noteAccountError(pool(), account.id, error);
  if (outcome.state === 'succeeded' || outcome.state === 'declined')
    await bringIn(actor, site, asked, outcome);
  else if (attempt.until !== null) await askForTransfer(site, stored, asked.charge, attempt);
  // Silence is asked about again when the lease ends, not at once; so is a wallet that has not billed yet.
  else if (asked.charge.subscription)
    await extendLease(pool(), asked.charge.subscription, config().LEASE_SECONDS);
  else await extendPurchaseLease(pool(), asked.charge.purchase ?? '', config().LEASE_SECONDS);
  return outcome;
}

async function partsOf(stored: StoredBook, attemptId: string): Promise<Asked> {
  for (const charge of stored.book.charges) {
    const attempt = charge.attempts.find(({ id }) => id === attemptId);
    if (!attempt) continue;
    const accountId = stored.accounts.get(payerOf(charge))?.gatewayAccountId;
    const account = accountId ? await findGatewayAccount(pool(), accountId) : undefined;
    if (!account) throw new Error(`attempt ${attemptId} has lost its gateway`);
    return { stored, charge, attempt, account, gateway: gatewayById(account.gateway), keys: keysOf(account) };
  }
  throw new Error(`the book has no attempt ${attemptId}`);
}

async function charge(site: Site, asked: Asked): Promise<ChargeOutcome> {
  const { stored, charge: one, attempt, gateway, keys } = asked;
  if (gateway.nature === 'wallet') return billOf(site, asked);
  const account = stored.accounts.get(payerOf(one));
  const idempotencyKey = attemptKey(one, attempt.n);
  return gateway.charge(keys, {
    customerRef: account?.customerRef ?? '',
    methodRef: account?.methodRef ?? '',
    amount: one.due,
    currency: one.currency,
    idempotencyKey,
    note: `${idempotencyKey} at ${attempt.at}`,
  });
}

/**
 * What became of an attempt of which nobody knows how it ended. Only where the gateway never heard of it is the money asked
 * for, under the same key; and not where it is no longer to be charged.
 */
async function askAbout(site: Site, asked: Asked): Promise<ChargeOutcome> {
  const { charge: one, attempt, gateway, keys, stored } = asked;
  if (gateway.nature !== 'card') return charge(site, asked);
  const found = await gateway.findPayment(keys, { key: attemptKey(one, attempt.n) });
  if (!found.ok) return { state: 'unknown', reason: found.reason };
  if (found.payment) return outcomeOf(found.payment);
  const s = stored.book.subscriptions.find(({ id }) => id === one.subscription);
  const isBought = one.purchase !== null;
  const isOver = one.state !== 'open' || (!isBought && (!s || s.state === 'ended' || s.disputes.length > 0));
  return isOver ? { state: 'declined', ref: null, code: 'not-paid' } : charge(site, asked);
}

/**
 * What a wallet has billed for a charge by itself: the oldest bill of its agreement that the books do not know. Awaited
 * where it has not billed yet; where no agreement runs, nothing will come.
 */
async function billOf(
  site: Site,
  { stored, charge: one, attempt, account, gateway, keys }: Asked,
): Promise<ChargeOutcome> {
  const none = { state: 'declined', ref: null, code: 'not-paid' } as const;
  const agreement = await findAgreementOf(pool(), one.subscription ?? '', ['running']);
  if (!agreement?.ref) return none;
  if (stored.mode === 'test') {
    // In rehearsal the wallet lives by our clock, and no further ahead than what is being done.
    const told = await gateway.setRehearsalTime(keys, attempt.at);
    if (!told.ok) return { state: 'unknown', reason: told.reason };
  }
  const listed = await gateway.listPayments(keys, agreement.ref);
  if (!listed.ok) return { state: 'unknown', reason: listed.reason };
  for (const payment of listed.payments) {
    if (await findPaymentByRef(pool(), account.id, payment.ref)) continue;
    if (await findStray(pool(), account.id, payment.ref)) continue;
    return outcomeOf(payment);
  }
  const found = await gateway.findAgreement(keys, agreement.ref);
  if (!found.ok) return { state: 'unknown', reason: found.reason };
  return found.agreement?.state === 'running' ? { state: 'awaited' } : none;
}

/** Brings the end of an attempt into its book; the second to come with it changes nothing. */
async function bringIn(
  actor: Actor,
  site: Site,
  { stored, charge: one, attempt }: Asked,
  outcome: Extract<ChargeOutcome, { state: 'succeeded' | 'declined' }>,
): Promise<void> {
  const answer = { charge: one.id, attempt: attempt.id, ref: outcome.ref };
  const event: Event =
    outcome.state === 'succeeded'
      ? { do: 'paid', ...answer }
      : { do: 'declined', ...answer, code: outcome.code };
  await transaction(async (db) => {
    // It is taken to have happened when it was asked for.
    const open = await openAgain(db, site, actor, stored, { charges: [one.id] }, attempt.at);
    const done = await happen(open, event);
    if (!done.ok && done.why !== 'known') throw new Error(`attempt ${attempt.id}: ${done.why}`);
  });
}
