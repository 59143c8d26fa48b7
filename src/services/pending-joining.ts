import { uuid } from '@/platform/inputs';
import { done, found, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import type { Sheet } from '@/core/documents';
import { findAgreement, findAgreementOf } from '@/store/agreements';
import { findGatewayAccount } from '@/store/gateways';
import { findJoining } from '@/store/joinings';
import { findOffer } from '@/store/offers';
import { findTier } from '@/store/tiers';
import { documentPdf } from './lib/document-pdf';
import { readInvoiceToPay } from './lib/invoice-to-pay';
import { ownerOfAgreement, ownerOfJoining } from './lib/owners';
import { settleAgreement } from './lib/settle-agreement';
import { transferDetails } from './lib/transfer-details';

/** A checkout that waits for its payer: what is to be done, or what became of it. */
export const pendingJoining = memberUse(
  'pending-joining',
  uuid,
  async (_, joiningId) => {
    const joining = await findJoining(pool(), joiningId);
    const offer = joining && (await findOffer(pool(), joining.offerId));
    if (!joining || !offer) return missing();
    const agreement = await findAgreementOf(pool(), joining.subscriptionId, ['asked']);
    return done({
      state: joining.state,
      lastProblem: joining.lastProblem,
      offerId: offer.id,
      tier: await findTier(pool(), offer.tierId),
      zone: (await currentSite()).zone,
      transfer: await transferDetails(joining.subscriptionId),
      /** Where the wallet is to be told yes, while it has not been. */
      approveUrl: agreement?.approveUrl ?? null,
    });
  },
  { owner: ownerOfJoining },
);

async function sheetFor(joiningId: string): Promise<Sheet | null> {
  const joining = await findJoining(pool(), joiningId);
  return joining?.state === 'open' ? readInvoiceToPay(joining.subscriptionId) : null;
}

/** The invoice of a checkout that waits for its transfer. */
export const joiningToPay = memberUse(
  'joining-to-pay',
  uuid,
  async (_, joiningId) => found(await sheetFor(joiningId)),
  { owner: ownerOfJoining },
);
export const joiningToPayAsPdf = memberUse(
  'joining-to-pay-as-pdf',
  uuid,
  async (_, joiningId) => {
    const sheet = await sheetFor(joiningId);
    return sheet ? done({ label: sheet.label, bytes: await documentPdf(sheet) }) : missing();
  },
  { owner: ownerOfJoining },
);

/** Asks the wallet what became of a checkout's approval, as the payer comes back from there. */
export const returnFromWallet = memberUse(
  'return-from-wallet',
  uuid,
  async (_, joiningId): Promise<Result<{ isDone: boolean }>> => {
    const joining = await findJoining(pool(), joiningId);
    const agreement = joining && (await findAgreementOf(pool(), joining.subscriptionId, ['asked']));
    const account = agreement && (await findGatewayAccount(pool(), agreement.gatewayAccountId));
    if (agreement && account) await settleAgreement(account, agreement);
    return done({ isDone: (await findJoining(pool(), joiningId))?.state === 'done' });
  },
  { owner: ownerOfJoining },
);

/** The same for a member who approved how a subscription of theirs is paid from now on. */
export const returnFromApproval = memberUse(
  'return-from-approval',
  uuid,
  async (_, agreementId): Promise<Result<null>> => {
    const agreement = await findAgreement(pool(), agreementId);
    const account = agreement && (await findGatewayAccount(pool(), agreement.gatewayAccountId));
    if (account && agreement.state === 'asked') await settleAgreement(account, agreement);
    return done(null);
  },
  { owner: ownerOfAgreement },
);
