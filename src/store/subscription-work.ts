import type { Instant } from '@/core/calendar';
import { maybeOne, one, run, type Db, type Transaction, prepared } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { COLUMNS, fromRow, type Row, type StoredSubscription } from './subscriptions';

/** The subscription whose reminder has been due longest, locked; one that another process has is passed over. */
export async function lockNextReminder(
  db: Transaction,
  mode: Mode,
  now: Instant,
): Promise<StoredSubscription | undefined> {
  const row = await maybeOne<Row>(
    db,
    `SELECT ${COLUMNS} FROM subscriptions WHERE remind_at <= $2 AND mode = $1 AND state IN ('trial', 'active')
     ORDER BY remind_at LIMIT 1 FOR UPDATE SKIP LOCKED`,
    [mode, now],
  );
  return row && fromRow(row);
}

export async function setRemindAt(db: Db, id: string, at: Instant | null): Promise<void> {
  await run(db, 'UPDATE subscriptions SET remind_at = $2 WHERE id = $1', [id, at]);
}

/** A subscription that goes on, whose card cannot be charged any more in 30 days, and whose member was not told; locked. */
export async function lockNextExpiry(
  db: Transaction,
  mode: Mode,
  now: Instant,
): Promise<StoredSubscription | undefined> {
  const row = await maybeOne<Row>(
    db,
    `SELECT ${COLUMNS} FROM subscriptions WHERE method_expires IS NOT NULL AND method_expires IS DISTINCT FROM expiry_told
       AND method_expires <= to_char($2::timestamptz + interval '30 days', 'YYYY-MM') AND (method_expires || '-01')::date + interval '1 month' - interval '30 days' <= $2
       AND mode = $1 AND state NOT IN ('pending', 'ended') AND due_at IS NOT NULL LIMIT 1 FOR UPDATE SKIP LOCKED`,
    [mode, now],
  );
  return row && fromRow(row);
}

export async function setExpiryTold(db: Db, id: string, expires: string): Promise<void> {
  await run(db, 'UPDATE subscriptions SET expiry_told = $2 WHERE id = $1', [id, expires]);
}

/** `hasOpen`: an attempt to collect from it was left open. */
export type DueSubscription = { id: string; mode: Mode; dueAt: Instant; hasOpen: boolean };

/** Due by the clock of its mode, undisputed, and not waiting for a payer any more. $1: rehearsal clock, $2: real time. */
const IS_DUE = `due_at IS NOT NULL AND state NOT IN ('pending', 'ended') AND disputed_at IS NULL
  AND greatest(due_at, waits_until) <= greatest($1::timestamptz, $2::timestamptz)
  AND greatest(due_at, waits_until) <= CASE mode WHEN 'test' THEN $1::timestamptz ELSE $2::timestamptz END`;

const CLAIM_DUE = prepared(
  'claim-due',
  `UPDATE subscriptions SET busy_until = now() + make_interval(secs => $3)
     WHERE id = (
       SELECT id FROM subscriptions
       WHERE ${IS_DUE} AND (busy_until IS NULL OR busy_until < now())
       ORDER BY greatest(due_at, waits_until), id LIMIT 1 FOR UPDATE SKIP LOCKED
     ) RETURNING id, mode, greatest(due_at, waits_until) AS due_at, EXISTS (
       SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = subscriptions.id AND p.state = 'intent') AS has_open`,
);

/**
 * Takes the subscription that has been due longest by its mode's clock, for a lease of real seconds.
 * Test subscriptions follow the rehearsal clock, or, where that is null, stand still; live ones follow real time. A lock
 * held elsewhere is passed over.
 */
export async function claimDue(
  db: Db,
  testNow: Instant | null,
  liveNow: Instant,
  leaseSeconds: number,
): Promise<DueSubscription | undefined> {
  return maybeOne(db, CLAIM_DUE, [testNow, liveNow, leaseSeconds]);
}

/** Has nothing be asked for until an instant of the site's clock: the payer is waited for. Ends the lease. */
export async function waitForPayer(db: Db, id: string, until: Instant): Promise<void> {
  await run(db, 'UPDATE subscriptions SET waits_until = $2, busy_until = NULL WHERE id = $1', [id, until]);
}

export async function extendLease(db: Db, id: string, seconds: number): Promise<void> {
  await run(db, 'UPDATE subscriptions SET busy_until = now() + make_interval(secs => $2) WHERE id = $1', [
    id,
    seconds,
  ]);
}

export async function countDue(db: Db, testNow: Instant): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM subscriptions WHERE mode = 'test' AND ${IS_DUE}`,
    [testNow, testNow],
  );
  return Number(count);
}
