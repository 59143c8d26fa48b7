import { transition } from '@/core/subscriptions/transition';
import { declineSentence } from '@/gateways/contract';
import { pool, transaction } from '@/platform/store/db';
import { findOpenPayment, markChargePaid, type Payment } from '@/store/payments';
import type { Actor } from '@/platform/actor';
import { applyTransition } from '@/services/lib/apply-transition';
import { lockForChange } from '@/services/lib/change-subscription';
import { siteNow } from '@/platform/clock';
import { collect, settleOpenIntent, writeIntent } from '@/services/lib/collect-payment';
import { silence } from '@/services/lib/pay-joining';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { termsOf } from '@/services/lib/terms';
import { askForTransfer } from '@/services/lib/transfer-details';

/**
 * Charges at the member's wish, outside the schedule: what is overdue, or the next period of what was paused. Refused,
 * it leaves everything as it was: the schedule's own tries are not used up.
 */
export async function chargeNow(actor: Actor, id: string, event: 'due' | 'resume'): Promise<Result<null>> {
  const open = await findOpenPayment(pool(), id);
  if (open?.isAwaited)
    return refusedField('', `Your transfer with the reference ${open.reference} is awaited.`);
  if (open) {
    const outcome = await settleOpenIntent(actor, open);
    if (outcome.state === 'succeeded') return done(null);
    if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  }
  const asked = await ask(actor, id, event);
  if (!asked.ok || asked.value === null) return asked.ok ? done(null) : asked;
  const outcome = await collect(actor, asked.value);
  if (outcome.state === 'declined') return refusedField('card', declineSentence(outcome.code));
  if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  if (outcome.state === 'awaited') await askForTransfer(id, asked.value.attempt);
  return done(null);
}

async function ask(actor: Actor, id: string, event: 'due' | 'resume'): Promise<Result<Payment | null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const subscription = await lockForChange(db, actor, id);
    const at = siteNow(site, subscription.mode);
    if (event === 'due' && subscription.state !== 'overdue') return done(null);
    if (await findOpenPayment(db, id))
      return refusedField('', 'A payment is under way. Try again in a minute.');
    const bought = await termsOf(db, site, subscription);
    const next = transition(subscription, { type: event }, bought.terms, at);
    if (!next.ok) return refusedField('', next.reason);
    const charge = next.effects.find((effect) => effect.do === 'charge');
    if (!charge) {
      await applyTransition(db, site, actor, subscription, next, bought, at);
      return done(null);
    }
    const { currency } = bought.offer.definition;
    const due = await writeIntent(db, subscription, { period: charge.period, currency, at, byMember: true });
    if ('intent' in due) return done(due.intent);
    await markChargePaid(db, due.coveredChargeId, at);
    const paid = transition(subscription, { type: 'paid', period: charge.period }, bought.terms, at);
    if (!paid.ok) return refusedField('', paid.reason);
    await applyTransition(db, site, actor, subscription, paid, bought, at);
    return done(null);
  });
}
