import type { Instant } from '@/core/calendar';
import { many, maybeOne, one, run, toMinor, type Db, prepared } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** What was due, whether or not it has been paid. Amounts in minor units. */
export type StoredCharge = {
  id: string;
  subscriptionId: string;
  mode: Mode;
  step: number;
  n: number;
  amount: number;
  joiningFee: number;
  currency: string;
  dueAt: Instant;
  periodTo: Instant | null;
  /** Paid for before its time, at the member's wish. */
  renews: boolean;
  paidAt: Instant | null;
};

export type NewCharge = Omit<StoredCharge, 'id' | 'paidAt'>;
type ChargeRow = Omit<StoredCharge, 'amount' | 'joiningFee'> & { amount: bigint; joiningFee: bigint };

const toCharge = (row: ChargeRow): StoredCharge => ({
  ...row,
  amount: toMinor(row.amount),
  joiningFee: toMinor(row.joiningFee),
});

const ENSURE_CHARGE = prepared(
  'ensure-charge',
  `INSERT INTO charges (subscription_id, mode, step, n, amount, joining_fee, currency, due_at, period_to, renews)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
       ON CONFLICT (subscription_id, step, n) DO UPDATE SET
         due_at = CASE WHEN charges.paid_at IS NULL THEN excluded.due_at ELSE charges.due_at END,
         period_to = CASE WHEN charges.paid_at IS NULL THEN excluded.period_to ELSE charges.period_to END
       RETURNING id, subscription_id, mode, step, n, amount, joining_fee, currency, due_at, period_to, renews, paid_at`,
);

/**
 * The charge of a period: made the first time, found afterwards. Unpaid, its dates follow the period: it may begin later
 * than it would have.
 */
export async function ensureCharge(db: Db, c: NewCharge): Promise<StoredCharge> {
  return toCharge(
    await one<ChargeRow>(db, ENSURE_CHARGE, [
      c.subscriptionId,
      c.mode,
      c.step,
      c.n,
      c.amount,
      c.joiningFee,
      c.currency,
      c.dueAt,
      c.periodTo,
      c.renews,
    ]),
  );
}

export async function findCharge(db: Db, id: string): Promise<StoredCharge | undefined> {
  const row = await maybeOne<ChargeRow>(db, 'SELECT * FROM charges WHERE id = $1', [id]);
  return row && toCharge(row);
}

/** Gives a charge the reference that its payer writes on a transfer; one that it has stays. The answer is the one it has. */
export async function ensureReference(db: Db, chargeId: string, reference: string): Promise<string> {
  const row = await one<{ reference: string }>(
    db,
    'UPDATE charges SET reference = coalesce(reference, $2) WHERE id = $1 RETURNING reference',
    [chargeId, reference],
  );
  return row.reference;
}

export async function listChargeIds(db: Db, subscriptionId: string): Promise<string[]> {
  const rows = await many<{ id: string }>(
    db,
    'SELECT id FROM charges WHERE subscription_id = $1 ORDER BY due_at',
    [subscriptionId],
  );
  return rows.map((row) => row.id);
}

/** The newest charge of a subscription that was paid, with the payment that paid for it, where one did. */
export async function findLastPaid(
  db: Db,
  subscriptionId: string,
): Promise<(StoredCharge & { paymentId: string | null; paid: number }) | undefined> {
  const row = await maybeOne<ChargeRow & { paymentId: string | null; paid: bigint }>(
    db,
    `SELECT c.*, p.id AS payment_id, coalesce(p.amount, 0)::bigint AS paid FROM charges c
     LEFT JOIN payments p ON p.charge_id = c.id AND p.state = 'succeeded'
     WHERE c.subscription_id = $1 AND c.paid_at IS NOT NULL ORDER BY c.due_at DESC, c.created_at DESC LIMIT 1`,
    [subscriptionId],
  );
  return row && { ...toCharge(row), paymentId: row.paymentId, paid: toMinor(row.paid) };
}

export async function markChargePaid(db: Db, id: string, at: Instant): Promise<void> {
  await run(db, 'UPDATE charges SET paid_at = $2 WHERE id = $1 AND paid_at IS NULL', [id, at]);
}

export type PaymentState = 'intent' | 'succeeded' | 'declined';
export type Payment = {
  id: string;
  chargeId: string;
  subscriptionId: string;
  mode: Mode;
  gatewayAccountId: string;
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
  reference: string | null;
};
type PaymentRow = Omit<Payment, 'amount'> & { amount: bigint };

const toPayment = (row: PaymentRow): Payment => ({ ...row, amount: toMinor(row.amount) });
const PAYMENT = `SELECT p.*, c.subscription_id, c.reference FROM payments p JOIN charges c ON c.id = p.charge_id`;

const INSERT_INTENT = prepared(
  'insert-intent',
  `INSERT INTO payments (charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, at, by_member, is_awaited)
     SELECT $1, $2, $3, made.n + 1, $4::text || (made.n + 1), $5, $6, $7, $8, $9
     FROM (SELECT count(*)::integer AS n FROM payments WHERE charge_id = $1) made
     RETURNING id, charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, state, gateway_ref, decline_code, at, by_member, is_awaited`,
);

/**
 * Writes the intent to collect a charge, as the next attempt: its number rises with each attempt made, and stands at the
 * end of its key. @throws a conflict while another attempt is open or one has succeeded
 */
export async function insertIntent(
  db: Db,
  charge: StoredCharge,
  p: Pick<Payment, 'gatewayAccountId' | 'amount' | 'at' | 'byMember' | 'isAwaited' | 'reference'> & {
    keyStart: string;
  },
): Promise<Payment> {
  const row = await one<Omit<PaymentRow, 'subscriptionId' | 'reference'>>(db, INSERT_INTENT, [
    charge.id,
    charge.mode,
    p.gatewayAccountId,
    p.keyStart,
    p.amount,
    charge.currency,
    p.at,
    p.byMember,
    p.isAwaited,
  ]);
  return toPayment({ ...row, subscriptionId: charge.subscriptionId, reference: p.reference });
}

export async function findPaymentByKey(db: Db, key: string): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(db, `${PAYMENT} WHERE p.idempotency_key = $1`, [key]);
  return row && toPayment(row);
}

export async function findPayment(db: Db, id: string): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(db, `${PAYMENT} WHERE p.id = $1`, [id]);
  return row && toPayment(row);
}

/** The payment, locked until the transaction ends: what is given back of it is counted under this lock. */
export async function lockPayment(db: Db, id: string): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(db, `${PAYMENT} WHERE p.id = $1 FOR UPDATE OF p`, [id]);
  return row && toPayment(row);
}

export async function findPaymentByRef(db: Db, accountId: string, ref: string): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(
    db,
    `${PAYMENT} WHERE p.gateway_account_id = $1 AND p.gateway_ref = $2`,
    [accountId, ref],
  );
  return row && toPayment(row);
}

export async function findOpenPayment(db: Db, subscriptionId: string): Promise<Payment | undefined> {
  const row = await maybeOne<PaymentRow>(
    db,
    `${PAYMENT} WHERE c.subscription_id = $1 AND p.state = 'intent'`,
    [subscriptionId],
  );
  return row && toPayment(row);
}

/**
 * Intents that a crash or silence left open and that no process is working on any more: of joinings, and of
 * subscriptions that fall due no more. What falls due is settled when it is taken up.
 */
export async function listAbandonedPayments(db: Db, leaseSeconds: number, limit: number): Promise<Payment[]> {
  const rows = await many<PaymentRow>(
    db,
    `${PAYMENT} JOIN subscriptions s ON s.id = c.subscription_id LEFT JOIN joinings j ON j.subscription_id = s.id
     WHERE p.state = 'intent' AND NOT p.is_awaited AND p.created_at < now() - make_interval(secs => $1)
       AND (s.busy_until IS NULL OR s.busy_until < now())
       AND CASE WHEN s.state = 'pending' THEN j.state = 'open' AND (j.busy_until IS NULL OR j.busy_until < now())
         ELSE s.due_at IS NULL OR s.disputed_at IS NOT NULL OR p.by_member END
     ORDER BY p.created_at LIMIT $2`,
    [leaseSeconds, limit],
  );
  return rows.map(toPayment);
}

const SETTLE_PAYMENT = prepared(
  'settle-payment',
  `WITH settled AS (
       UPDATE payments SET state = $2, gateway_ref = $3, decline_code = $4, settled_at = $5
       WHERE id = $1 AND (state = 'intent' OR (state = 'declined' AND $2 = 'succeeded')) RETURNING id, charge_id
     ), paid AS (
       UPDATE charges c SET paid_at = $5 FROM settled WHERE c.id = settled.charge_id AND $2 = 'succeeded' AND c.paid_at IS NULL
     ) SELECT id FROM settled`,
);

/** Records the outcome of an attempt, and with a success that its charge is paid. False where it was recorded already; a success outranks a failure that was recorded. */
export async function settlePayment(
  db: Db,
  id: string,
  outcome:
    | { state: 'succeeded'; gatewayRef: string }
    | { state: 'declined'; gatewayRef: string | null; declineCode: string },
  at: Instant,
): Promise<boolean> {
  const changed = await many(db, SETTLE_PAYMENT, [
    id,
    outcome.state,
    outcome.gatewayRef,
    outcome.state === 'declined' ? outcome.declineCode : null,
    at,
  ]);
  return changed.length === 1;
}

/** What is waited for through accounts of one kind in a mode, oldest first. */
export async function listAwaited(db: Db, mode: Mode): Promise<Payment[]> {
  return (
    await many<PaymentRow>(
      db,
      `${PAYMENT} WHERE p.mode = $1 AND p.state = 'intent' AND p.is_awaited ORDER BY p.at`,
      [mode],
    )
  ).map(toPayment);
}

/** The newest try to collect the charge with a transfer's reference, whatever became of it. */
export async function findByReference(
  db: Db,
  accountId: string,
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
export async function listAllPayments(db: Db, accountId: string): Promise<Payment[]> {
  return (
    await many<PaymentRow>(db, `${PAYMENT} WHERE p.gateway_account_id = $1 ORDER BY p.created_at`, [
      accountId,
    ])
  ).map(toPayment);
}
