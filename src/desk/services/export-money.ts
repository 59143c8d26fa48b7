import { plainWords } from '@/words/desk';
import { methodWords } from '@/words/methods';
import { localDate } from '@/core/calendar';
import { compare, type Instant } from '@/core/instants';
import { csvLine } from '@/core/csv';
import { toDecimal } from '@/core/money';
import { rateText } from '@/core/tax';
import { pool } from '@/platform/store/db';
import {
  ALL_DOCUMENTS,
  listDocumentIds,
  listDocuments,
  type DocumentFilter,
} from '@/documents/store/documents';
import {
  ALL_PAYMENTS,
  listPaymentIds,
  listReceived,
  type PaymentFilter,
} from '@/billing/store/payment-lists';
import { listDisputes, listRefunds } from '@/billing/store/refunds';
import { listSubscriptionIds, type SubscriptionFilter } from '@/desk/store/subscription-lists';
import type { Mode } from '@/platform/store/site';
import { issueDocuments } from '@/documents/services/lib/issue-documents';
import { monthBounds } from '@/documents/services/lib/document-list';
import { boundsOf, EVERY, inStates, paymentList, subscriptionList } from './lib/money-lists';
import { documentsAsked, paymentsAsked, subscriptionsAsked } from './money-lists';
import { currentSite } from '@/platform/site';
import { z } from 'zod';
import { mode } from '@/platform/inputs';
import { done } from '@/platform/result';
import { staffUse } from '@/platform/use';

/** Rows that are read at a time. What is exported is fixed at the beginning: ids first, then page by page. */
const AT_ONCE = 1_000;
type Lines = AsyncGenerator<string>;

function* pagesOf<T>(all: T[]): Generator<T[]> {
  for (let at = 0; at < all.length; at += AT_ONCE) yield all.slice(at, at + AT_ONCE);
}
const linesOf = (records: (string | number)[][]): string => records.map(csvLine).join('');

/** The lists of the Money place as CSV. Dates are local ones of the site's zone; amounts are decimal. */
const LISTS = {
  async *subscriptions(filter: SubscriptionFilter, mode: Mode, zone: string): Lines {
    const day = (at: Instant | null): string => (at ? localDate(at, zone) : '');
    yield csvLine([
      'id',
      'member',
      'tier',
      'offer',
      'state',
      'started',
      'paid until',
      'next charge',
      'amount',
      'currency',
      'paid by',
    ]);
    for (const ids of pagesOf(await listSubscriptionIds(pool(), mode, filter))) {
      const { rows } = await subscriptionList({ ...EVERY, sort: filter.sort, ids, limit: AT_ONCE }, mode);
      yield linesOf(
        rows.map((row) => [
          row.id,
          row.memberName,
          row.tierName,
          row.offer?.name ?? '',
          row.state,
          day(row.beganAt),
          day(row.paidThrough),
          day(row.next?.at ?? null),
          row.next ? toDecimal(row.next.amount, row.next.currency) : '',
          row.next?.currency ?? '',
          row.methodLabel ? methodWords(row.methodLabel, plainWords) : row.through,
        ]),
      );
    }
  },

  async *payments(filter: PaymentFilter, mode: Mode, zone: string): Lines {
    yield csvLine([
      'id',
      'date',
      'member',
      'tier',
      'outcome',
      'try',
      'amount',
      'refunded',
      'currency',
      'through',
      'reference',
    ]);
    for (const ids of pagesOf(await listPaymentIds(pool(), mode, filter))) {
      const { rows } = await paymentList({ ...ALL_PAYMENTS, sort: filter.sort, ids, limit: AT_ONCE }, mode);
      yield linesOf(
        rows.map((row) => [
          row.id,
          localDate(row.settledAt ?? row.at, zone),
          row.memberName,
          row.tierName,
          row.state,
          row.attempt,
          toDecimal(row.amount, row.currency),
          toDecimal(row.refunded, row.currency),
          row.currency,
          row.through,
          row.reference ?? row.gatewayRef ?? '',
        ]),
      );
    }
  },

  /** Invoices, refunds and credits with the tax in them; refunds and credits are negative. For an accountant. */
  async *documents(filter: Partial<DocumentFilter>, mode: Mode, zone: string): Lines {
    await issueDocuments(mode);
    yield csvLine([
      'number',
      'kind',
      'date',
      'member',
      'for',
      'total',
      'without tax',
      'tax',
      'currency',
      'tax name',
      'rate',
      'about',
      'id',
    ]);
    for (const ids of pagesOf(await listDocumentIds(pool(), mode, { ...ALL_DOCUMENTS, ...filter }))) {
      const { rows } = await listDocuments(pool(), mode, { ...ALL_DOCUMENTS, ids, limit: AT_ONCE });
      yield linesOf(
        rows.map(({ id, label, kind, at, content, currency, total, tax }) => {
          const sign = kind === 'invoice' ? 1 : -1;
          return [
            label,
            kind,
            localDate(at, zone),
            content.buyer.name,
            content.lines[0]?.words ?? '',
            toDecimal(sign * total, currency),
            toDecimal(sign * (total - tax), currency),
            toDecimal(sign * tax, currency),
            currency,
            content.tax?.name ?? '',
            content.tax ? rateText(content.tax.rate) : '',
            content.about ?? '',
            id,
          ];
        }),
      );
    }
  },

  /** What moved: payments, refunds and lost disputes, in order of time, with their signs. For an accountant. */
  async *ledger(mode: Mode, zone: string): Lines {
    const received = await listReceived(pool(), mode);
    const ids = received.map((payment) => payment.id);
    const refunds = (await listRefunds(pool(), ids)).filter((refund) => refund.state === 'succeeded');
    const left = new Map(received.map((payment) => [payment.id, payment.amount]));
    for (const { paymentId, amount } of refunds) left.set(paymentId, (left.get(paymentId) ?? 0) - amount);
    const moved = [
      ...received.map(({ id, at, amount }) => ({ at, kind: 'payment', amount, id })),
      ...refunds.map(({ at, amount, paymentId: id }) => ({ at, kind: 'refund', amount: -amount, id })),
      ...(await listDisputes(pool(), ids))
        .filter((dispute) => dispute.state === 'lost')
        .map(({ closedAt, openedAt, paymentId: id }) => ({
          at: closedAt ?? openedAt,
          kind: 'dispute lost',
          amount: -(left.get(id) ?? 0),
          id,
        })),
    ].sort((a, b) => compare(a.at, b.at));
    yield csvLine(['date', 'kind', 'member', 'for', 'amount', 'currency', 'through', 'payment']);
    for (const page of pagesOf(moved)) {
      const { rows } = await paymentList(
        { ...ALL_PAYMENTS, ids: page.map((line) => line.id), limit: AT_ONCE },
        mode,
      );
      const byId = new Map(rows.map((row) => [row.id, row]));
      yield linesOf(
        page.map(({ at, kind, amount, id }) => {
          const payment = byId.get(id);
          const currency = payment?.currency ?? '';
          return [
            localDate(at, zone),
            kind,
            payment?.memberName ?? '',
            payment?.tierName ?? '',
            toDecimal(amount, currency),
            currency,
            payment?.through ?? '',
            id,
          ];
        }),
      );
    }
  },
};

const inputSchema = z.discriminatedUnion('list', [
  subscriptionsAsked.extend({ list: z.literal('subscriptions') }),
  paymentsAsked.extend({ list: z.literal('payments') }),
  documentsAsked.extend({ list: z.literal('documents') }),
  z.object({ list: z.literal('ledger'), mode: mode.catch(undefined) }),
]);

/** A list of the Money place as CSV, narrowed and ordered as it is on the screen; it is read as it is sent. */
export const exportMoney = staffUse('see money')('export-money', inputSchema, async (_, query) => {
  const site = await currentSite();
  const [mode, zone] = [query.mode ?? site.mode, site.zone];
  const whole = { offset: 0, limit: AT_ONCE };
  const linesFor = (): Lines => {
    switch (query.list) {
      case 'subscriptions':
        return LISTS.subscriptions({ ...inStates(query, site), ...whole }, mode, zone);
      case 'ledger':
        return LISTS.ledger(mode, zone);
      case 'documents': {
        const bounds = monthBounds(query.month, zone) ?? { from: null, until: null };
        return LISTS.documents({ kind: query.state, search: query.search, ...bounds }, mode, zone);
      }
      case 'payments': {
        const bounds = boundsOf(query, zone);
        return LISTS.payments({ ...query, ...whole, ...bounds, memberId: null }, mode, zone);
      }
    }
  };
  return done({ name: query.list, lines: linesFor() });
});
