import type { Instant } from '@/core/instants';
import { many, maybeOne, run, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { GatewayAccountId, MemberId, PaymentId, RefundId } from '@/core/ids';

/** Refunds. The row is the intent, written before the gateway is asked. Amounts in minor units. */
export type Refund = {
  id: RefundId;
  paymentId: PaymentId;
  mode: Mode;
  idempotencyKey: string;
  amount: number;
  currency: string;
  state: 'intent' | 'succeeded' | 'refused';
  gatewayRef: string | null;
  reason: string;
  endsAccess: boolean;
  at: Instant;
};
type Row = Omit<Refund, 'amount'> & { amount: bigint };
const fromRow = (row: Row): Refund => ({ ...row, amount: toMinor(row.amount) });

export async function findRefund(db: Db, id: string): Promise<Refund | undefined> {
  const row = await maybeOne<Row>(db, 'SELECT * FROM refunds WHERE id = $1', [id]);
  return row && fromRow(row);
}

export async function listRefunds(db: Db, paymentIds: PaymentId[]): Promise<Refund[]> {
  return (
    await many<Row>(db, 'SELECT * FROM refunds WHERE payment_id = ANY ($1) ORDER BY created_at', [paymentIds])
  ).map(fromRow);
}

/** Every refund of what an account took. */
export async function listRefundsOf(db: Db, accountId: GatewayAccountId): Promise<Refund[]> {
  return (
    await many<Row>(
      db,
      `SELECT r.* FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE p.gateway_account_id = $1 ORDER BY r.created_at`,
      [accountId],
    )
  ).map(fromRow);
}

export type Dispute = {
  id: string;
  paymentId: PaymentId;
  mode: Mode;
  state: 'open' | 'won' | 'lost';
  openedAt: Instant;
  closedAt: Instant | null;
};

export async function findDispute(db: Db, paymentId: PaymentId): Promise<Dispute | undefined> {
  return maybeOne(db, 'SELECT * FROM disputes WHERE payment_id = $1', [paymentId]);
}

export async function listDisputes(db: Db, paymentIds: PaymentId[]): Promise<Dispute[]> {
  return many(db, 'SELECT * FROM disputes WHERE payment_id = ANY ($1)', [paymentIds]);
}

export type RefundToSend = {
  id: string;
  paymentId: PaymentId;
  memberId: MemberId | null;
  memberName: string;
  amount: number;
  currency: string;
  reason: string;
  at: Instant;
};

/** Refunds that are in the books, that no gateway makes, and that staff have not sent yet; oldest first. */
export async function listToSend(db: Db, mode: Mode, gateways: string[]): Promise<RefundToSend[]> {
  const rows = await many<Omit<RefundToSend, 'amount'> & { amount: bigint }>(
    db,
    `SELECT r.id, r.payment_id, m.id AS member_id, coalesce(m.name, j.name, '') AS member_name, r.amount, r.currency, r.reason, r.at
     FROM refunds r JOIN payments p ON p.id = r.payment_id JOIN gateway_accounts a ON a.id = p.gateway_account_id
     JOIN charges c ON c.id = p.charge_id LEFT JOIN subscriptions s ON s.id = c.subscription_id
     LEFT JOIN purchases u ON u.id = c.purchase_id LEFT JOIN members m ON m.id = coalesce(s.member_id, u.member_id) LEFT JOIN checkouts j ON j.subscription_id = s.id
     WHERE r.mode = $1 AND r.state = 'succeeded' AND r.sent_by_hand_at IS NULL AND a.gateway = ANY ($2) ORDER BY r.at`,
    [mode, gateways],
  );
  return rows.map((row) => ({ ...row, amount: toMinor(row.amount) }));
}

/** False where it was sent already, or is none of those that are sent by hand. */
export async function markSentByHand(db: Db, id: string, at: Instant): Promise<boolean> {
  return (
    (await run(
      db,
      `UPDATE refunds SET sent_by_hand_at = $2 WHERE id = $1 AND state = 'succeeded' AND sent_by_hand_at IS NULL`,
      [id, at],
    )) === 1
  );
}
