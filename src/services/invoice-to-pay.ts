import { z } from 'zod';
import { formatDate } from '@/core/calendar';
import { sheetOf, type Sheet } from '@/core/documents';
import { formatMoney } from '@/core/money';
import { may } from '@/core/staff';
import { pool } from '@/store/db';
import { findAwaitedFacts } from '@/store/documents';
import { findJoining } from '@/store/joinings';
import { findSubscription } from '@/store/subscriptions';
import type { Actor } from './actor';
import { draftOf } from './issue-documents';
import { currentSite } from './site';
import { transferDetails } from './transfer-details';

/**
 * The invoice that a transfer is to pay, with its reference in place of a number: that it gets when the money is there.
 * Null where nothing is awaited, or it is somebody else's.
 */
export async function invoiceToPay(actor: Actor, subscriptionId: string): Promise<Sheet | null> {
  const subscription = z.uuid().safeParse(subscriptionId).success
    ? await findSubscription(pool(), subscriptionId)
    : undefined;
  const isTheirs = subscription?.memberId && subscription.memberId === actor.memberId;
  return subscription && (isTheirs || may(actor.staffRole, 'look')) ? sheetFor(subscription.id) : null;
}

/** The same for a joining that waits for its transfer; whoever has its address has begun it. */
export async function joiningToPay(joiningId: string): Promise<Sheet | null> {
  const joining = z.uuid().safeParse(joiningId).success ? await findJoining(pool(), joiningId) : undefined;
  return joining?.state === 'open' ? sheetFor(joining.subscriptionId) : null;
}

async function sheetFor(subscriptionId: string): Promise<Sheet | null> {
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
