import { listPurchasesOf } from '@/billing/store/purchases';
import { currentSite, siteWords } from '@/platform/site';
import { nothing } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { readTogether } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { listNotes } from '@/members/store/member-notes';
import { findMember } from '@/people/store/members';
import { memberDocuments } from '@/documents/services/lib/document-list';
import { issueDocuments } from '@/documents/services/lib/issue-documents';
import { hasUndocumented } from '@/documents/store/documents';
import { accountFrom, accountSections, readAccount } from '@/billing/services/lib/member-account';
import { pricesForHolder } from '@/checkout/services/lib/prices-for-holder';
import { waysOn } from '@/checkout/services/lib/ways-on';

/** How many of the newest receipts the account page shows. */
const RECEIPTS = 6;

/** Everything that a member's own account shows, its sections as the owner arranged them. */
export const myAccount = memberUse('my-account', nothing, async ({ memberId }) => {
  const [t, site] = [await siteWords(), await currentSite()];
  const { mode } = site;
  const read = () =>
    readTogether((db) => [
      hasUndocumented(db, mode),
      findMember(db, memberId),
      readAccount(db, site, memberId),
      memberDocuments(db, mode, memberId, t, RECEIPTS + 1),
      listNotes(db, memberId, true),
      listPurchasesOf(db, memberId, mode),
    ]);
  let found = await read();
  if (found[0]) {
    await issueDocuments(mode);
    found = await read();
  }
  const [, member, parts, documents, notes, purchases] = found;
  if (!member) return missing();
  const account = await accountFrom(parts, site, t);
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
