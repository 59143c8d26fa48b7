import { compare, localDate } from '@/core/calendar';
import { toCsv } from '@/core/csv';
import { toDecimal } from '@/core/money';
import { rateText } from '@/core/tax';
import { pool } from '@/platform/store/db';
import { ALL_DOCUMENTS, listDocuments, type DocumentFilter } from '@/documents/store/documents';
import { ALL_PAYMENTS, type PaymentFilter } from '@/billing/store/payment-lists';
import { listDisputes, listRefunds } from '@/billing/store/refunds';
import type { SubscriptionFilter } from '@/desk/store/subscription-lists';
import type { Mode } from '@/platform/store/site';
import { issueDocuments } from '@/documents/services/lib/issue-documents';
import { monthBounds } from '@/documents/services/lib/document-list';
import { paymentList, subscriptionList } from './lib/money-lists';
import { documentsAsked, paymentsAsked, subscriptionsAsked } from './money-lists';
import { currentSite } from '@/platform/site';
import { z } from 'zod';
import { mode } from '@/platform/inputs';
import { done } from '@/platform/result';
import { staffUse } from '@/platform/use';

const MOST_ROWS = 1_000_000;

/** The lists of the Money place as CSV. Dates are local ones of the site's zone; amounts are decimal. */
const LISTS = {
  async subscriptions(filter: SubscriptionFilter, mode?: Mode): Promise<string> {
    const { rows, zone } = await subscriptionList(filter, mode);
    const day = (at: string | null): string => (at ? localDate(at, zone) : '');
    return toCsv(
      [
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
      ],
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
        row.methodLabel ?? row.through,
      ]),
    );
  },

  async payments(filter: PaymentFilter, mode?: Mode): Promise<string> {
    const { rows, zone } = await paymentList(filter, mode);
    return toCsv(
      [
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
      ],
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
  },

  /** Invoices, refunds and credits with the tax in them; what goes back has a minus. For an accountant. */
  async documents(filter: Partial<DocumentFilter>, asked?: Mode): Promise<string> {
    const { mode: own, zone } = await currentSite();
    const mode = asked ?? own;
    await issueDocuments(mode);
    const { rows } = await listDocuments(pool(), mode, {
      ...ALL_DOCUMENTS,
      ...filter,
      offset: 0,
      limit: MOST_ROWS,
    });
    return toCsv(
      [
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
      ],
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
  },

  /** What moved: payments, refunds and lost disputes, in order of time, with their signs. For an accountant. */
  async ledger(mode?: Mode): Promise<string> {
    const filter = {
      ...ALL_PAYMENTS,
      state: 'succeeded' as const,
      sort: 'oldest' as const,
      limit: MOST_ROWS,
    };
    const { rows, zone } = await paymentList(filter, mode);
    const ids = rows.map((row) => row.id);
    const [refunds, disputes] = [await listRefunds(pool(), ids), await listDisputes(pool(), ids)];
    const byId = new Map(rows.map((row) => [row.id, row]));
    const lines = [
      ...rows.map((row) => ({
        at: row.settledAt ?? row.at,
        kind: 'payment',
        amount: row.amount,
        payment: row,
      })),
      ...refunds
        .filter((refund) => refund.state === 'succeeded')
        .map((refund) => ({
          at: refund.at,
          kind: 'refund',
          amount: -refund.amount,
          payment: byId.get(refund.paymentId),
        })),
      ...disputes
        .filter((dispute) => dispute.state === 'lost')
        .map((dispute) => {
          const payment = byId.get(dispute.paymentId);
          const left = (payment?.amount ?? 0) - (payment?.refunded ?? 0);
          return { at: dispute.closedAt ?? dispute.openedAt, kind: 'dispute lost', amount: -left, payment };
        }),
    ].sort((a, b) => compare(a.at, b.at));
    return toCsv(
      ['date', 'kind', 'member', 'for', 'amount', 'currency', 'through', 'payment'],
      lines.map(({ at, kind, amount, payment }) => [
        localDate(at, zone),
        kind,
        payment?.memberName ?? '',
        payment?.tierName ?? '',
        toDecimal(amount, payment?.currency ?? ''),
        payment?.currency ?? '',
        payment?.through ?? '',
        payment?.id ?? '',
      ]),
    );
  },
};

const inputSchema = z.discriminatedUnion('list', [
  subscriptionsAsked.extend({ list: z.literal('subscriptions') }),
  paymentsAsked.extend({ list: z.literal('payments') }),
  documentsAsked.extend({ list: z.literal('documents') }),
  z.object({ list: z.literal('ledger'), mode: mode.catch(undefined) }),
]);

/** A list of the Money place as CSV, narrowed and ordered as it is on the screen. */
export const exportMoney = staffUse('look')('export-money', inputSchema, async (_, query) => {
  const { zone } = await currentSite();
  const every = { offset: 0, limit: MOST_ROWS };
  const csvOf = (): Promise<string> => {
    switch (query.list) {
      case 'subscriptions':
        return LISTS.subscriptions({ ...query, ...every }, query.mode);
      case 'ledger':
        return LISTS.ledger(query.mode);
      case 'documents': {
        const bounds = monthBounds(query.month, zone) ?? { from: null, until: null };
        return LISTS.documents({ kind: query.state, search: query.search, ...bounds }, query.mode);
      }
      case 'payments': {
        const bounds = monthBounds(query.month, zone) ?? { from: null, until: null };
        return LISTS.payments({ ...query, ...every, ...bounds, memberId: null }, query.mode);
      }
    }
  };
  return done({ name: query.list, csv: await csvOf() });
});
