import { z } from 'zod';
import { gatewayById } from '@/gateways';
import { endAgreementsOf } from '@/store/agreements';
import { pool, transaction } from '@/store/db';
import { findMember } from '@/store/members';
import { findOpenPayment } from '@/store/payments';
import { setAccount } from '@/store/subscriptions';
import type { Actor } from './actor';
import { askToApprove } from './approve-running';
import { lockForChange } from './change-subscription';
import { chargeNow } from './charge-now';
import { siteNow } from './clock';
import { record } from './record';
import { recordOutcome } from './record-outcome';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { saveCard } from './save-card';
import { currentSite } from './site';
import { termsOf } from './terms';
import { waysToPay } from './ways-to-pay';

const inputSchema = z.object({
  subscriptionId: z.uuid(),
  accountId: z.uuid(),
  cardToken: z.string().max(200).default(''),
});

/**
 * Changes how a subscription is paid: another card, or another of the site's ways to pay. What is owed is charged at
 * once; what a wallet billed until now it bills no more. A wallet is to be told yes first: the answer is its page.
 */
export async function changeMethod(
  actor: Actor,
  raw: unknown,
): Promise<Result<{ approveUrl: string | null }>> {
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { subscriptionId, accountId, cardToken } = parsed.data;
  const site = await currentSite();
  const found = await transaction(async (db) => {
    const subscription = await lockForChange(db, actor, subscriptionId);
    const { offer } = await termsOf(db, site, subscription);
    return { subscription, account: (await waysToPay(site, offer)).find(({ id }) => id === accountId) };
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
