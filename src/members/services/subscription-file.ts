import type { Book } from '@/core/billing/book';
import { creditLeft, refundable } from '@/core/billing/credit';
import { readBook } from '@/billing/services/lib/open-book';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { compare, type Instant } from '@/core/instants';
import { declineWords } from '@/billing/gateways/contract';
import { listAudit } from '@/platform/store/audit';
import { pool } from '@/platform/store/db';
import { findMember, type Member } from '@/people/store/members';
import { findPayment } from '@/billing/store/payments';
import { ALL_PAYMENTS, listPayments, type PaymentListRow } from '@/billing/store/payment-lists';
import { listRefunds, type Refund } from '@/billing/store/refunds';
import { findSubscription } from '@/billing/store/subscriptions';
import { memberAccount, type SubscriptionView } from '@/billing/services/lib/member-account';
import { currentSite, deskWords } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { uuid } from '@/platform/inputs';
import { found } from '@/platform/result';
import type { PaymentId } from '@/core/ids';

export type HistoryEntry = {
  id: string;
  at: Instant;
  words: string;
  note?: string;
  money?: { amount: number; currency: string };
  tone: 'plain' | 'good' | 'bad';
};
export type SubscriptionFile = {
  member: Member;
  view: SubscriptionView;
  zone: string;
  credit: { currency: string; amount: number }[];
  history: HistoryEntry[];
  payments: (PaymentListRow & { refunds: Refund[]; refundable: number })[];
  /** For the forms of this drawer: sent twice, it is one refund. */
  requestId: string;
  /** Minor units; above this a refund asks for the password. */
  refundAsksAbove: number;
};

/** The history of a subscription of the site's mode, newest first, with its payments; null: there is none. */
async function readFile(id: string): Promise<SubscriptionFile | null> {
  const site = await currentSite();
  const subscription = z.uuid().safeParse(id).success ? await findSubscription(pool(), id) : undefined;
  const member = subscription?.memberId ? await findMember(pool(), subscription.memberId) : undefined;
  if (!subscription || !member) return null;
  const account = await memberAccount(member, await deskWords(), subscription.mode);
  const view = account.subscriptions.find((one) => one.subscription.id === id);
  if (!view) return null;
  const { rows } = await listPayments(pool(), subscription.mode, {
    ...ALL_PAYMENTS,
    memberId: member.id,
    limit: 500,
  });
  const own = rows.filter((payment) => payment.subscriptionId === id);
  const ids = own.map((payment) => payment.id);
  const refunds = await listRefunds(pool(), ids);
  const { book } = (await readBook(pool(), site, subscription, { payments: ids })).stored;
  const payments = own.map((payment) => ({
    ...payment,
    refunds: refunds.filter((refund) => refund.paymentId === payment.id),
    refundable: refundableOf(book, payment.id),
  }));
  return {
    member,
    view,
    zone: site.zone,
    payments,
    credit: creditLeft(book),
    history: historyOf(payments, await listAudit(pool(), [`subscription:${id}`], 300)),
    requestId: randomUUID(),
    refundAsksAbove: site.refundAsksAbove,
  };
}

function refundableOf(book: Book, id: string): number {
  const payment = book.payments.find((one) => one.id === id);
  return payment && !payment.isReturned ? Math.max(0, refundable(book, payment)) : 0;
}

/** The subscription that a payment belongs to; null: there is no such payment. */
async function ofPayment(paymentId: PaymentId): Promise<string | null> {
  const payment = z.uuid().safeParse(paymentId).success ? await findPayment(pool(), paymentId) : undefined;
  return payment?.subscriptionId ?? null;
}

function historyOf(
  payments: SubscriptionFile['payments'],
  audit: Awaited<ReturnType<typeof listAudit>>,
): HistoryEntry[] {
  const entries: HistoryEntry[] = [
    ...payments.flatMap((payment): HistoryEntry[] => [
      {
        id: payment.id,
        at: payment.at,
        money: { amount: payment.amount, currency: payment.currency },
        words: {
          succeeded: payment.isReturned ? 'Paid, and returned' : 'Paid',
          withdrawn: 'Not waited for: paid another way',
          declined: `Try ${payment.attempt} failed`,
          intent: payment.isAwaited ? `Transfer ${payment.reference} awaited` : 'A payment is under way',
        }[payment.state],
        note: payment.declineCode ? declineWords(payment.declineCode) : undefined,
        tone: payment.state === 'succeeded' ? 'good' : payment.state === 'declined' ? 'bad' : 'plain',
      },
      ...payment.refunds.map((refund): HistoryEntry => ({
        id: refund.id,
        at: refund.at,
        money: { amount: -refund.amount, currency: refund.currency },
        words: { intent: 'A refund is under way', succeeded: 'Refunded', refused: 'A refund was refused' }[
          refund.state
        ],
        note: refund.reason || undefined,
        tone: refund.state === 'refused' ? 'bad' : 'plain',
      })),
    ]),
    ...audit
      .filter(({ action }) => !action.startsWith('payment ') && action !== 'refunded')
      .map((entry): HistoryEntry => ({
        id: `audit:${entry.id}`,
        at: entry.at,
        words: entry.action.charAt(0).toUpperCase() + entry.action.slice(1),
        note:
          entry.actorKind === 'staff'
            ? 'by staff'
            : entry.actorKind === 'gateway'
              ? 'told by the gateway'
              : undefined,
        tone: 'plain',
      })),
  ];
  return entries.sort((a, b) => compare(b.at, a.at));
}

export const subscriptionFile = staffUse('see members', 'see money')(
  'subscription-file',
  uuid,
  async (_, id) => found(await readFile(id)),
);

export const subscriptionOfPayment = staffUse('see members', 'see money')(
  'subscription-of-payment',
  uuid,
  async (_, id) => found(await ofPayment(id)),
);
