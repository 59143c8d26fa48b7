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

/** As many are due at once; product and bare SQL take turns, so that both meet the same noise of the machine. */
const ROUND = 1000;

type Bench = Awaited<ReturnType<typeof benchSite>> & { clients: pg.Client[] };

/** How long the product takes for a round; in ms. */
async function productRound(
  { db, one, accountId, versionId }: Bench,
  size: number,
  part: string,
): Promise<number> {
  const { runOneDue } = await import('../src/billing/services/run-due');
  await makeDue(db, size, accountId, versionId, part);
  await db.query('ANALYZE');
  const begun = performance.now();
  await Promise.all(
    Array.from({ length: WORKERS }, async () => {
      for (let more = true; more;) {
        const did = await runOneDue(WORKER);
        more = did.ok && did.value;
      }
    }),
  );
  const took = performance.now() - begun;
  const left = Number(await one(`SELECT count(*) AS id FROM subscriptions WHERE next_at < now()`));
  if (left > 0) throw new Error(`${left} are left`);
  return took;
}

/** The same for the bare SQL. */
async function bareRound(
  { db, clients, accountId, versionId }: Bench,
  size: number,
  part: string,
): Promise<number> {
  await makeDue(db, size, accountId, versionId, part);
  const { rows: due } = await db.query<{ id: string; memberId: string; email: string }>(
    `UPDATE subscriptions s SET next_at = NULL FROM members m WHERE m.id = s.member_id AND next_at < now()
     RETURNING s.id, s.member_id AS "memberId", m.email`,
  );
  await db.query('ANALYZE');
  const begun = performance.now();
  await Promise.all(
    clients.map(async (client) => {
      for (let next = due.pop(); next; next = due.pop()) await bareRenewal(client, next, accountId);
    }),
  );
  return performance.now() - begun;
}

export async function run(args: string[]): Promise<void> {
  const count = Number(args[0] ?? 10_000);
  const gateway = await instantGateway();
  const site = await benchSite(gateway.url);
  const clients = Array.from({ length: WORKERS }, () => new pg.Client({ connectionString: site.url }));
  let peak = 0;
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 100);
  try {
    await Promise.all(clients.map((client) => client.connect()));
    const bench = { ...site, clients };
    let [product, bare, done] = [0, 0, 0];
    for (; done < count; done += ROUND) {
      const size = Math.min(ROUND, count - done);
      product += await productRound(bench, size, `-${done}`);
      bare += await bareRound(bench, size, `-${done}-bare`);
    }
    const asked = await gateway.charges();
    if (asked !== count) throw new Error(`the gateway was asked ${asked} times`);
    const line = (ms: number): string =>
      `${(ms / 1000).toFixed(1)} s, ${Math.round(count / (ms / 1000))} a second`;
    console.log(
      `${count} renewals, ${ROUND} due at once, ${WORKERS} at a time, a gateway that answers at once`,
    );
    console.log(`  the product   ${line(product)}; peak memory ${Math.round(peak / 1e6)} MB`);
    console.log(`  the bare SQL  ${line(bare)}`);
    console.log(`  ratio ${(bare / product).toFixed(2)} (goal 0.50)`);
  } finally {
    clearInterval(watch);
    gateway.stop();
    await Promise.all(clients.map((client) => client.end()));
    await site.close();
  }
}
