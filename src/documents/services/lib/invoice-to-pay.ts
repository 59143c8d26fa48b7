import { sheetOf, type Sheet } from '@/words/sheet';
import { wordsOf } from '@/words/words';
import { pool } from '@/platform/store/db';
import { findAwaitedFacts } from '@/documents/store/documents';
import { draftOf } from './issue-documents';
import { currentSite } from '@/platform/site';
import { transferDetails } from '@/billing/services/lib/transfer-details';
import type { SubscriptionId } from '@/core/ids';

/**
 * The invoice that a transfer is to pay, with its reference in place of a number: that it gets when the money arrives.
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
  const t = wordsOf(site);
  const { payee, account, bank, reference } = transfer;
  return {
    ...sheetOf({ ...drafted, kind: 'invoice', label: reference, currency, at }, t),
    title: t('document.to-pay'),
    settled: [
      ...(credit > 0 ? [t('document.from-credit', { amount: t.money(credit, currency) })] : []),
      t('document.please-transfer', {
        amount: t.money(transfer.amount, currency),
        payee,
        account,
        bank: bank || 'none',
        date: t.date(transfer.until),
      }),
      t('document.reference', { reference }),
    ],
  };
}
