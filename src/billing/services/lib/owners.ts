import { pool } from '@/platform/store/db';
import { findAgreement } from '@/billing/store/agreements';
import { findQuote } from '@/billing/store/quotes';
import { findCheckout } from '@/billing/store/checkouts';
import { findPayment } from '@/billing/store/payments';
import { findSubscription } from '@/billing/store/subscriptions';

/** Whose a thing is: the id of the member, or nothing where there is no such thing or it is nobody's. */
type OwnerOf = (id: string) => Promise<string | null | undefined>;

export const ownerOfSubscription: OwnerOf = async (id) => (await findSubscription(pool(), id))?.memberId;
export const ownerOfQuote: OwnerOf = async (id) => (await findQuote(pool(), id))?.memberId;
export const ownerOfAgreement: OwnerOf = async (id) => {
  const agreement = await findAgreement(pool(), id);
  return agreement && ownerOfSubscription(agreement.subscriptionId);
};
export const ownerOfPayment: OwnerOf = async (id) => (await findPayment(pool(), id))?.memberId;
export const ownerOfCheckout: OwnerOf = async (id) => (await findCheckout(pool(), id))?.memberId;
