import { gatewayById } from '@/gateways';
import { outcomeOf, type ChargeOutcome } from '@/gateways/contract';
import { findAgreementOf, findStray } from '@/store/agreements';
import { pool } from '@/platform/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { findPaymentByRef, type Payment } from '@/store/payments';
import type { StoredSubscription } from '@/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { keysOf } from '@/services/lib/gateway-account';
import { recordOutcome } from './record-outcome';
import { currentSite } from '@/platform/site';

/**
 * What became of a period that a wallet bills by itself: the oldest bill of its agreement that the books do not know
 * is for the oldest unpaid period. Awaited where the wallet has not billed yet. What an agreement bills that has ended
 * with us is for no period: it is returned.
 */
export async function walletOutcome(
  actor: Actor,
  intent: Payment,
  account: GatewayAccount,
  subscription: StoredSubscription,
): Promise<ChargeOutcome> {
  const agreement = await findAgreementOf(pool(), subscription.id, ['running']);
  if (!agreement?.ref) return refusedFor(actor, intent);
  const gateway = gatewayById(account.gateway);
  const keys = keysOf(account);
  if (account.mode === 'test') {
    // In rehearsal the wallet lives by our clock, and no further ahead than what is being done.
    const told = await gateway.setTestClock(keys, intent.at);
    if (!told.ok) return { state: 'unknown', reason: told.reason };
  }
  const listed = await gateway.listPayments(keys, agreement.ref);
  if (!listed.ok) return { state: 'unknown', reason: listed.reason };
  for (const payment of listed.payments) {
    if (await findPaymentByRef(pool(), account.id, payment.ref)) continue;
    if (await findStray(pool(), account.id, payment.ref)) continue;
    const outcome = outcomeOf(payment);
    await recordOutcome(actor, intent, outcome);
    return outcome;
  }
  const found = await gateway.findAgreement(keys, agreement.ref);
  if (!found.ok) return { state: 'unknown', reason: found.reason };
  return found.agreement?.state === 'running' ? { state: 'awaited' } : refusedFor(actor, intent);
}

/** Nothing is agreed any more, so nothing will come by itself: the payer has to choose anew how they pay. */
async function refusedFor(actor: Actor, intent: Payment): Promise<ChargeOutcome> {
  const outcome = { state: 'declined', ref: null, code: 'not-paid' } as const;
  const site = await currentSite();
  await recordOutcome(actor, intent, outcome, intent.mode === 'test' ? intent.at : siteNow(site, 'live'));
  return outcome;
}
