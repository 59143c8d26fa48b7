import { hasLeft } from '@/core/billing/discount';
import { z } from 'zod';
import { gatewayById } from '@/billing/gateways';
import { findSubscription, type StoredSubscription } from '@/billing/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite, inMode } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { ownerOfSubscription } from './lib/owners';
import { gatewaysFor } from './lib/checkout-gateways';
import type { GatewayAccount } from '@/billing/store/gateways';
import { findMember } from '@/people/store/members';
import { askToApprove } from './lib/approve-running';
import { keepCard, methodOf, payerThrough, setPayer, type Payer } from './lib/change-account';
import { inBookForPerson } from './lib/in-book';
import { boughtOf } from './lib/schedules';

const inputSchema = z.object({
  subscriptionId: z.uuid(),
  accountId: z.uuid(),
  cardToken: z.string().max(200).default(''),
});

/**
 * Changes how a subscription is paid: another card, or another of the site's payment methods. What is owed, or awaited, is
 * charged at once; refused, a transfer is awaited as before. A wallet is to be told yes first: the answer is its page.
 */
export const changeMethod = memberUse('change-method', inputSchema, (actor, input) => change(actor, input), {
  owner: ({ subscriptionId }) => ownerOfSubscription(subscriptionId),
});

async function change(
  actor: Actor,
  { subscriptionId: id, accountId, cardToken }: z.output<typeof inputSchema>,
): Promise<Result<{ approveUrl: string | null }>> {
  const found = await findSubscription(pool(), id);
  if (!found) return missing();
  const site = inMode(await currentSite(), found.mode);
  const { offer } = await boughtOf(pool(), site, found);
  const account = (await gatewaysFor(site, offer, { hasDiscount: hasLeft(found.discount) })).find(
    (one) => one.id === accountId,
  );
  if (!account) return refusedField('', 'method.not-here');
  if (gatewayById(account.gateway).nature === 'wallet') return askToApprove(actor, found, account);
  const payer = await payerOf(found, account, cardToken);
  const method = methodOf(account);
  if (!payer.ok) return payer;
  if (!method) return refusedField('', 'method.not-here');
  const ended = await inBookForPerson(actor, found, {}, async (open) => {
    if (!open.stored.accounts.has(id)) return 'ended';
    await setPayer(open, id, payer.value);
    const detail = { through: account.label };
    await record(open.db, actor, open.at, 'payment method changed', `subscription:${id}`, detail);
    return { do: 'method', subscription: id, method };
  });
  return ended.ok ? done({ approveUrl: null }) : ended;
}

async function payerOf(
  s: StoredSubscription,
  account: GatewayAccount,
  token: string,
): Promise<Result<Payer>> {
  if (gatewayById(account.gateway).nature === 'transfer') return done(payerThrough(account));
  const member = await findMember(pool(), s.memberId);
  const idempotencyKey = `${s.id}:change:${token}`;
  return keepCard(account, { token, email: member?.email ?? '', idempotencyKey });
}
