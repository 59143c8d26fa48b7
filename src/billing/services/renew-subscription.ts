import { z } from 'zod';
import type { Instant } from '@/core/instants';
import { findSubscription } from '@/billing/store/subscriptions';
import type { SignedIn } from '@/platform/actor';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { ownerOfSubscription } from './lib/owners';
import { findGatewayAccount } from '@/billing/store/gateways';
import { findMember } from '@/people/store/members';
import { keepCard, setPayer, type Payer } from './lib/change-account';
import { inBookForPerson } from './lib/in-book';
import type { GatewayAccountId } from '@/core/ids';

const inputSchema = z.object({
  subscriptionId: z.uuid(),
  /** The end that was shown: a second press of the button finds another, and renews nothing more. */
  until: z.string().min(1),
  cardToken: z.string().max(200).default(''),
  keepCard: z.boolean().default(false),
});

/** Pays for a further length of what was paid once. Early, it begins where the old one ends. */
export const renewSubscription = memberUse('renew-subscription', inputSchema, renew, {
  owner: ({ subscriptionId }) => ownerOfSubscription(subscriptionId),
});

async function renew(
  actor: SignedIn,
  { subscriptionId: id, until, cardToken, keepCard: keeps }: z.output<typeof inputSchema>,
): Promise<Result<{ until: Instant | null }>> {
  const found = await findSubscription(pool(), id);
  if (!found) return missing();
  if (found.paidThrough !== until) return done({ until: found.paidThrough });
  const payer = keeps || found.method?.nature !== 'card' ? done(null) : await chosen(actor, found, cardToken);
  if (!payer.ok) return payer;
  const ended = await inBookForPerson(actor, found, {}, async (open) => {
    const s = open.stored.book.subscriptions.find((one) => one.id === id);
    // A second press finds it done.
    if (s?.paidThrough !== until) return null;
    if (payer.value) await setPayer(open, s.id, payer.value);
    return { do: 'renew', subscription: id };
  });
  if (!ended.ok) return ended;
  if (ended.value.outcome?.state === 'awaited') return refusedField('', 'renewal.awaited');
  return done({ until: (await findSubscription(pool(), id))?.paidThrough ?? null });
}

async function chosen(
  actor: SignedIn,
  { id, gatewayAccountId }: { id: string; gatewayAccountId: GatewayAccountId | null },
  token: string,
): Promise<Result<Payer | null>> {
  const account = gatewayAccountId ? await findGatewayAccount(pool(), gatewayAccountId) : undefined;
  if (!account) return done(null);
  const member = await findMember(pool(), actor.memberId);
  return keepCard(account, { token, email: member?.email ?? '', idempotencyKey: `${id}:renew:${token}` });
}
