import { uuid } from '@/platform/inputs';
import { done, found, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import type { Sheet } from '@/words/sheet';
import { findAgreement, findAgreementOf } from '@/billing/store/agreements';
import { findGatewayAccount } from '@/billing/store/gateways';
import { findCheckout } from '@/billing/store/checkouts';
import { findOffer } from '@/tiers/store/offers';
import { findTier } from '@/tiers/store/tiers';
import { documentPdf } from '@/documents/services/lib/document-pdf';
import { readInvoiceToPay } from '@/documents/services/lib/invoice-to-pay';
import { ownerOfAgreement, ownerOfCheckout } from '@/billing/services/lib/owners';
import { settleAgreement } from '@/billing/services/lib/settle-agreement';
import { transferDetails } from '@/billing/services/lib/transfer-details';
import type { CheckoutId } from '@/core/ids';

/** A checkout that waits for its payer: what is to be done, or what became of it. */
export const pendingCheckout = memberUse(
  'pending-checkout',
  uuid,
  async (_, checkoutId) => {
    const checkout = await findCheckout(pool(), checkoutId);
    const offer = checkout && (await findOffer(pool(), checkout.offerId));
    if (!checkout || !offer) return missing();
    const agreement = checkout.subscriptionId
      ? await findAgreementOf(pool(), checkout.subscriptionId, ['asked'])
      : undefined;
    return done({
      state: checkout.state,
      lastProblem: checkout.lastProblem,
      offerId: offer.id,
      tier: await findTier(pool(), offer.tierId),
      zone: (await currentSite()).zone,
      transfer: checkout.subscriptionId ? await transferDetails(checkout.subscriptionId) : null,
      /** Where the wallet is to be told yes, while it has not been. */
      approveUrl: agreement?.approveUrl ?? null,
    });
  },
  { owner: ownerOfCheckout },
);

async function sheetFor(checkoutId: CheckoutId): Promise<Sheet | null> {
  const checkout = await findCheckout(pool(), checkoutId);
  return checkout?.state === 'awaiting' && checkout.subscriptionId
    ? readInvoiceToPay(checkout.subscriptionId)
    : null;
}

/** The invoice of a checkout that waits for its transfer. */
export const checkoutToPay = memberUse(
  'checkout-to-pay',
  uuid,
  async (_, checkoutId) => found(await sheetFor(checkoutId)),
  { owner: ownerOfCheckout },
);
export const checkoutToPayAsPdf = memberUse(
  'checkout-to-pay-as-pdf',
  uuid,
  async (_, checkoutId) => {
    const sheet = await sheetFor(checkoutId);
    return sheet ? done({ label: sheet.label, bytes: await documentPdf(sheet) }) : missing();
  },
  { owner: ownerOfCheckout },
);

/** Asks the wallet what became of a checkout's approval, as the payer returns from there. */
export const returnFromWallet = memberUse(
  'return-from-wallet',
  uuid,
  async (_, checkoutId): Promise<Result<{ isDone: boolean }>> => {
    const checkout = await findCheckout(pool(), checkoutId);
    const agreement =
      checkout?.subscriptionId && (await findAgreementOf(pool(), checkout.subscriptionId, ['asked']));
    const account = agreement && (await findGatewayAccount(pool(), agreement.gatewayAccountId));
    if (agreement && account) await settleAgreement(account, agreement);
    return done({ isDone: (await findCheckout(pool(), checkoutId))?.state === 'done' });
  },
  { owner: ownerOfCheckout },
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
