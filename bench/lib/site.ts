import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { migrate } from '../../scripts/lib/migrations';
import { startServer } from '../../scripts/lib/postgres';

export type BenchSite = {
  url: string;
  db: pg.Client;
  /** The id that a statement answers with. */
  one: (sql: string, values?: unknown[]) => Promise<string>;
  accountId: string;
  versionId: string;
  close: () => Promise<void>;
};

/** An empty site of one tier and one monthly offer, whose gateway answers at the given address. */
export async function benchSite(gatewayUrl: string): Promise<BenchSite> {
  const server = await startServer(5490);
  const database = `nest_bench_${process.pid}`;
  await server.createDatabase(database);
  const url = server.url(database);
  await migrate(url);
  Object.assign(process.env, {
    DATABASE_URL: url,
    SITE_URL: 'http://127.0.0.1:9',
    SEALING_KEY: randomBytes(32).toString('hex'),
    SIGNING_KEY: randomBytes(32).toString('hex'),
    SMTP_URL: 'smtp://127.0.0.1:9',
    CURLEW_CARDS_URL: gatewayUrl,
    DUNLIN_WALLET_URL: gatewayUrl,
    LOG_LEVEL: 'silent',
  });
  // What reads the environment is loaded once it is set.
  const { loadEmptySite } = await import('../../scripts/lib/load-demo');
  const { SETUP } = await import('../../src/platform/actor');
  const { saveTier } = await import('../../src/billing/services/save-tier');
  const { saveOffer } = await import('../../src/tiers/services/save-offer');
  const { seal } = await import('../../src/platform/seal');
  const { closePools } = await import('../../src/platform/store/db');
  await loadEmptySite();
  await saveTier(SETUP, { id: 'observer', name: 'Observer', description: '', ladder: 'Observing' });
  const steps = [{ kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: null }];
  const definition = { tier: 'observer', currency: 'GBP', steps, after: 'end' };
  await saveOffer(SETUP, { id: 'monthly', name: 'Monthly', definition });
  const db = new pg.Client({ connectionString: url });
  await db.connect();
  const one = async (sql: string, values: unknown[] = []): Promise<string> =>
    (await db.query<{ id: string }>(sql, values)).rows[0]?.id ?? '';
  return {
    url,
    db,
    one,
    accountId: await one(
      `INSERT INTO gateway_accounts (gateway, nature, mode, label, site_key, secret_key_sealed, checked_at)
       VALUES ('curlew-cards', 'card', 'test', 'Card', 'k', $1, now()) RETURNING id`,
      [seal('secret')],
    ),
    versionId: await one('SELECT id FROM offer_versions'),
    close: async () => {
      await Promise.all([db.end(), closePools()]);
      await server.dropDatabase(database);
      server.stop();
    },
  };
}

/** Instants of the product have whole milliseconds. */
const NOW = `date_trunc('milliseconds', now())`;

/** Subscriptions whose next month fell due an hour ago, made by SQL alone; `part` tells their addresses from those of before. */
export async function makeDue(
  db: pg.Client,
  count: number,
  accountId: string,
  versionId: string,
  part = '',
): Promise<void> {
  await db.query(
    `WITH people AS (
       INSERT INTO members (email, name, joined_at)
       SELECT 'due' || n || $4 || '@moor.example', 'Due ' || n, ${NOW} - interval '40 days' FROM generate_series(1, $1::int) n RETURNING id
     ), running AS (
       INSERT INTO subscriptions (member_id, mode, track, offer_version_id, state, anchor_at, began_at, period_step, period_n, paid_through, due_at, next_at,
         gateway_account_id, customer_ref, method_ref, method_label)
       SELECT id, 'test', 'observing', $2, 'active', ${NOW} - interval '1 month 1 hour', ${NOW} - interval '1 month 1 hour', 0, 0, ${NOW} - interval '1 hour', ${NOW} - interval '1 hour', ${NOW} - interval '1 hour',
         $3, 'c', 'm', 'card ending 0017' FROM people RETURNING id, member_id, began_at
     ), locks AS (
       INSERT INTO books (member_id, mode) SELECT member_id, 'test' FROM running
     ), joined AS (
       INSERT INTO book_summaries (member_id, mode, track, had_trial, joined_at, has_switched_up)
       SELECT member_id, 'test', 'observing', false, began_at, false FROM running
     ) INSERT INTO holdings (member_id, tier_id, mode, why, subscription_id, is_paid, from_at, since_at)
       SELECT member_id, 'observer', 'test', 'subscription', id, true, began_at, began_at FROM running`,
    [count, versionId, accountId, part],
  );
}
