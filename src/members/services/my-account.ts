import { listPurchasesOf } from '@/billing/store/purchases';
import { currentSite, siteWords } from '@/platform/site';
import { nothing } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { listNotes } from '@/members/store/member-notes';
import { findMember } from '@/people/store/members';
import { memberDocuments } from '@/documents/services/lib/document-list';
import { accountSections, memberAccount } from '@/billing/services/lib/member-account';
import { pricesForHolder } from '@/checkout/services/lib/prices-for-holder';
import { waysOn } from '@/checkout/services/lib/ways-on';

/** How many of the newest receipts the account page shows. */
const RECEIPTS = 6;

/** Everything that a member's own account shows, its sections as the owner arranged them. */
export const myAccount = memberUse('my-account', nothing, async ({ memberId }) => {
  const member = await findMember(pool(), memberId);
  if (!member) return missing();
  const [t, { mode }] = [await siteWords(), await currentSite()];
  const [account, documents, notes, purchases] = await Promise.all([
    memberAccount(member, t),
    memberDocuments(memberId, t, RECEIPTS + 1),
    listNotes(pool(), memberId, true),
    listPurchasesOf(pool(), memberId, mode),
  ]);
  return done({
    name: member.name,
    email: member.email,
    account,
    ways: await waysOn(account, t),
    forHolder: await pricesForHolder(account, member.country),
    notes,
    order: await accountSections(account),
    receipts: documents.slice(0, RECEIPTS),
    hasPurchases: purchases.length > 0,
    hasMoreReceipts: documents.length > RECEIPTS,
  });
});
