import { CURRENT } from '@/core/billing/states';
import { listed } from '@/platform/store/conditions';
import type { Instant } from '@/core/instants';
import { many, maybeOne, one, run, type Db, type Transaction, prepared } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { listRows, type StoredSubscription } from './subscriptions';
import type { MemberId } from '@/core/ids';

/** The subscription whose reminder has been due longest, locked; one that another process has is passed over. */
export async function lockNextReminder(
  db: Transaction,
  mode: Mode,
  now: Instant,
): Promise<StoredSubscription | undefined> {
  const rows = await listRows(
    db,
    `WHERE s.remind_at <= $2 AND s.mode = $1 AND s.state IN ${listed(CURRENT)} ORDER BY s.remind_at LIMIT 1 FOR UPDATE OF s SKIP LOCKED`,
    [mode, now],
  );
  return rows[0];
}

export async function setRemindAt(db: Db, id: string, at: Instant | null): Promise<void> {
  await run(db, 'UPDATE subscriptions SET remind_at = $2 WHERE id = $1', [id, at]);
}

/** A running subscription whose card can no longer be charged in 30 days, and whose member was not told; locked. */
export async function lockNextExpiry(
  db: Transaction,
  mode: Mode,
  now: Instant,
): Promise<StoredSubscription | undefined> {
  const rows = await listRows(
    db,
    `WHERE s.method_expires IS NOT NULL AND s.method_expires IS DISTINCT FROM s.expiry_told
       AND s.method_expires <= to_char($2::timestamptz + interval '30 days', 'YYYY-MM') AND (s.method_expires || '-01')::date + interval '1 month' - interval '30 days' <= $2
       AND s.mode = $1 AND s.state NOT IN ('pending', 'ended') AND s.due_at IS NOT NULL LIMIT 1 FOR UPDATE OF s SKIP LOCKED`,
    [mode, now],
  );
  return rows[0];
}

export async function setExpiryTold(db: Db, id: string, expires: string): Promise<void> {
  await run(db, 'UPDATE subscriptions SET expiry_told = $2 WHERE id = $1', [id, expires]);
}

/** A subscription for which there is something to do, and when by its mode's clock. */
export type DueSubscription = { id: string; memberId: MemberId; mode: Mode; nextAt: Instant };

/** By the clock of its mode. $1: rehearsal clock, $2: real time. */
const IS_DUE = `next_at <= greatest($1::timestamptz, $2::timestamptz)
  AND next_at <= CASE mode WHEN 'test' THEN $1::timestamptz ELSE $2::timestamptz END`;

const CLAIM_DUE = prepared(
  'claim-due',
  `UPDATE subscriptions SET busy_until = now() + make_interval(secs => $3)
     WHERE id = (
       SELECT id FROM subscriptions WHERE ${IS_DUE} AND (busy_until IS NULL OR busy_until <= now()) AND member_id IS NOT NULL
       ORDER BY next_at, id LIMIT 1 FOR UPDATE SKIP LOCKED
     ) RETURNING id, member_id, mode, next_at`,
);

/**
 * Takes the subscription that has been due longest by its mode's clock, for a lease of real seconds: something falls due, or
 * an attempt was left open, or the last day of a transfer has come. Test subscriptions follow the rehearsal clock, or, where
 * that is null, do nothing; live ones follow real time. A lock held elsewhere is passed over.
 */
export async function claimDue(
  db: Db,
  testNow: Instant | null,
  liveNow: Instant,
  leaseSeconds: number,
): Promise<DueSubscription | undefined> {
  return maybeOne(db, CLAIM_DUE, [testNow, liveNow, leaseSeconds]);
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

/** Refunds that were asked for and that no process is working on, with whose book they are in. */
export async function listOpenRefunds(
  db: Db,
  leaseSeconds: number,
  limit: number,
): Promise<{ id: string; memberId: MemberId; mode: Mode }[]> {
  return many(
    db,
    `SELECT r.id, coalesce(s.member_id, u.member_id) AS member_id, r.mode FROM refunds r JOIN payments p ON p.id = r.payment_id JOIN charges c ON c.id = p.charge_id
     LEFT JOIN subscriptions s ON s.id = c.subscription_id LEFT JOIN purchases u ON u.id = c.purchase_id
     WHERE r.state = 'intent' AND r.created_at < now() - make_interval(secs => $1) ORDER BY r.created_at LIMIT $2`,
    [leaseSeconds, limit],
  );
}
