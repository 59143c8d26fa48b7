import type { Instant } from '@/core/instants';
import { many, maybeOne, one, run, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { GatewayAccountId, OfferVersionId, SubscriptionId } from '@/core/ids';

/** What a payer approved at a wallet that bills by itself. */
export type StoredAgreement = {
  id: string;
  subscriptionId: SubscriptionId;
  mode: Mode;
  gatewayAccountId: GatewayAccountId;
  /** The version of the offer that it bills. */
  offerVersionId: OfferVersionId;
  ref: string | null;
  approveUrl: string | null;
  /** `ending`: we asked for its end, and have not seen it yet. */
  state: 'asked' | 'running' | 'ending' | 'ended';
  /** The last settled period when it was asked for; null before the first. It bills what comes after. */
  afterStep: number | null;
  afterN: number | null;
  at: Instant;
};

export async function insertAgreement(
  db: Db,
  a: Pick<StoredAgreement, 'subscriptionId' | 'mode' | 'gatewayAccountId' | 'offerVersionId' | 'at'> & {
    after: { step: number; n: number } | null;
  },
): Promise<StoredAgreement> {
  return one(
    db,
    `INSERT INTO agreements (subscription_id, mode, gateway_account_id, offer_version_id, at, after_step, after_n)
     VALUES ($1, $2, $3, $4, $5, $6, $7) RETURNING *`,
    [a.subscriptionId, a.mode, a.gatewayAccountId, a.offerVersionId, a.at, a.after?.step, a.after?.n],
  );
}

export async function setAgreementRef(db: Db, id: string, ref: string, approveUrl: string): Promise<void> {
  await run(db, 'UPDATE agreements SET ref = $2, approve_url = $3 WHERE id = $1', [id, ref, approveUrl]);
}

export async function findAgreementByRef(
  db: Db,
  accountId: GatewayAccountId,
  ref: string,
): Promise<StoredAgreement | undefined> {
  return maybeOne(db, 'SELECT * FROM agreements WHERE gateway_account_id = $1 AND ref = $2', [
    accountId,
    ref,
  ]);
}

/** The newest agreement in one of the states of each of some subscriptions, by the subscription's id. */
export async function listAgreementsOf(
  db: Db,
  subscriptionIds: SubscriptionId[],
  states: StoredAgreement['state'][],
): Promise<Map<string, StoredAgreement>> {
  const rows = await many<StoredAgreement>(
    db,
    `SELECT DISTINCT ON (subscription_id) * FROM agreements WHERE subscription_id = ANY ($1) AND state = ANY ($2)
     ORDER BY subscription_id, created_at DESC`,
    [subscriptionIds, states],
  );
  return new Map(rows.map((row) => [row.subscriptionId, row]));
}

/** The newest agreement of a subscription in one of the states. */
export async function findAgreementOf(
  db: Db,
  subscriptionId: SubscriptionId,
  states: StoredAgreement['state'][],
): Promise<StoredAgreement | undefined> {
  return maybeOne(
    db,
    'SELECT * FROM agreements WHERE subscription_id = $1 AND state = ANY ($2) ORDER BY created_at DESC LIMIT 1',
    [subscriptionId, states],
  );
}

export async function setAgreementState(
  db: Db,
  id: string,
  state: StoredAgreement['state'],
  at: Instant,
): Promise<void> {
  await run(
    db,
    `UPDATE agreements SET state = $2, ended_at = CASE WHEN $2 = 'ended' THEN $3::timestamptz END, next_check_at = now() WHERE id = $1`,
    [id, state, at],
  );
}

/**
 * Every agreement of a subscription that runs, or may yet, is to be ended; the worker sees to it. But for one, or for those
 * that bill a version.
 */
export async function endAgreementsOf(
  db: Db,
  subscriptionId: SubscriptionId,
  except: { id?: string; version?: string | null } = {},
): Promise<void> {
  await run(
    db,
    `UPDATE agreements SET state = 'ending', next_check_at = now()
     WHERE subscription_id = $1 AND state IN ('asked', 'running') AND id IS DISTINCT FROM $2::uuid AND offer_version_id IS DISTINCT FROM $3::uuid`,
    [subscriptionId, except.id ?? null, except.version ?? null],
  );
}

/** What was approved for the offer of a switch down bills the subscription that it begins. */
export async function passAgreementsOn(
  db: Db,
  from: string,
  to: string,
  versionId: OfferVersionId,
): Promise<void> {
  await run(
    db,
    `UPDATE agreements SET subscription_id = $2 WHERE subscription_id = $1 AND offer_version_id = $3 AND state IN ('asked', 'running')`,
    [from, to, versionId],
  );
}

/** Takes agreements that must be looked after: asked for and not answered, or to be ended. */
export async function claimAgreements(
  db: Db,
  leaseSeconds: number,
  limit: number,
): Promise<StoredAgreement[]> {
  return many(
    db,
    `UPDATE agreements SET next_check_at = now() + make_interval(secs => $1)
     WHERE id IN (SELECT id FROM agreements WHERE state IN ('asked', 'ending') AND next_check_at <= now()
       ORDER BY next_check_at LIMIT $2 FOR UPDATE SKIP LOCKED) RETURNING *`,
    [leaseSeconds, limit],
  );
}

/** Approvals that were requested for a subscription and not given can no longer be given. */
export async function withdrawAsked(db: Db, subscriptionId: SubscriptionId): Promise<void> {
  await run(
    db,
    `UPDATE agreements SET state = 'ending', next_check_at = now() WHERE subscription_id = $1 AND state = 'asked'`,
    [subscriptionId],
  );
}

export async function findAgreement(db: Db, id: string): Promise<StoredAgreement | undefined> {
  return maybeOne(db, 'SELECT * FROM agreements WHERE id = $1', [id]);
}

export type StrayPayment = {
  id: string;
  gatewayAccountId: GatewayAccountId;
  mode: Mode;
  gatewayRef: string;
  subscriptionId: SubscriptionId | null;
  amount: number;
  currency: string;
  reason: string;
  state: 'kept' | 'returned';
  at: Instant;
};
type StrayRow = Omit<StrayPayment, 'amount'> & { amount: bigint };
const fromRow = (row: StrayRow): StrayPayment => ({ ...row, amount: toMinor(row.amount) });

/** Notes money that belongs to nothing that runs; the same money is noted once. */
export async function insertStray(db: Db, s: Omit<StrayPayment, 'id' | 'state'>): Promise<void> {
  await run(
    db,
    `INSERT INTO stray_payments (gateway_account_id, mode, gateway_ref, subscription_id, amount, currency, reason, at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8) ON CONFLICT DO NOTHING`,
    [s.gatewayAccountId, s.mode, s.gatewayRef, s.subscriptionId, s.amount, s.currency, s.reason, s.at],
  );
}

export async function findStray(
  db: Db,
  accountId: GatewayAccountId,
  ref: string,
): Promise<StrayPayment | undefined> {
  const row = await maybeOne<StrayRow>(
    db,
    'SELECT * FROM stray_payments WHERE gateway_account_id = $1 AND gateway_ref = $2',
    [accountId, ref],
  );
  return row && fromRow(row);
}

/** All money that an account took for nothing. */
export async function listStrayOf(db: Db, accountId: GatewayAccountId): Promise<StrayPayment[]> {
  return (
    await many<StrayRow>(db, 'SELECT * FROM stray_payments WHERE gateway_account_id = $1 ORDER BY at DESC', [
      accountId,
    ])
  ).map(fromRow);
}

/** Money that belongs to nothing, newest first; only what is not returned yet where `open`. */
export async function listStray(
  db: Db,
  mode: Mode | null,
  open: boolean,
  limit: number,
): Promise<StrayPayment[]> {
  return (
    await many<StrayRow>(
      db,
      `SELECT * FROM stray_payments WHERE ($1::money_mode IS NULL OR mode = $1) AND (NOT $2 OR state = 'kept') ORDER BY at DESC LIMIT $3`,
      [mode, open, limit],
    )
  ).map(fromRow);
}

export async function markReturned(db: Db, id: string): Promise<void> {
  await run(db, `UPDATE stray_payments SET state = 'returned' WHERE id = $1`, [id]);
}
