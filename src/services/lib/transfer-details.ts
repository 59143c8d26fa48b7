import { addLength, type Instant } from '@/core/calendar';
import { pool, transaction } from '@/platform/store/db';
import { findGatewayAccount, type TransferSettings } from '@/store/gateways';
import type { Joining } from '@/store/joinings';
import { findOpenPayment } from '@/store/payments';
import type { JoinPlan } from './begin-joining';
import { findMember } from '@/store/members';
import { findSubscription } from '@/store/subscriptions';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { termsOf } from './terms';
import { writeMail } from './write-mail';

/** What a payer needs to know to send a transfer. Amount in minor units. */
export type TransferDetails = Omit<TransferSettings, 'daysToPay'> & {
  amount: number;
  currency: string;
  reference: string;
  until: Instant;
};

/** The transfer that is awaited for a subscription; null where none is. */
export async function transferDetails(subscriptionId: string): Promise<TransferDetails | null> {
  const site = await currentSite();
  const open = await findOpenPayment(pool(), subscriptionId);
  const account = open?.isAwaited ? await findGatewayAccount(pool(), open.gatewayAccountId) : undefined;
  if (!open?.reference || !account) return null;
  const { payee, account: number, bank, daysToPay } = account.settings as TransferSettings;
  return {
    payee,
    account: number,
    bank,
    amount: open.amount,
    currency: open.currency,
    reference: open.reference,
    until: addLength(open.at, { n: daysToPay, unit: 'day' }, site.zone),
  };
}

/** Mails a member where to send the money of a period that has fallen due, once for each try to collect it. */
export async function askForTransfer(subscriptionId: string, attempt: number): Promise<void> {
  const details = await transferDetails(subscriptionId);
  const subscription = await findSubscription(pool(), subscriptionId);
  const member = subscription?.memberId ? await findMember(pool(), subscription.memberId) : undefined;
  if (!details || !subscription || !member) return;
  const site = await currentSite();
  const { offer } = await termsOf(pool(), site, subscription);
  await transaction((db) =>
    writeMail(
      db,
      site,
      member,
      { template: 'transfer-due', tierName: offer.tierName, path: '/account', ...details },
      `transfer:${details.reference}:${attempt}`,
      subscription.dueAt ?? siteNow(site),
    ),
  );
}

/** Mails somebody who joins by transfer where to send the money, and with which reference. */
export async function sayHowToTransfer({ site, tier }: JoinPlan, joining: Joining): Promise<void> {
  const details = await transferDetails(joining.subscriptionId);
  if (!details) return;
  await transaction((db) =>
    writeMail(
      db,
      site,
      { id: joining.memberId, email: joining.email, name: joining.name },
      { template: 'transfer-due', tierName: tier.name, path: `/join/pending/${joining.id}`, ...details },
      `transfer:${details.reference}:${joining.at}`,
      joining.at,
    ),
  );
}
