import type { Instant } from '@/core/instants';
import { many, maybeOne, one, run, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type {
  ChargeId,
  CreditId,
  DisputeId,
  GatewayAccountId,
  MemberId,
  PaymentId,
  PurchaseId,
  RefundId,
  SubscriptionId,
} from '@/core/ids';

export type PaymentState = 'intent' | 'succeeded' | 'declined' | 'withdrawn';
export type Payment = {
  id: PaymentId;
  chargeId: ChargeId;
  /** Null of a purchase. */
  subscriptionId: SubscriptionId | null;
  purchaseId: PurchaseId | null;
  /** Whose book it is in. */
  memberId: MemberId;
  mode: Mode;
  gatewayAccountId: GatewayAccountId;
  attempt: number;
  idempotencyKey: string;
  amount: number;
  currency: string;
  state: PaymentState;
  gatewayRef: string | null;
  declineCode: string | null;
  at: Instant;
  /** A try of the member's own accord. */
  byMember: boolean;
  /** The payer's to settle, by a transfer with this reference. */
  isAwaited: boolean;
  /** Until when it is awaited; by the site's clock. */
  untilAt: Instant | null;
  reference: string | null;
};
type PaymentRow = Omit<Payment, 'amount'> & { amount: bigint };

const toPayment = (row: PaymentRow): Payment => ({ ...row, amount: toMinor(row.amount) });
const PAYMENT = `SELECT p.*, c.subscription_id, c.purchase_id, c.reference, coalesce(s.member_id, u.member_id) AS member_id FROM payments p JOIN charges c ON c.id = p.charge_id
  LEFT JOIN subscriptions s ON s.id = c.subscription_id LEFT JOIN purchases u ON u.id = c.purchase_id`;

export async function findPaymentByKey(db: Db, key: string): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(db, `${PAYMENT} WHERE p.idempotency_key = $1`, [key]);
  return row && toPayment(row);
}

export async function findPayment(db: Db, id: string): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(db, `${PAYMENT} WHERE p.id = $1`, [id]);
  return row && toPayment(row);
}

export async function findPaymentByRef(
  db: Db,
  accountId: GatewayAccountId,
  ref: string,
): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(
    db,
    `${PAYMENT} WHERE p.gateway_account_id = $1 AND p.gateway_ref = $2`,
    [accountId, ref],
  );
  return row && toPayment(row);
}

export async function findOpenPayment(db: Db, subscriptionId: SubscriptionId): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(
    db,
    `${PAYMENT} WHERE c.subscription_id = $1 AND p.state = 'intent'`,
    [subscriptionId],
  );
  return row && toPayment(row);
}

/** The open attempts of some subscriptions. */
export async function listOpenPayments(db: Db, subscriptionIds: SubscriptionId[]): Promise<Payment[]> {
  return (
    await many<PaymentRow>(db, `${PAYMENT} WHERE c.subscription_id = ANY ($1) AND p.state = 'intent'`, [
      subscriptionIds,
    ])
  ).map(toPayment);
}

/** What is waited for in a mode, oldest first: all of it, or so many. */
export async function listAwaited(db: Db, mode: Mode, limit: number | null = null): Promise<Payment[]> {
  return (
    await many<PaymentRow>(
      db,
      `${PAYMENT} WHERE p.mode = $1 AND p.state = 'intent' AND p.is_awaited ORDER BY p.at LIMIT $2`,
      [mode, limit],
    )
  ).map(toPayment);
}

export async function countAwaited(db: Db, mode: Mode): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM payments WHERE mode = $1 AND state = 'intent' AND is_awaited`,
    [mode],
  );
  return Number(count);
}

/** The newest try to collect the charge with a transfer's reference, whatever became of it. */
export async function findByReference(
  db: Db,
  accountId: GatewayAccountId,
  reference: string,
): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(
    db,
    `${PAYMENT} WHERE p.gateway_account_id = $1 AND c.reference = $2 ORDER BY (p.state = 'succeeded') DESC, p.attempt DESC LIMIT 1`,
    [accountId, reference],
  );
  return row && toPayment(row);
}

/** Every attempt made through an account, for comparing with the gateway's own list. */
export async function listAllPayments(db: Db, accountId: GatewayAccountId): Promise<Payment[]> {
  return (
    await many<PaymentRow>(db, `${PAYMENT} WHERE p.gateway_account_id = $1 ORDER BY p.created_at`, [
      accountId,
    ])
  ).map(toPayment);
}

type Documented = { charges: ChargeId[]; refunds: RefundId[]; disputes: DisputeId[]; credits: CreditId[] };

/** Notes what has its document, so that none is looked for again. */
export async function setDocumented(
  db: Db,
  { charges, refunds, disputes, credits }: Documented,
): Promise<void> {
  await run(db, 'UPDATE charges SET is_invoiced = true WHERE id = ANY ($1)', [charges]);
  await run(db, 'UPDATE refunds SET is_documented = true WHERE id = ANY ($1)', [refunds]);
  await run(db, 'UPDATE disputes SET is_documented = true WHERE id = ANY ($1)', [disputes]);
  await run(db, 'UPDATE credits SET is_documented = true WHERE id = ANY ($1)', [credits]);
}
