import type { Instant } from '@/core/instants';
import { RUNNING } from '@/core/billing/states';
import { listed } from '@/platform/store/conditions';
import { one, run, type Db, type Transaction } from '@/platform/store/db';
import { heldAt } from '@/billing/store/holdings';

/** How much there is that was made in test mode. */
export type TestData = {
  subscriptions: number;
  /** Of those, how many run; and how many members hold something by them. */
  running: number;
  holders: number;
  payments: number;
  checkouts: number;
  messages: number;
  /** Approvals at wallets that have not ended there yet. */
  agreements: number;
};

export async function countTestData(db: Db, at: Instant): Promise<TestData> {
  const row = await one<Record<keyof TestData, bigint>>(
    db,
    `SELECT count(*) FILTER (WHERE began_at IS NOT NULL) AS subscriptions,
       count(*) FILTER (WHERE state IN ${listed(RUNNING)}) AS running,
       (SELECT count(DISTINCT member_id) FROM holdings h WHERE ${heldAt('h', "'test'", '$1')}) AS holders,
       (SELECT count(*) FROM payments WHERE mode = 'test') AS payments,
       (SELECT count(*) FROM checkouts WHERE mode = 'test') AS checkouts,
       (SELECT count(*) FROM gateway_events e JOIN gateway_accounts a ON a.id = e.gateway_account_id WHERE a.mode = 'test') AS messages,
       (SELECT count(*) FROM agreements WHERE mode = 'test' AND state <> 'ended') AS agreements
     FROM subscriptions WHERE mode = 'test'`,
    [at],
  );
  return Object.fromEntries(Object.entries(row).map(([name, count]) => [name, Number(count)])) as TestData;
}

/** Every approval given in test mode is to be ended at its wallet; the worker sees to it. */
export async function endTestAgreements(db: Db): Promise<void> {
  await run(
    db,
    `UPDATE agreements SET state = 'ending', next_check_at = now() WHERE mode = 'test' AND state IN ('asked', 'running')`,
  );
}

/**
 * Deletes what was made in test mode: subscriptions with all that depends on them, and messages. Documents of it go first
 * (`deleteTestDocuments`). Members, gateway accounts and the audit stay.
 */
export async function deleteTestData(db: Transaction): Promise<void> {
  for (const sql of [
    `DELETE FROM credit_uses WHERE credit_id IN (SELECT id FROM credits WHERE mode = 'test')`,
    `DELETE FROM credits WHERE mode = 'test'`,
    `DELETE FROM refunds WHERE mode = 'test'`,
    `DELETE FROM disputes WHERE mode = 'test'`,
    `DELETE FROM statement_lines WHERE mode = 'test'`,
    `DELETE FROM payments WHERE mode = 'test'`,
    `DELETE FROM charges WHERE mode = 'test'`,
    `DELETE FROM held_passes WHERE mode = 'test' AND purchase_id IS NOT NULL`,
    `DELETE FROM purchases WHERE mode = 'test'`,
    `DELETE FROM stray_payments WHERE mode = 'test'`,
    `DELETE FROM agreements WHERE mode = 'test'`,
    `DELETE FROM outside_orders WHERE mode = 'test'`,
    `DELETE FROM holdings WHERE mode = 'test'`,
    `DELETE FROM checkouts WHERE mode = 'test'`,
    `DELETE FROM switch_quotes WHERE mode = 'test'`,
    `DELETE FROM subscriptions WHERE mode = 'test'`,
    `DELETE FROM book_summaries WHERE mode = 'test'`,
    `DELETE FROM books WHERE mode = 'test'`,
    `DELETE FROM gateway_events WHERE gateway_account_id IN (SELECT id FROM gateway_accounts WHERE mode = 'test')`,
  ])
    await run(db, sql);
}
