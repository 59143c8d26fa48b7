import { isBefore, type Instant } from '@/core/calendar';
import { allGateways } from '@/billing/gateways';
import { pool } from '@/platform/store/db';
import { listGatewayAccounts, type GatewayAccount } from '@/billing/store/gateways';
import { findMember } from '@/people/store/members';
import { listAwaited, type Payment } from '@/billing/store/payments';
import { listToSend, type RefundToSend } from '@/billing/store/refunds';
import { listUnmatched, type StatementLine } from '@/billing/store/statements';
import { findSubscription } from '@/billing/store/subscriptions';
import { findOfferVersion } from '@/tiers/store/offers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';

export type AwaitedTransfer = Payment & {
  who: string;
  offerName: string;
  isJoining: boolean;
  until: Instant;
  isLate: boolean;
};

/** Transfers that are awaited, lines that matched none, and the accounts that can be paid to. */
async function listTransfers(): Promise<{
  accounts: GatewayAccount[];
  awaited: AwaitedTransfer[];
  unmatched: StatementLine[];
  /** Refunds that staff have to send by their bank. */
  toSend: RefundToSend[];
  zone: string;
}> {
  const site = await currentSite();
  const now = siteNow(site);
  const awaited = await Promise.all(
    (await listAwaited(pool(), site.mode)).map(async (payment): Promise<AwaitedTransfer> => {
      const subscription = await findSubscription(pool(), payment.subscriptionId);
      const member = subscription && (await findMember(pool(), subscription.memberId));
      const offer = subscription && (await findOfferVersion(pool(), subscription.offerVersionId));
      const until = payment.untilAt ?? payment.at;
      return {
        ...payment,
        who: member?.name || member?.email || '',
        offerName: offer?.name ?? '',
        isJoining: subscription?.state === 'pending',
        until,
        isLate: isBefore(until, now),
      };
    }),
  );
  return {
    accounts: (await listGatewayAccounts(pool())).filter(
      (account) => account.mode === site.mode && account.nature === 'transfer',
    ),
    awaited,
    unmatched: await listUnmatched(pool(), site.mode),
    toSend: await listToSend(
      pool(),
      site.mode,
      allGateways()
        .filter((gateway) => !gateway.carries.refund)
        .map((gateway) => gateway.id),
    ),
    zone: site.zone,
  };
}

export const transferList = staffUse('look')('transfer-list', nothing, async () =>
  done(await listTransfers()),
);
