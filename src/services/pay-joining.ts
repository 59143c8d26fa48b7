import { declineSentence } from '@/gateways/contract';
import { lock, pool, transaction } from '@/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { countMethodTry, type Joining } from '@/store/joinings';
import { countAttempts, findOpenPayment, markChargePaid, type Payment } from '@/store/payments';
import { lockSubscription, setMethod } from '@/store/subscriptions';
import type { Actor } from './actor';
import { whyNotToPay, type Begun, type JoinPlan } from './begin-joining';
import { collect, settleOpenIntent, writeIntent } from './collect-payment';
import { completeJoining } from './complete-joining';
import { done, refusedField, type Result } from './result';
import { saveCard } from './save-card';
import { placeOf } from './standing';
import { termsOf } from './terms';

type Card = { cardToken: string; keepCard: boolean };

/** Pays for a joining that was begun, and completes it. A refused card or silence comes back as a sentence. */
export async function payJoining(
  actor: Actor,
  plan: JoinPlan,
  { joining, period }: Begun,
  input: Card,
): Promise<Result<null>> {
  const open = await findOpenPayment(pool(), joining.subscriptionId);
  if (open) {
    const outcome = await settleOpenIntent(actor, open);
    if (outcome.state === 'succeeded') return done(null);
    if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  }
  if (plan.account) {
    const saved = await chooseCard(plan, plan.account, joining, input);
    if (!saved.ok) return saved;
  }
  const intent = await transaction(async (db): Promise<Result<Payment | null>> => {
    // Saving the card took its time; from here to the written intent nobody else passes for this person.
    await lock(db, 'join', joining.email, joining.track);
    const { slot } = placeOf(plan.tier, joining.id);
    const against = await whyNotToPay(db, joining.id, { ...joining, slot, tierName: plan.tier.name });
    if (against) return refusedField('', against);
    const subscription = await lockSubscription(db, joining.subscriptionId);
    if (subscription?.state !== 'pending')
      return refusedField('', 'This was finished in another window. Your account shows it.');
    const at = subscription.startedAt;
    if (period.amount > 0) {
      const asked = await writeIntent(db, subscription, {
        period,
        attempt: 1 + (await countAttempts(db, subscription.id, period.step, period.n)),
        currency: plan.offer.definition.currency,
        at,
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
  if (!intent.ok || intent.value === null) return intent.ok ? done(null) : intent;
  const outcome = await collect(actor, intent.value);
  if (outcome.state === 'declined') return refusedField('card', declineSentence(outcome.code));
  return outcome.state === 'succeeded' ? done(null) : refusedField('', silence(outcome.reason));
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
  const { customerRef, methodRef, methodLabel, gatewayAccountId } = replaces ?? {};
  if (!customerRef || !methodRef || !methodLabel || gatewayAccountId !== account.id)
    return refusedField('card', 'This card is not kept any more. Fill in a card.');
  await setMethod(pool(), joining.subscriptionId, { customerRef, methodRef, methodLabel });
  return done(null);
}

export const silence = (reason: string): string =>
  `${reason}, so we do not know yet whether the payment went through. Press the button again in a minute: you will not be charged twice.`;
