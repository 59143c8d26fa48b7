import { declineProblem, type GatewayPayment } from '@/billing/gateways/contract';
import { findSubscription } from '@/billing/store/subscriptions';
import { GATEWAY } from '@/platform/actor';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { endAgreementsOf, setAgreementState, type StoredAgreement } from '@/billing/store/agreements';
import { setLastProblem } from '@/billing/store/checkouts';
import type { GatewayAccount } from '@/billing/store/gateways';
import { takeUpApproval, walletPayer, type Approved } from './approve-running';
import { setPayer } from './change-account';
import { happen, openBook } from './open-book';
import type { Problem } from '@/core/problem';
import { refusal, type ProblemCode } from '@/words/problems';

/**
 * The payer has approved: the checkout is completed, with the wallet's first bill where something was due. A bill that
 * was refused, or a place taken meanwhile, ends the agreement; money that arrives all the same is returned.
 */
export async function completeApproval(
  account: GatewayAccount,
  agreement: StoredAgreement,
  bills: GatewayPayment[],
): Promise<Approved> {
  const site = await currentSite();
  const of = await findSubscription(pool(), agreement.subscriptionId);
  if (!of) return 'refused';
  if (of.state !== 'pending') return takeUpApproval(site, account, agreement, of);
  return transaction(async (db): Promise<Approved> => {
    // It is taken to have begun when it was asked for: the wallet's calendar counts from there.
    const open = await openBook(db, site, GATEWAY, of, {}, agreement.at);
    const { book } = open.stored;
    const checkout = book.checkouts.find((one) => one.subscription === of.id);
    const refuse = async (problem: Problem<ProblemCode> | null): Promise<Approved> => {
      await endAgreementsOf(db, of.id);
      if (checkout) await setLastProblem(db, checkout.id, of.memberId, problem);
      return 'refused';
    };
    if (checkout?.state !== 'approving') return refuse(null);
    const due = book.charges.find((one) => one.subscription === of.id && one.state === 'open')?.due ?? 0;
    const bill = bills[0];
    if (due > 0 && !bill) return 'waiting';
    const code = due > 0 && bill?.state === 'declined' ? (bill.code ?? 'declined') : undefined;
    if (!code) await setPayer(open, of.id, walletPayer(account, agreement));
    const happened = await happen(open, {
      do: 'approved',
      checkout: checkout.id,
      bill: due > 0 && bill ? { ref: bill.ref, code } : null,
    });
    if (!happened.ok && happened.why === 'under-way') return 'waiting';
    if (!happened.ok) return refuse(refusal(happened.why));
    if (code) return refuse(declineProblem(code));
    await setAgreementState(db, agreement.id, 'running', agreement.at);
    return 'done';
  });
}
