import { addLength, localDate, localMonth, startOfDate } from '@/core/calendar';
import { compare, isBefore, isLocalDate, type Instant, type LocalDate } from '@/core/instants';
import type { State } from '@/core/billing/states';
import { pool } from '@/platform/store/db';
import { listGatewayAccounts } from '@/billing/store/gateways';
import {
  countDeclines,
  lastDeclines,
  listPayments,
  type PaymentFilter,
  type PaymentListRow,
} from '@/billing/store/payment-lists';
import { listSubscriptionsById } from '@/billing/store/subscriptions';
import {
  countByState,
  countDisputed,
  listSubscriptions,
  type SubscriptionFilter,
  type SubscriptionRow,
} from '@/desk/store/subscription-lists';
import type { Mode, Site } from '@/platform/store/site';
import { listOfferVersions, type StoredOffer } from '@/tiers/store/offers';
import { listTiers } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { monthBounds } from '@/documents/services/lib/document-list';
import { nextCharges } from '@/billing/services/lib/schedules';
import { currentSite, inMode } from '@/platform/site';
import type { GatewayAccountId, OfferVersionId } from '@/core/ids';

/** Rows on a page of a list. */
export const PAGE_ROWS = 100;
const SOON_DAYS = 30;
/** Rows that are read at a time, and rows that a list without pages shows. */
const AT_ONCE = 1_000;
const MOST_SHOWN = 500;
export const EVERY: Omit<SubscriptionFilter, 'sort' | 'limit'> = { state: '', search: '', offset: 0 };

export type SubscriptionLine = SubscriptionRow & {
  offer: StoredOffer | undefined;
  tierName: string;
  through: string;
  next: { at: Instant; amount: number; currency: string } | null;
};
export type PaymentLine = PaymentListRow & { tierName: string; through: string };

/** Cards are told of that expire before so many days have passed. */
const EXPIRES_DAYS = 30;

/** A filter whose state may also be `expiring`: charged by a card that will soon be of no use. */
export function inStates<Filter extends { state: string }>(
  filter: Filter,
  site: Site,
): Filter & { expiresBy?: string } {
  if (filter.state !== 'expiring') return filter;
  const until = addLength(siteNow(site), { n: EXPIRES_DAYS, unit: 'day' }, site.zone);
  return { ...filter, state: '', expiresBy: localMonth(until, site.zone) };
}

/** Subscriptions that fit a filter; of the site's mode, where none is named. */
export async function subscriptionList(
  filter: SubscriptionFilter,
  mode?: Mode,
): Promise<{
  rows: SubscriptionLine[];
  total: number;
  counts: Map<State, number>;
  disputed: number;
  zone: string;
}> {
  const own = await currentSite();
  const site = inMode(own, mode ?? own.mode);
  const { rows, total } = await listSubscriptions(pool(), site.mode, inStates(filter, site));
  const next = await nextCharges(
    site,
    rows.map((row) => row.id),
  );
  const counts = await countByState(pool(), site.mode);
  const named = await withNames(rows);
  return {
    rows: named.map((row) => ({ ...row, next: next.get(row.id) ?? null })),
    total,
    counts,
    disputed: await countDisputed(pool(), site.mode),
    zone: site.zone,
  };
}

/** Payments that fit a filter; of the site's mode, where none is named. */
export async function paymentList(
  filter: PaymentFilter,
  mode?: Mode,
): Promise<{ rows: PaymentLine[]; total: number; zone: string }> {
  const site = await currentSite();
  const { rows, total } = await listPayments(pool(), mode ?? site.mode, filter);
  return { rows: await withNames(rows), total, zone: site.zone };
}

/** Between which instants payments are listed: of a month, or from a day on. */
export const boundsOf = (
  { month, since }: { month: string; since: string },
  zone: string,
): { from: Instant | null; until: Instant | null } =>
  monthBounds(month, zone) ?? { from: isLocalDate(since) ? startOfDate(since, zone) : null, until: null };

export type DueSoon = {
  /** The first of them, and how many there are. */
  rows: SubscriptionLine[];
  total: number;
  sums: { currency: string; amount: number; count: number }[];
  zone: string;
};

/** Upcoming charges of the next 30 days, or of one day of them, soonest first, and their total. */
export async function dueSoon(day: LocalDate | null): Promise<DueSoon> {
  const site = await currentSite();
  const until = addLength(siteNow(site), { n: SOON_DAYS, unit: 'day' }, site.zone);
  const soon: SubscriptionLine[] = [];
  // All of them count for the sum, however many there are; what is shown is the beginning.
  for (let offset = 0, total = 1; offset < total; offset += AT_ONCE) {
    const filter = { ...EVERY, sort: 'due' as const, dueBefore: until, offset, limit: AT_ONCE };
    const page = await subscriptionList(filter);
    soon.push(
      ...page.rows.filter(
        ({ next }) =>
          next !== null &&
          isBefore(next.at, until) &&
          (day === null || localDate(next.at, site.zone) === day),
      ),
    );
    total = page.total;
  }
  soon.sort((a, b) => (a.next && b.next ? compare(a.next.at, b.next.at) : 0));
  const sums = new Map<string, { amount: number; count: number }>();
  for (const { next } of soon) {
    if (!next) continue;
    const sum = sums.get(next.currency) ?? { amount: 0, count: 0 };
    sums.set(next.currency, { amount: sum.amount + next.amount, count: sum.count + 1 });
  }
  return {
    rows: soon.slice(0, MOST_SHOWN),
    total: soon.length,
    sums: [...sums].map(([currency, sum]) => ({ currency, ...sum })),
    zone: site.zone,
  };
}

export type FailedLine = SubscriptionLine & {
  since: Instant | null;
  failures: number;
  /** Why the last try failed. */
  code: string | null;
  graceEnd: Instant | null;
};

/** Who could not be charged and has not paid since, by when the next try is. */
export async function failedList(): Promise<{ rows: FailedLine[]; total: number; zone: string }> {
  const site = await currentSite();
  const { rows, total, zone } = await subscriptionList({
    ...EVERY,
    state: 'overdue',
    sort: 'due',
    limit: MOST_SHOWN,
  });
  const stored = new Map(
    (
      await listSubscriptionsById(
        pool(),
        rows.map((row) => row.id),
      )
    ).map((one) => [one.id, one]),
  );
  const failures = await countDeclines(
    pool(),
    rows.map((row) => row.id),
  );
  const codes = await lastDeclines(
    pool(),
    rows.map((row) => row.id),
  );
  return {
    zone,
    total,
    rows: rows.map((row) => {
      const since = stored.get(row.id)?.firstFailedAt ?? null;
      return {
        ...row,
        since,
        failures: failures.get(row.id) ?? 0,
        code: codes.get(row.id) ?? null,
        graceEnd: since && addLength(since, { n: site.graceDays, unit: 'day' }, zone),
      };
    }),
  };
}

async function withNames<
  T extends {
    offerVersionId: OfferVersionId | null;
    productName?: string | null;
    gatewayAccountId: GatewayAccountId | null;
  },
>(rows: T[]): Promise<(T & { offer: StoredOffer | undefined; tierName: string; through: string })[]> {
  const ids = rows.flatMap((row) => row.offerVersionId ?? []);
  const versions = await listOfferVersions(pool(), [...new Set(ids)]);
  const offers = new Map(versions.map((offer) => [offer.versionId, offer]));
  const tiers = new Map((await listTiers(pool())).map((tier) => [tier.id, tier.name]));
  const accounts = new Map((await listGatewayAccounts(pool())).map((account) => [account.id, account.label]));
  return rows.map((row) => {
    const offer = offers.get(row.offerVersionId ?? '');
    return {
      ...row,
      offer,
      tierName: row.productName ?? (offer && tiers.get(offer.tierId)) ?? '',
      through: accounts.get(row.gatewayAccountId ?? '') ?? '',
    };
  });
}
