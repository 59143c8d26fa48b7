import { gatewayById } from '@/gateways';
import { declineSentence } from '@/gateways/contract';
import { pool } from '@/platform/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { setMethod } from '@/store/subscriptions';
import { keysOf } from '@/services/lib/gateway-account';
import { done, refusedField, type Result } from '@/platform/result';

/** Has the gateway keep the card that its frame took, for a subscription. A refused card comes back as a sentence. */
export async function saveCard(
  account: GatewayAccount,
  subscriptionId: string,
  card: { token: string; email: string; idempotencyKey: string },
): Promise<Result<null>> {
  if (!card.token) return refusedField('card', 'Fill in the card.');
  const saved = await gatewayById(account.gateway).saveMethod(keysOf(account), card);
  if (saved.state === 'declined') return refusedField('card', declineSentence(saved.code));
  if (saved.state === 'unknown')
    return refusedField('card', `${saved.reason}. Nothing was charged; try again in a moment.`);
  await setMethod(pool(), subscriptionId, {
    customerRef: saved.customerRef,
    methodRef: saved.methodRef,
    methodLabel: saved.label,
    methodExpires: saved.expires,
  });
  return done(null);
}
