import { z } from 'zod';
import { isLocalDate } from '@/core/instants';
import { mode, nothing, search } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { BEGUN } from '@/core/billing/states';
import { PAYMENT_SORTS, PAYMENT_STATES } from '@/billing/store/payment-lists';
import { SUBSCRIPTION_SORTS } from '@/desk/store/subscription-lists';
import { books as readBooks, DOCUMENT_KINDS } from '@/documents/services/lib/document-list';
import { incomeShown } from './lib/income';
import * as lists from './lib/money-lists';

/** Rows on a page of a list. */
const PAGE_ROWS = 100;
const look = staffUse('see money');

/** Query parameters of a list; unknown values fall back to the first known one. */
const asked = <State extends string, Sort extends string>(
  states: readonly [State, ...State[]],
  sorts: readonly [Sort, ...Sort[]],
) =>
  z.object({
    state: z.union([z.literal(''), z.enum(states)]).catch(''),
    search,
    sort: z.enum(sorts).catch(sorts[0]),
    page: z.coerce.number().int().min(1).max(100_000).catch(1),
    mode: mode.catch(undefined),
    /** "2026-11"; otherwise every month. */
    month: z.string().max(10).default(''),
    /** A local date: what came in on it or after it. */
    since: z
      .string()
      .refine((typed): boolean => isLocalDate(typed))
      .catch(''),
  });
const NEWEST = ['newest'] as const;

export const subscriptionsAsked = asked(['disputed', 'expiring', ...BEGUN], SUBSCRIPTION_SORTS);
export const paymentsAsked = asked(PAYMENT_STATES, PAYMENT_SORTS);
export const documentsAsked = asked(DOCUMENT_KINDS, NEWEST);

const rowsOf = ({ page }: { page: number }) => ({ offset: (page - 1) * PAGE_ROWS, limit: PAGE_ROWS });

/** A page of the subscriptions that fit what was asked. */
export const subscriptionList = look('subscription-list', subscriptionsAsked, async (_, query) => {
  const list = await lists.subscriptionList({ ...query, ...rowsOf(query) }, query.mode);
  return done({ ...list, query, perPage: PAGE_ROWS });
});

/** A page of the payments that fit what was asked. */
export const paymentList = look('payment-list', paymentsAsked, async (_, query) => {
  const bounds = lists.boundsOf(query, (await currentSite()).zone);
  const list = await lists.paymentList({ ...query, ...rowsOf(query), ...bounds, memberId: null }, query.mode);
  return done({ ...list, query, perPage: PAGE_ROWS });
});

/** The months of the books with their chart, and a page of the documents that fit what was asked. */
export const books = look('books', documentsAsked, async (_, query) => {
  const list = await readBooks(
    query.month,
    { kind: query.state, search: query.search, ...rowsOf(query) },
    query.mode,
  );
  return done({ ...list, income: await incomeShown(query.mode), query, perPage: PAGE_ROWS });
});

/** Upcoming charges of the next 30 days, or of one of them. */
export const upcomingCharges = look(
  'upcoming-charges',
  z
    .object({
      day: z
        .string()
        .refine((typed): boolean => isLocalDate(typed))
        .catch(''),
    })
    .prefault({ day: '' }),
  async (_, { day }) => done(await lists.dueSoon(isLocalDate(day) ? day : null)),
);
/** Who could not be charged and has not paid since. */
export const failedList = look('failed-list', nothing, async () => done(await lists.failedList()));
