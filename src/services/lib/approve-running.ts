import { config } from '@/config';
import { billingAhead } from '@/core/subscriptions/billing';
import { gatewayById } from '@/gateways';
import {
  endAgreementsOf,
  findAgreement,
  insertAgreement,
  setAgreementState,
  withdrawAsked,
  type StoredAgreement,
} from '@/store/agreements';
import { transaction } from '@/platform/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { findOpenPayment } from '@/store/payments';
import type { Site } from '@/platform/store/site';
import { lockSubscription, setAccount, setMethod } from '@/store/subscriptions';
import { GATEWAY, type Actor } from '@/platform/actor';
import { beginAgreement } from './begin-agreement';
import { lockForChange } from './change-subscription';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { recordOutcomeIn } from './record-outcome';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { termsOf } from './terms';

/** What became of an approval: it holds, it still waits for something, or it came too late. */
export type Approved = 'done' | 'waiting' | 'refused';

/** How a subscription is paid that a wallet bills. */
export const walletMethod = (account: GatewayAccount, agreement: StoredAgreement) => ({
  customerRef: account.siteKey,
  methodRef: agreement.ref ?? '',
  methodLabel: gatewayById(account.gateway).name,
  methodExpires: null,
});

/**
 * Asks the payer of a subscription that runs to approve, on a wallet's page, what is billed from its next period on: because
 * they choose the wallet, or because what it bills will change. Until they do, everything stays as it is.
 */
export async function askToApprove(
  actor: Actor,
  subscriptionId: string,
  account: GatewayAccount,
): Promise<Result<{ approveUrl: string }>> {
  const site = await currentSite();
  const asked = await transaction(async (db) => {
    const subscription = await lockForChange(db, actor, subscriptionId);
    const at = siteNow(site, subscription.mode);
    const { state, pauses, disputedAt } = subscription;
    if (!['trial', 'active', 'overdue'].includes(state) || pauses || disputedAt)
      return refusedField('', 'A wallet can be chosen only while it goes on. Take it up again first.');
    // Which period it bills first hangs on what becomes of a charge that is under way.
    const open = await findOpenPayment(db, subscriptionId);
    if (open && !open.isAwaited && open.gatewayAccountId !== account.id)
      return refusedField('', 'A payment is under way. Try again in a minute.');
    const { terms, offer, movesTo } = await termsOf(db, site, subscription);
    const ahead = billingAhead(subscription, terms, at);
    if (!ahead) return refusedField('', 'Nothing more is charged, so there is nothing to approve.');
    await withdrawAsked(db, subscriptionId);
    const agreement = await insertAgreement(db, {
      subscriptionId,
      mode: subscription.mode,
      gatewayAccountId: account.id,
      offerVersionId: (movesTo ?? offer).versionId,
      after: subscription.period,
      at,
    });
    return done({ ahead, agreement, offer: movesTo ?? offer });
  });
  if (!asked.ok) return asked;
  const { ahead, agreement, offer } = asked.value;
  return beginAgreement(site, account, agreement, {
    ...ahead,
    currency: offer.definition.currency,
    returnUrl: `${config().SITE_URL}/account/approved/${agreement.id}`,
    note: `${site.name}: ${offer.name}`,
  });
}

/**
 * The payer has approved for a subscription that runs: from now on the wallet bills it, and what paid for it before does so
 * no more. What was owed comes with the wallet's first bill.
 */
export async function takeUpApproval(
  site: Site,
  account: GatewayAccount,
  { id: agreementId }: Pick<StoredAgreement, 'id'>,
): Promise<Approved> {
  return transaction(async (db) => {
    const asked = await findAgreement(db, agreementId);
    const subscription = asked && (await lockSubscription(db, asked.subscriptionId));
    const agreement = subscription && (await findAgreement(db, agreementId));
    if (!subscription || agreement?.state !== 'asked') return 'done';
    const { id, state, mode, disputedAt, pauses, period } = subscription;
    const at = siteNow(site, mode);
    const billed = subscription.movesTo ?? subscription.offerVersionId;
    // What has changed since it was asked for makes it void: it would bill something else.
    const isVoid = !['trial', 'active', 'overdue'].includes(state) || disputedAt !== null || pauses;
    const isPaidSince =
      agreement.afterStep !== (period?.step ?? null) || agreement.afterN !== (period?.n ?? null);
    if (isVoid || isPaidSince || agreement.offerVersionId !== billed) {
      await setAgreementState(db, agreementId, 'ending', at);
      return 'refused';
    }
    const open = await findOpenPayment(db, id);
    const isOurs = open?.gatewayAccountId === account.id;
    if (open && !open.isAwaited && !isOurs) return 'waiting';
    if (open?.isAwaited)
      await recordOutcomeIn(db, site, GATEWAY, open, { state: 'declined', ref: null, code: 'not-paid' }, at);
    await endAgreementsOf(db, id, { id: agreementId });
    await setAgreementState(db, agreementId, 'running', at);
    if (subscription.gatewayAccountId !== account.id) await setAccount(db, id, account.id);
    await setMethod(db, id, walletMethod(account, agreement));
    await record(db, GATEWAY, at, 'way to pay changed', `subscription:${id}`, { through: account.label });
    return 'done';
  });
}
