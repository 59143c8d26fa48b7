import { isBefore, type Instant } from '@/core/instants';
import { allGateways } from '@/billing/gateways';
import { pool } from '@/platform/store/db';
import { listGatewayAccounts, type GatewayAccount } from '@/billing/store/gateways';
import { listMembersById } from '@/people/store/members';
import { countAwaited, listAwaited, type Payment } from '@/billing/store/payments';
import { listToSend, type RefundToSend } from '@/billing/store/refunds';
import { listUnmatched, type StatementLine } from '@/billing/store/statements';
import { listSubscriptionsById } from '@/billing/store/subscriptions';
import { listOfferVersions } from '@/tiers/store/offers';
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

const MOST_AWAITED = 500;
const byId = <T extends { id: string }>(rows: T[]) => new Map(rows.map((row) => [row.id, row]));

/** Transfers that are awaited, lines that matched none, and the accounts that can be paid to. */
async function listTransfers(): Promise<{
  accounts: GatewayAccount[];
  /** Those that began first, and how many there are. */
  awaited: AwaitedTransfer[];
  awaitedTotal: number;
  unmatched: StatementLine[];
  /** Refunds that staff have to send by their bank. */
  toSend: RefundToSend[];
  zone: string;
}> {
  const site = await currentSite();
  const now = siteNow(site);
  const rows = await listAwaited(pool(), site.mode, MOST_AWAITED);
  const subscriptions = byId(
    await listSubscriptionsById(
      pool(),
      rows.flatMap((row) => row.subscriptionId ?? []),
    ),
  );
  const of = [...subscriptions.values()];
  const members = byId(
    await listMembersById(
      pool(),
      of.map(({ memberId }) => memberId),
    ),
  );
  const versions = await listOfferVersions(
    pool(),
    of.map(({ offerVersionId }) => offerVersionId),
  );
  const offers = new Map(versions.map((offer) => [offer.versionId, offer]));
  const awaited = rows.map((payment): AwaitedTransfer => {
    const subscription = subscriptions.get(payment.subscriptionId ?? '');
    const member = subscription && members.get(subscription.memberId);
    const offer = subscription && offers.get(subscription.offerVersionId);
    const until = payment.untilAt ?? payment.at;
    return {
      ...payment,
      who: member?.name || member?.email || '',
      offerName: offer?.name ?? '',
      isJoining: subscription?.state === 'pending',
      until,
      isLate: isBefore(until, now),
    };
  });
  return {
    accounts: (await listGatewayAccounts(pool())).filter(
      (account) => account.mode === site.mode && account.nature === 'transfer',
    ),
    awaited,
    awaitedTotal: await countAwaited(pool(), site.mode),
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

export const transferList = staffUse('see money')('transfer-list', nothing, async () =>
  done(await listTransfers()),
);
