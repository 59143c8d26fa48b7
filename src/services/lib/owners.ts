import { pool } from '@/platform/store/db';
import { findAgreement } from '@/store/agreements';
import { findQuote } from '@/store/credits';
import { findDocument } from '@/store/documents';
import { findJoining } from '@/store/joinings';
import { findPayment } from '@/store/payments';
import { findSubscription } from '@/store/subscriptions';

/** Whose a thing is: the id of the member, or nothing where there is no such thing or it is nobody's. */
type OwnerOf = (id: string) => Promise<string | null | undefined>;

export const ownerOfSubscription: OwnerOf = async (id) => (await findSubscription(pool(), id))?.memberId;
export const ownerOfQuote: OwnerOf = async (id) => (await findQuote(pool(), id))?.memberId;
export const ownerOfDocument: OwnerOf = async (id) => (await findDocument(pool(), id))?.memberId;
export const ownerOfAgreement: OwnerOf = async (id) => {
  const agreement = await findAgreement(pool(), id);
  return agreement && ownerOfSubscription(agreement.subscriptionId);
};
export const ownerOfPayment: OwnerOf = async (id) => {
  const payment = await findPayment(pool(), id);
  return payment && ownerOfSubscription(payment.subscriptionId);
};
export const ownerOfJoining: OwnerOf = async (id) => (await findJoining(pool(), id))?.memberId;
