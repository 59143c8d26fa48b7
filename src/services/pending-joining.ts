import { z } from 'zod';
import { findAgreement, findAgreementOf } from '@/store/agreements';
import { pool } from '@/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { findJoining, type Joining } from '@/store/joinings';
import { findOffer } from '@/store/offers';
import { findSubscription } from '@/store/subscriptions';
import { findTier, type Tier } from '@/store/tiers';
import type { Actor } from './actor';
import { settleAgreement } from './settle-agreement';
import { currentSite } from './site';
import { transferDetails, type TransferDetails } from './transfer-details';

/** A joining that waits for its payer: what is to be done, or what became of it. */
export type PendingJoining = {
  joining: Joining;
  tier: Tier | undefined;
  offerId: string;
  zone: string;
  transfer: TransferDetails | null;
  /** Where the wallet is to be told yes, while it has not been. */
  approveUrl: string | null;
};

export async function pendingJoining(joiningId: string): Promise<PendingJoining | null> {
  const joining = await findJoining(pool(), joiningId);
  const offer = joining && (await findOffer(pool(), joining.offerId));
  if (!joining || !offer) return null;
  const agreement = await findAgreementOf(pool(), joining.subscriptionId, ['asked']);
  return {
    joining,
    offerId: offer.id,
    tier: await findTier(pool(), offer.tierId),
    zone: (await currentSite()).zone,
    transfer: await transferDetails(joining.subscriptionId),
    approveUrl: agreement?.approveUrl ?? null,
  };
}

/** Asks the wallet what became of a joining's approval, as the payer comes back from there. */
export async function returnFromWallet(joiningId: string): Promise<Joining | null> {
  const joining = await findJoining(pool(), joiningId);
  const agreement = joining && (await findAgreementOf(pool(), joining.subscriptionId, ['asked']));
  const account = agreement && (await findGatewayAccount(pool(), agreement.gatewayAccountId));
  if (agreement && account) await settleAgreement(account, agreement);
  return (await findJoining(pool(), joiningId)) ?? null;
}

/** The same for a member who approved how a subscription of theirs is paid from now on. */
export async function returnFromApproval(actor: Actor, agreementId: string): Promise<void> {
  const agreement = z.uuid().safeParse(agreementId).success
    ? await findAgreement(pool(), agreementId)
    : undefined;
  const subscription = agreement && (await findSubscription(pool(), agreement.subscriptionId));
  const account = agreement && (await findGatewayAccount(pool(), agreement.gatewayAccountId));
  if (!agreement || !account || !subscription?.memberId || subscription.memberId !== actor.memberId) return;
  if (agreement.state === 'asked') await settleAgreement(account, agreement);
}
