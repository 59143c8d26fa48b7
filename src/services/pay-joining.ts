import { gatewayById } from '@/gateways';
import { declineSentence } from '@/gateways/contract';
import { lock, pool, transaction } from '@/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { countMethodTry, type Joining } from '@/store/joinings';
import { countAttempts, findOpenPayment, type Payment } from '@/store/payments';
import { lockSubscription, setMethod } from '@/store/subscriptions';
import type { Actor } from './actor';
import { whyNotToPay, type Begun, type JoinPlan } from './begin-joining';
import { collect, settleOpenIntent, writeIntent } from './collect-payment';
import { completeJoining } from './complete-joining';
import { keysOf } from './connect-gateway';
import { done, refusedField, type Result } from './result';
import { termsOf } from './terms';

/** Pays for a joining that was begun, and completes it. A refused card or silence comes back as a sentence. */
export async function payJoining(
  actor: Actor,
  plan: JoinPlan,
  { joining, period }: Begun,
  input: { cardToken: string },
): Promise<Result<null>> {
  const open = await findOpenPayment(pool(), joining.subscriptionId);
  if (open) {
    const outcome = await settleOpenIntent(actor, open);
    if (outcome.state === 'succeeded') return done(null);
    if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  }
  if (plan.account) {
    const saved = await saveCard(plan.account, joining, input.cardToken);
    if (!saved.ok) return saved;
  }
  if (period.amount === 0) {
    await transaction(async (db) => {
      const subscription = await lockSubscription(db, joining.subscriptionId);
      if (subscription?.state !== 'pending') return;
      await completeJoining(
        db,
        plan.site,
        actor,
        joining,
        subscription,
        await termsOf(db, plan.site, subscription.offerVersionId),
        period,
        subscription.startedAt,
      );
    });
    return done(null);
  }
  const intent = await transaction(async (db): Promise<Result<Payment>> => {
    // Saving the card took its time; from here to the written intent nobody else passes for this person.
    await lock(db, 'join', joining.email, joining.track);
    const against = await whyNotToPay(db, joining.id, { ...joining, tierName: plan.tier.name });
    if (against) return refusedField('', against);
    const subscription = await lockSubscription(db, joining.subscriptionId);
    if (subscription?.state !== 'pending')
      return refusedField('', 'This was finished in another window. Your account shows it.');
    const attempt = 1 + (await countAttempts(db, subscription.id, period.step, period.n));
    const { currency } = plan.offer.definition;
    return done(await writeIntent(db, subscription, period, attempt, currency, subscription.startedAt));
  });
  if (!intent.ok) return intent;
  const outcome = await collect(actor, intent.value);
  if (outcome.state === 'declined') return refusedField('card', declineSentence(outcome.code));
  return outcome.state === 'succeeded' ? done(null) : refusedField('', silence(outcome.reason));
}

async function saveCard(account: GatewayAccount, joining: Joining, token: string): Promise<Result<null>> {
  if (!token) return refusedField('card', 'Fill in the card.');
  const tries = await countMethodTry(pool(), joining.id);
  const saved = await gatewayById(account.gateway).saveMethod(keysOf(account), {
    token,
    email: joining.email,
    idempotencyKey: `${joining.id}:method:${tries}`,
  });
  if (saved.state === 'declined') return refusedField('card', declineSentence(saved.code));
  if (saved.state === 'unknown')
    return refusedField('card', `${saved.reason}. Nothing was charged; try again in a moment.`);
  await setMethod(pool(), joining.subscriptionId, {
    customerRef: saved.customerRef,
    methodRef: saved.methodRef,
    methodLabel: saved.label,
  });
  return done(null);
}

const silence = (reason: string): string =>
  `${reason}, so we do not know yet whether the payment went through. Press the button again in a minute: you will not be charged twice.`;
