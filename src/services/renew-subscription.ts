import { z } from 'zod';
import { isBefore, type Instant } from '@/core/calendar';
import { transition } from '@/core/subscriptions/transition';
import { renewalOf } from '@/core/subscriptions/upcoming';
import { declineSentence } from '@/gateways/contract';
import { pool, transaction } from '@/platform/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { findMember } from '@/store/members';
import { findOpenPayment, markChargePaid, type Payment } from '@/store/payments';
import { findSubscription, lockSubscription } from '@/store/subscriptions';
import type { Actor, SignedIn } from '@/platform/actor';
import { applyTransition } from '@/services/lib/apply-transition';
import { siteNow } from '@/platform/clock';
import { collect, settleOpenIntent, writeIntent } from '@/services/lib/collect-payment';
import { silence } from '@/services/lib/pay-joining';
import { saveCard } from '@/services/lib/save-card';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { termsOf } from '@/services/lib/terms';
import { memberUse } from '@/platform/use';
import { ownerOfSubscription } from '@/services/lib/owners';

const inputSchema = z.object({
  subscriptionId: z.uuid(),
  /** The end that was shown: a second press of the button finds another, and renews nothing more. */
  until: z.string().min(1),
  cardToken: z.string().max(200).default(''),
  keepCard: z.boolean().default(false),
});

/** Pays for a further length of what was paid once. Early, it begins where the old one ends. */
export const renewSubscription = memberUse(
  'renew-subscription',
  inputSchema,
  (actor, input) => renew(actor, input),
  {
    owner: ({ subscriptionId }) => ownerOfSubscription(subscriptionId),
  },
);

async function renew(
  actor: SignedIn,
  input: z.output<typeof inputSchema>,
): Promise<Result<{ until: Instant | null }>> {
  const subscription = await findSubscription(pool(), input.subscriptionId);
  if (!subscription) return missing();
  const open = await findOpenPayment(pool(), subscription.id);
  if (open) {
    const outcome = await settleOpenIntent(actor, open);
    if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
    if (outcome.state === 'awaited') return refusedField('', AWAITED);
    if (outcome.state === 'succeeded') return renewedUntil(input.subscriptionId);
  }
  if (subscription.paidThrough !== input.until) return renewedUntil(input.subscriptionId);
  if (!input.keepCard) {
    const { gatewayAccountId } = subscription;
    const account = gatewayAccountId ? await findGatewayAccount(pool(), gatewayAccountId) : undefined;
    const member = await findMember(pool(), actor.memberId);
    const saved =
      account &&
      (await saveCard(account, subscription.id, {
        token: input.cardToken,
        email: member?.email ?? '',
        idempotencyKey: `${subscription.id}:renew:${input.cardToken}`,
      }));
    if (saved && !saved.ok) return saved;
  }
  const intent = await askForRenewal(actor, input.subscriptionId, input.until);
  if (!intent.ok) return intent;
  if (intent.value === null) return renewedUntil(input.subscriptionId);
  const outcome = await collect(actor, intent.value);
  if (outcome.state === 'declined') return refusedField('card', declineSentence(outcome.code));
  if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  return outcome.state === 'awaited' ? refusedField('', AWAITED) : renewedUntil(input.subscriptionId);
}

const AWAITED =
  'Your transfer is awaited; your account shows the reference. It is renewed as soon as the money is there.';

async function askForRenewal(actor: Actor, id: string, until: string): Promise<Result<Payment | null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const subscription = await lockSubscription(db, id);
    if (!subscription?.memberId || subscription.paidThrough !== until) return done(null);
    if (await findOpenPayment(db, id))
      return refusedField('', 'A payment is under way. Try again in a minute.');
    const at = siteNow(site, subscription.mode);
    const bought = await termsOf(db, site, subscription);
    const renewal = renewalOf(subscription, bought.terms);
    if (!renewal || isBefore(at, renewal.from))
      return refusedField('', 'This cannot be renewed yet. Nothing was charged.');
    const { period, number } = renewal;
    const { currency } = bought.offer.definition;
    if (period.amount > 0) {
      const asked = await writeIntent(db, subscription, {
        period,
        currency,
        at,
        number,
        renews: true,
        byMember: true,
      });
      if ('intent' in asked) return done(asked.intent);
      await markChargePaid(db, asked.coveredChargeId, at);
    }
    const next = transition(subscription, { type: 'renewed', period }, bought.terms, at);
    if (!next.ok) return refusedField('', next.reason);
    const held = { ...subscription, memberId: subscription.memberId };
    await applyTransition(db, site, actor, held, next, bought, at);
    return done(null);
  });
}

async function renewedUntil(id: string): Promise<Result<{ until: Instant | null }>> {
  return done({ until: (await findSubscription(pool(), id))?.paidThrough ?? null });
}
