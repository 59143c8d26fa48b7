import { WORKER } from '../src/platform/actor';
/**
 * Renewals that are due at once: how fast workers do them, against the bare SQL of the same writes, in one run, with a
 * gateway that answers at once. npm run bench -- renewals [how many]
 */
import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import pg from 'pg';
import { benchSite, makeDue } from './lib/site';

const WORKERS = 4;

/** A card gateway that answers every charge at once, on a thread of its own. */
async function instantGateway(): Promise<{ url: string; charges: () => Promise<number>; stop: () => void }> {
  const thread = new Worker(new URL('./instant-gateway.mjs', import.meta.url));
  const heard = () =>
    new Promise<{ port: number; charges: number }>((resolve) => thread.once('message', resolve));
  const { port } = await heard();
  return {
    url: `http://127.0.0.1:${port}`,
    charges: async () => {
      thread.postMessage('how many');
      return (await heard()).charges;
    },
    stop: () => void thread.terminate(),
  };
}

/** The writes of one renewal and nothing else: what no program in this database could do with fewer. */
async function bareRenewal(
  db: pg.Client,
  s: { id: string; memberId: string; email: string },
  accountId: string,
): Promise<void> {
  const [charge, payment] = [randomUUID(), randomUUID()];
  await db.query('BEGIN');
  await db.query('SELECT 1 FROM subscriptions WHERE id = $1 FOR UPDATE', [s.id]);
  await db.query(
    `INSERT INTO charges (id, subscription_id, mode, number, tier_id, period_kind, price, due, step, n, amount, joining_fee, currency, due_at, period_to)
     VALUES ($1, $2, 'test', 1, 'observer', 'repeat', 600, 600, 0, 1, 600, 0, 'GBP', now(), now() + interval '1 month')`,
    [charge, s.id],
  );
  await db.query(
    `INSERT INTO payments (id, charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, at)
     VALUES ($1, $2, 'test', $3, 1, $4, 600, 'GBP', now())`,
    [payment, charge, accountId, `bare:${s.id}`],
  );
  await db.query('COMMIT');
  await db.query('BEGIN');
  await db.query('SELECT 1 FROM subscriptions WHERE id = $1 FOR UPDATE', [s.id]);
  await db.query(
    `UPDATE payments SET state = 'succeeded', gateway_ref = $2, settled_at = now() WHERE id = $1`,
    [payment, `bare_${payment}`],
  );
  await db.query(
    `UPDATE charges SET state = 'paid', paid_at = now(), lived_from = due_at, lived_to = period_to WHERE id = $1`,
    [charge],
  );
  await db.query(
    `UPDATE subscriptions SET period_n = 1, paid_through = now() + interval '1 month', due_at = now() + interval '1 month', events = events + 1 WHERE id = $1`,
    [s.id],
  );
  await db.query('UPDATE holdings SET until_at = NULL WHERE subscription_id = $1', [s.id]);
  await db.query(
    `INSERT INTO audit (at, actor_kind, action, subject, detail) VALUES (now(), 'worker', 'payment received', $1, $2)`,
    [`subscription:${s.id}`, { payment, amount: 600 }],
  );
  await db.query(
    `INSERT INTO mails (dedupe_key, member_id, to_address, template, subject, text_body, html_body, at) VALUES ($1, $2, $3, 'receipt', $4, $5, $6, now())`,
    [
      `receipt:${payment}`,
      s.memberId,
      s.email,
      'Receipt: £6.00 for Observer',
      'x'.repeat(300),
      'y'.repeat(900),
    ],
  );
  await db.query('COMMIT');
}

export async function run(args: string[]): Promise<void> {
  const count = Number(args[0] ?? 10_000);
  const gateway = await instantGateway();
  const { url, db, one, accountId, versionId, close } = await benchSite(gateway.url);
  try {
    const { runOneDue } = await import('../src/billing/services/run-due');
    const isDue = `state = 'active' AND due_at < now()`;

    await makeDue(db, count, accountId, versionId);
    await db.query('ANALYZE');
    let peak = 0;
    const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 100);
    const begun = performance.now();
    await Promise.all(
      Array.from({ length: WORKERS }, async () => {
        for (let more = true; more;) {
          const did = await runOneDue(WORKER);
          more = did.ok && did.value;
        }
      }),
    );
    const product = performance.now() - begun;
    const left = Number(await one(`SELECT count(*) AS id FROM subscriptions WHERE ${isDue}`));
    const paid = Number(await one(`SELECT count(*) AS id FROM payments WHERE state = 'succeeded'`));
    clearInterval(watch);
    const asked = await gateway.charges();
    if (left > 0 || paid !== count || asked !== count)
      throw new Error(`${left} are left, ${paid} are paid, the gateway was asked ${asked} times`);

    await db.query(
      `UPDATE subscriptions SET period_n = 0, due_at = now() - interval '1 hour', paid_through = now() - interval '1 hour'`,
    );
    await db.query('DELETE FROM payments');
    await db.query('DELETE FROM charges');
    await db.query('DELETE FROM mails');
    await db.query('VACUUM ANALYZE');
    const due = (
      await db.query<{ id: string; member_id: string; email: string }>(
        `SELECT s.id, s.member_id, m.email FROM subscriptions s JOIN members m ON m.id = s.member_id WHERE ${isDue}`,
      )
    ).rows.map((row) => ({ id: row.id, memberId: row.member_id, email: row.email }));
    const clients = await Promise.all(
      Array.from({ length: WORKERS }, async () => {
        const client = new pg.Client({ connectionString: url });
        await client.connect();
        return client;
      }),
    );
    const bareBegun = performance.now();
    await Promise.all(
      clients.map(async (client) => {
        for (let next = due.pop(); next; next = due.pop()) await bareRenewal(client, next, accountId);
      }),
    );
    const bare = performance.now() - bareBegun;
    await Promise.all(clients.map((client) => client.end()));
    const rate = (ms: number): string => `${Math.round(count / (ms / 1000))} a second`;
    console.log(`${count} renewals due at once, ${WORKERS} at a time, a gateway that answers at once`);
    console.log(
      `  the product   ${(product / 1000).toFixed(1)} s, ${rate(product)}; peak memory ${Math.round(peak / 1e6)} MB`,
    );
    console.log(`  the bare SQL  ${(bare / 1000).toFixed(1)} s, ${rate(bare)}`);
    console.log(`  ratio ${(bare / product).toFixed(2)} (goal 0.50)`);
  } finally {
    gateway.stop();
    await close();
  }
}
