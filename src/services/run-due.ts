import { config } from '@/config';
import { addLength, isBefore, type Instant } from '@/core/calendar';
import { transition } from '@/core/subscriptions/transition';
import { pool, transaction } from '@/platform/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { findOpenPayment, markChargePaid, type Payment } from '@/store/payments';
import type { Site } from '@/platform/store/site';
import { lockSubscription } from '@/store/subscriptions';
import { claimDue, extendLease, waitForPayer, type DueSubscription } from '@/store/subscription-work';
import { WORKER } from '@/platform/actor';
import { applyTransition } from '@/services/lib/apply-transition';
import { siteNow } from '@/platform/clock';
import { collect, settleOpenIntent, writeIntent } from '@/services/lib/collect-payment';
import type { Known } from '@/services/lib/known-parts';
import { record } from '@/platform/record';
import { recordOutcome } from '@/services/lib/record-outcome';
import { currentSite } from '@/platform/site';
import { termsOf } from '@/services/lib/terms';
import { askForTransfer } from '@/services/lib/transfer-details';
import { remind } from './lib/remind';
import { systemUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';

/**
 * Does the one thing that has been due longest: a charge, a retry, an end. False where nothing is due.
 * Any number of workers may call this at once; each takes another subscription.
 */
async function runOne(): Promise<boolean> {
  const site = await currentSite();
  // Once the site is live, what was made in test mode stands still.
  const testNow = site.mode === 'test' ? siteNow(site, 'test') : null;
  const due = await claimDue(pool(), testNow, siteNow(site, 'live'), config().LEASE_SECONDS);
  if (!due) return false;
  // Rehearsed time passes as if the worker had been there at each moment; in live mode the moment is now.
  const at = due.mode === 'test' ? due.dueAt : siteNow(site, 'live');
  // An attempt that a crash or silence left open comes before anything new.
  const open = due.hasOpen ? await findOpenPayment(pool(), due.id) : undefined;
  if (open?.isAwaited) {
    await waitOrGiveUp(site, open, due, at);
    return true;
  }
  const asked = open ? null : await step(site, due, at);
  const intent = open ?? asked?.intent;
  if (!intent) return true;
  const outcome = asked ? await collect(WORKER, asked.intent, asked) : await settleOpenIntent(WORKER, intent);
  if (outcome.state === 'awaited' && intent.isAwaited) await waitOrGiveUp(site, intent, due, at);
  // Silence is asked about again when the lease is over, not at once; so is a wallet that has not billed yet.
  else if (outcome.state === 'unknown' || outcome.state === 'awaited')
    await extendLease(pool(), due.id, config().LEASE_SECONDS);
  return true;
}

/** A transfer has the days that the owner gives it; then the period counts as not paid. */
async function waitOrGiveUp(site: Site, intent: Payment, due: DueSubscription, at: Instant): Promise<void> {
  const account = await findGatewayAccount(pool(), intent.gatewayAccountId);
  const days = account?.settings.daysToPay ?? 0;
  const until = addLength(intent.at, { n: days, unit: 'day' }, site.zone);
  if (isBefore(at, until)) {
    await askForTransfer(due.id, intent.attempt);
    return waitForPayer(pool(), due.id, until);
  }
  await recordOutcome(WORKER, intent, { state: 'declined', ref: null, code: 'not-paid' }, at);
}

/** Takes one step of a subscription's life. The answer is the intent to collect, where the step is a charge. */
async function step(
  site: Site,
  due: DueSubscription,
  at: Instant,
): Promise<(Known & { intent: Payment }) | null> {
  return transaction(async (db) => {
    const subscription = await lockSubscription(db, due.id);
    if (!subscription?.memberId || !subscription.dueAt || isBefore(at, subscription.dueAt)) return null;
    // Rehearsed time may have jumped over the moment at which the member would have been told.
    const { remindAt } = subscription;
    if (remindAt && due.mode === 'test' && !isBefore(at, remindAt))
      await remind(db, site, subscription, remindAt);
    const bought = await termsOf(db, site, subscription);
    const { terms, offer } = bought;
    const next = transition(subscription, { type: 'due' }, terms, at);
    if (!next.ok) throw new Error(`subscription ${due.id}: ${next.reason}`);
    const charge = next.effects.find((effect) => effect.do === 'charge');
    const held = { ...subscription, memberId: subscription.memberId };
    if (charge) {
      const { currency } = offer.definition;
      const asked = await writeIntent(db, subscription, { ...charge, currency, at });
      if ('intent' in asked) return { ...asked, site, subscription, bought };
      await markChargePaid(db, asked.coveredChargeId, at);
      await record(db, WORKER, at, 'paid with credit', `subscription:${due.id}`, {
        charge: asked.coveredChargeId,
      });
      const settled = transition(subscription, { type: 'paid', period: charge.period }, terms, at);
      if (!settled.ok) throw new Error(settled.reason);
      await applyTransition(db, site, WORKER, held, settled, bought, at);
      return null;
    }
    await applyTransition(db, site, WORKER, held, next, bought, at);
    return null;
  });
}

export const runOneDue = systemUse('run-one-due', nothing, async () => done(await runOne()));
