import type { Attempt, Charge } from '@/core/billing/book';
import type { Instant } from '@/core/instants';
import { findSubscription } from '@/billing/store/subscriptions';
import type { StoredBook } from '@/billing/store/book';
import { pool, transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { tellStaffOfTransfer } from './tell-staff';
import { writeMail } from '@/mail/services/lib/write-mail';
import { listGatewayAccounts, type TransferSettings } from '@/billing/store/gateways';
import { findMember } from '@/people/store/members';
import { listOpenPayments } from '@/billing/store/payments';
import { findTier } from '@/tiers/store/tiers';
import type { SubscriptionId } from '@/core/ids';

/** What a payer needs to know to send a transfer. Amount in minor units. */
export type TransferDetails = Omit<TransferSettings, 'daysToPay'> & {
  amount: number;
  currency: string;
  reference: string;
  until: Instant;
};

/** The transfers that are awaited for some subscriptions, by the subscription's id. */
export async function transferDetailsOf(
  subscriptionIds: SubscriptionId[],
): Promise<Map<string, TransferDetails>> {
  const awaited = (await listOpenPayments(pool(), subscriptionIds)).filter((open) => open.isAwaited);
  const accounts = awaited.length > 0 ? await listGatewayAccounts(pool()) : [];
  return new Map(
    awaited.flatMap(({ subscriptionId, gatewayAccountId, amount, currency, reference, untilAt: until }) => {
      const settings = accounts.find(({ id }) => id === gatewayAccountId)?.settings;
      if (!subscriptionId || !reference || !until || !settings || !('payee' in settings)) return [];
      const { payee, account, bank } = settings;
      return [[subscriptionId, { payee, account, bank, amount, currency, reference, until }]];
    }),
  );
}

/** The transfer that is awaited for a subscription; null where none is. */
export const transferDetails = async (subscriptionId: SubscriptionId): Promise<TransferDetails | null> =>
  (await transferDetailsOf([subscriptionId])).get(subscriptionId) ?? null;

/** Mails a member where to send the money that is awaited, once for each attempt. */
export async function askForTransfer(
  site: Site,
  stored: StoredBook,
  charge: Charge,
  attempt: Attempt,
): Promise<void> {
  const { memberId, book } = stored;
  const id = charge.subscription ?? '';
  const [details, of, member, tier] = [
    await transferDetails(id),
    await findSubscription(pool(), id),
    await findMember(pool(), memberId),
    await findTier(pool(), charge.period.tier),
  ];
  if (!details || !of || !member) return;
  const checkout = book.checkouts.find((one) => one.subscription === id && one.state === 'awaiting');
  const path = checkout ? `/join/pending/${checkout.id}` : '/account';
  const content = { template: 'transfer-due' as const, tierName: tier?.name ?? '', path, ...details };
  const { reference, amount, currency } = details;
  const told = { memberId, name: member.name || member.email, amount, currency, reference, n: attempt.n };
  await transaction(async (db) => {
    const key = `transfer:${reference}:${attempt.n}`;
    await writeMail(db, site, { to: member, content, key, at: attempt.at });
    await tellStaffOfTransfer(db, site, told, attempt.at);
  });
}
