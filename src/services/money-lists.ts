import type { Instant } from '@/core/calendar';
import type { State } from '@/core/subscriptions/subscription';
import { pool } from '@/store/db';
import { listPayments, type PaymentListRow } from '@/store/payments';
import { countByState, listSubscriptions, type SubscriptionRow } from '@/store/subscriptions';
import { listOfferVersions, type StoredOffer } from '@/store/offers';
import { listTiers } from '@/store/tiers';
import { nextCharges } from './next-charges';
import { currentSite } from './site';

const MOST_ROWS = 500;

export type SubscriptionLine = SubscriptionRow & {
  offer: StoredOffer | undefined;
  tierName: string;
  next: { at: Instant; amount: number; currency: string } | null;
};

/** Subscriptions of the site's mode in a state ('' for all), what falls due first on top. */
export async function subscriptionList(
  state: string,
): Promise<{ rows: SubscriptionLine[]; counts: Map<State, number>; zone: string }> {
  const site = await currentSite();
  const rows = await listSubscriptions(pool(), site.mode, state, MOST_ROWS);
  const [named, next, counts] = [
    await withNames(rows),
    await nextCharges(
      site,
      rows.map((row) => row.id),
    ),
    await countByState(pool(), site.mode),
  ];
  return { rows: named.map((row) => ({ ...row, next: next.get(row.id) ?? null })), counts, zone: site.zone };
}

/** The newest payments of the site's mode. */
export async function paymentList(): Promise<{
  rows: (PaymentListRow & { tierName: string })[];
  zone: string;
}> {
  const site = await currentSite();
  return { rows: await withNames(await listPayments(pool(), site.mode, MOST_ROWS)), zone: site.zone };
}

async function withNames<T extends { offerVersionId: string }>(
  rows: T[],
): Promise<(T & { offer: StoredOffer | undefined; tierName: string })[]> {
  const versions = await listOfferVersions(pool(), [...new Set(rows.map((row) => row.offerVersionId))]);
  const offers = new Map(versions.map((offer) => [offer.versionId, offer]));
  const tiers = new Map((await listTiers(pool())).map((tier) => [tier.id, tier.name]));
  return rows.map((row) => {
    const offer = offers.get(row.offerVersionId);
    return { ...row, offer, tierName: (offer && tiers.get(offer.tierId)) ?? '' };
  });
}
