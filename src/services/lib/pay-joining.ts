import { gatewayById } from '@/gateways';
import { declineSentence } from '@/gateways/contract';
import { pool, transaction } from '@/platform/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { countMethodTry, type Joining } from '@/store/joinings';
import { findOpenPayment, markChargePaid, type Payment } from '@/store/payments';
import { setAccount, setMethod } from '@/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { askForApproval } from './approve-joining';
import { lockToPay, type Begun, type JoinPlan } from './begin-joining';
import { collect, settleOpenIntent, writeIntent } from './collect-payment';
import { completeJoining } from './complete-joining';
import { recordOutcome } from './record-outcome';
import { done, refusedField, type Result } from '@/platform/result';
import { saveCard } from './save-card';
import { termsOf } from './terms';

type Card = { cardToken: string; keepCard: boolean };

/** How far a joining has come: it is done, the payer has to approve it at the wallet, or to send a transfer. */
export type Paid = { state: 'done' } | { state: 'approve'; url: string } | { state: 'transfer' };

/** Pays for a joining that was begun, and completes it. A refused card or silence comes back as a sentence. */
export async function payJoining(
  actor: Actor,
  plan: JoinPlan,
  begun: Begun,
  input: Card,
): Promise<Result<Paid>> {
  const { joining, period } = begun;
  const nature = plan.account && gatewayById(plan.account.gateway).nature;
  const open = await findOpenPayment(pool(), joining.subscriptionId);
  if (open?.isAwaited && nature === 'transfer') return done({ state: 'transfer' });
  if (open) {
    // Whoever pays in another way after all has not sent the transfer.
    const outcome = open.isAwaited ? await giveUpTransfer(actor, open) : await settleOpenIntent(actor, open);
    if (outcome.state === 'succeeded') return done({ state: 'done' });
    if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
    if (plan.account) await setAccount(pool(), joining.subscriptionId, plan.account.id);
  }
  if (plan.account && nature === 'wallet') {
    const asked = await askForApproval(plan, plan.account, begun);
    return asked.ok ? done({ state: 'approve', url: asked.value.approveUrl }) : asked;
  }
  if (plan.account && nature === 'card') {
    const saved = await chooseCard(plan, plan.account, joining, input);
    if (!saved.ok) return saved;
  }
  const intent = await transaction(async (db): Promise<Result<Payment | null>> => {
    // Saving the card took its time.
    const locked = await lockToPay(db, plan, joining);
    if (!locked.ok) return locked;
    const subscription = locked.value;
    const at = subscription.startedAt;
    if (period.amount > 0) {
      const asked = await writeIntent(db, subscription, {
        period,
        currency: plan.offer.definition.currency,
        at,
        byMember: true,
        switchCredit: plan.quote?.credit,
      });
      if ('intent' in asked) return done(asked.intent);
      await markChargePaid(db, asked.coveredChargeId, at);
    }
    const bought = await termsOf(db, plan.site, subscription);
    await completeJoining(
      db,
      plan.site,
      actor,
      joining,
      subscription,
      bought,
      period,
      subscription.startedAt,
      null,
    );
    return done(null);
  });
  if (!intent.ok) return intent;
  if (intent.value === null) return done({ state: 'done' });
  const outcome = await collect(actor, intent.value);
  if (outcome.state === 'declined') return refusedField('card', declineSentence(outcome.code));
  if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  return done({ state: outcome.state === 'awaited' ? 'transfer' : 'done' });
}

async function giveUpTransfer(actor: Actor, open: Payment): Promise<{ state: 'declined' }> {
  await recordOutcome(actor, open, { state: 'declined', ref: null, code: 'not-paid' });
  return { state: 'declined' };
}

/** The card that will be charged: the one that was kept, or the one just filled in. */
async function chooseCard(
  { replaces }: JoinPlan,
  account: GatewayAccount,
  joining: Joining,
  { cardToken, keepCard }: Card,
): Promise<Result<null>> {
  if (!keepCard) {
    const idempotencyKey = `${joining.id}:method:${await countMethodTry(pool(), joining.id)}`;
    return saveCard(account, joining.subscriptionId, {
      token: cardToken,
      email: joining.email,
      idempotencyKey,
    });
  }
  const { customerRef, methodRef, methodLabel, methodExpires = null, gatewayAccountId } = replaces ?? {};
  if (!customerRef || !methodRef || !methodLabel || gatewayAccountId !== account.id)
    return refusedField('card', 'This card is not kept any more. Fill in a card.');
  await setMethod(pool(), joining.subscriptionId, { customerRef, methodRef, methodLabel, methodExpires });
  return done(null);
}

export const silence = (reason: string): string =>
  `${reason}, so we do not know yet whether the payment went through. Press the button again in a minute: you will not be charged twice.`;
