import type { Instant } from '@/core/calendar';
import type { Period } from '@/core/offers/schedule';
import { transition } from '@/core/subscriptions/transition';
import { findQuote, insertCredit, spendCredit } from '@/store/credits';
import type { Transaction } from '@/platform/store/db';
import type { Joining } from '@/store/joinings';
import { findLastPaid, listChargeIds, type Payment } from '@/store/payments';
import type { Site } from '@/platform/store/site';
import { lockSubscription, type StoredSubscription } from '@/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { applyTransition } from './apply-transition';
import { termsOf } from './terms';

/**
 * Ends the subscription that is switched away from, in the transaction that begins the new one: the credit of the
 * quote is given, the first charge spends it, and what is left over stays with the member.
 */
export async function leaveForSwitch(
  db: Transaction,
  site: Site,
  actor: Actor,
  joining: Joining,
  running: StoredSubscription,
  begun: StoredSubscription,
  period: Period,
  payment: Payment | null,
  at: Instant,
): Promise<void> {
  const old = await lockSubscription(db, running.id);
  if (!old?.memberId) throw new Error(`subscription ${running.id} has no member`);
  const quote = joining.quoteId ? await findQuote(db, joining.quoteId) : undefined;
  const bought = await termsOf(db, site, old);
  const { currency } = bought.offer.definition;
  if (quote && quote.credit > 0) {
    const paid = await findLastPaid(db, old.id);
    await insertCredit(db, {
      memberId: old.memberId,
      mode: old.mode,
      currency,
      amount: quote.credit,
      paymentId: paid?.paymentId ?? null,
      chargeId: paid?.id ?? null,
      reason: `unused days of ${bought.offer.tierName}`,
      at,
    });
    // What the payment did not cover of the first charge is what the quote had the credit pay.
    const spent = period.amount - (payment?.amount ?? 0);
    for (const chargeId of await listChargeIds(db, begun.id))
      await spendCredit(db, old.memberId, old.mode, currency, chargeId, spent);
  }
  const left = transition(old, { type: 'switched' }, bought.terms, at);
  if (!left.ok) throw new Error(left.reason);
  await applyTransition(db, site, actor, { ...old, memberId: old.memberId }, left, bought, at);
}
