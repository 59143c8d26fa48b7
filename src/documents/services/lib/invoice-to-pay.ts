import { formatDate } from '@/core/instants';
import { sheetOf, type Sheet } from '@/core/documents';
import { formatMoney } from '@/core/money';
import { pool } from '@/platform/store/db';
import { findAwaitedFacts } from '@/documents/store/documents';
import { draftOf } from './issue-documents';
import { currentSite } from '@/platform/site';
import { transferDetails } from '@/billing/services/lib/transfer-details';
import type { SubscriptionId } from '@/core/ids';

/**
 * The invoice that a transfer is to pay, with its reference in place of a number: that it gets when the money is there.
 * Null where nothing is awaited.
 */
export async function readInvoiceToPay(subscriptionId: SubscriptionId): Promise<Sheet | null> {
  const site = await currentSite();
  const [facts, transfer] = [
    await findAwaitedFacts(pool(), subscriptionId),
    await transferDetails(subscriptionId),
  ];
  if (!facts || !transfer) return null;
  const { currency, at } = facts;
  const credit = facts.amount - transfer.amount;
  const drafted = draftOf(site, facts, []);
  return {
    ...sheetOf({ ...drafted, kind: 'invoice', label: transfer.reference, currency, at }, site.zone),
    title: 'Invoice, to be paid',
    settled: [
      ...(credit > 0 ? [`From your credit: ${formatMoney(credit, currency)}`] : []),
      `Please transfer ${formatMoney(transfer.amount, currency)} to ${transfer.payee}, account ${transfer.account}${transfer.bank ? `, ${transfer.bank}` : ''}, by ${formatDate(transfer.until, site.zone)}.`,
      `Write this reference with it, and nothing else: ${transfer.reference}`,
    ],
  };
}
