import { z } from 'zod';
import { gatewayById } from '@/gateways';
import { endAgreementsOf } from '@/store/agreements';
import { pool, transaction } from '@/platform/store/db';
import { findMember } from '@/store/members';
import { findOpenPayment } from '@/store/payments';
import { setAccount } from '@/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { askToApprove } from '@/services/lib/approve-running';
import { lockForChange } from '@/services/lib/change-subscription';
import { chargeNow } from '@/services/lib/charge-now';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { recordOutcome } from '@/services/lib/record-outcome';
import { done, refusedField, type Result } from '@/platform/result';
import { saveCard } from '@/services/lib/save-card';
import { currentSite } from '@/platform/site';
import { termsOf } from '@/services/lib/terms';
import { waysToPay } from '@/services/lib/ways-to-pay';
import { memberUse } from '@/platform/use';
import { ownerOfSubscription } from '@/services/lib/owners';

const inputSchema = z.object({
  subscriptionId: z.uuid(),
  accountId: z.uuid(),
  cardToken: z.string().max(200).default(''),
});

/**
 * Changes how a subscription is paid: another card, or another of the site's ways to pay. What is owed is charged at
 * once; what a wallet billed until now it bills no more. A wallet is to be told yes first: the answer is its page.
 */
export const changeMethod = memberUse('change-method', inputSchema, (actor, input) => change(actor, input), {
  owner: ({ subscriptionId }) => ownerOfSubscription(subscriptionId),
});

async function change(
  actor: Actor,
  { subscriptionId, accountId, cardToken }: z.output<typeof inputSchema>,
): Promise<Result<{ approveUrl: string | null }>> {
  const site = await currentSite();
  const found = await transaction(async (db) => {
    const subscription = await lockForChange(db, actor, subscriptionId);
    const { offer } = await termsOf(db, site, subscription);
    return { subscription, account: (await waysToPay(site, offer, db)).find(({ id }) => id === accountId) };
  });
  const { subscription, account } = found;
  const gateway = account && gatewayById(account.gateway);
  if (!account || !gateway) return refusedField('', 'This cannot be paid that way. Choose another.');
  if (gateway.nature === 'wallet') return askToApprove(actor, subscriptionId, account);
  const open = await findOpenPayment(pool(), subscriptionId);
  if (open?.isAwaited && gateway.nature !== 'transfer') {
    // The transfer was not sent: it is paid in another way.
    await recordOutcome(
      actor,
      open,
      { state: 'declined', ref: null, code: 'not-paid' },
      siteNow(site, open.mode),
    );
  } else if (open && !open.isAwaited)
    return refusedField('', 'A payment is under way. Try again in a minute.');
  if (account.id !== subscription.gatewayAccountId) await setAccount(pool(), subscriptionId, account.id);
  if (gateway.nature === 'card') {
    const member = await findMember(pool(), subscription.memberId);
    const card = {
      token: cardToken,
      email: member?.email ?? '',
      idempotencyKey: `${subscriptionId}:change:${cardToken}`,
    };
    const saved = await saveCard(account, subscriptionId, card);
    if (!saved.ok) return saved;
  }
  await transaction(async (db) => {
    await endAgreementsOf(db, subscriptionId);
    const detail = { through: account.label };
    await record(
      db,
      actor,
      siteNow(site, subscription.mode),
      'way to pay changed',
      `subscription:${subscriptionId}`,
      detail,
    );
  });
  const charged = gateway.nature === 'card' ? await chargeNow(actor, subscriptionId, 'due') : done(null);
  return charged.ok ? done({ approveUrl: null }) : charged;
}
