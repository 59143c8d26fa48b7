import { randomBytes } from 'node:crypto';
import { runner } from 'node-pg-migrate';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { onServer } from '../../scripts/lib/postgres';
import { migrate } from '../../scripts/lib/migrations';

/** A site of before the book: what it held, owed and was owed must be what it is afterwards. */
const server = onServer(inject('adminUrl'));
const name = `nest_upgrade_${randomBytes(6).toString('hex')}`;
let db: pg.Client;
const BEFORE_THE_BOOK = 15;
const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const [WORKS, MOVES, SWITCHES, OVERDUE, DISPUTED, AWAITS, LEFT, UNPAID, CREDITED] = [
  1, 2, 3, 4, 5, 6, 7, 8, 9,
];

const NOW = '2027-03-10T12:00:00Z';
const rows = async <T = Record<string, unknown>>(sql: string, values: unknown[] = []): Promise<T[]> =>
  (await db.query(sql, values)).rows as T[];

/** Someone who pays 6.00 a month since 1 February and whose March is paid, or is not. */
async function member(
  n: number,
  s: { state?: string; set?: string; isMarchPaid?: boolean; track?: string } = {},
): Promise<void> {
  const { state = 'active', set = '', isMarchPaid = true, track = 'sky' } = s;
  await rows(`INSERT INTO members (id, email, name, joined_at) VALUES ($1, $2, 'Someone', '2027-02-01')`, [
    id(n),
    `m${n}@moor.example`,
  ]);
  await rows(
    `INSERT INTO subscriptions (id, member_id, mode, track, offer_version_id, state, started_at, period_step, period_n, paid_through, due_at, ended_at, gateway_account_id)
     VALUES ($1, $1, 'test', $2, $3, $4::text, '2027-02-01', 0, $5, $6, CASE WHEN $4::text IN ('ended', 'pending') THEN NULL ELSE $6::timestamptz END,
       CASE WHEN $4::text = 'ended' THEN '2027-03-09'::timestamptz END, $7)`,
    [
      id(n),
      track,
      id(101),
      state === 'pending' ? 'active' : state,
      isMarchPaid ? 1 : 0,
      isMarchPaid ? '2027-04-01' : '2027-03-01',
      id(102),
    ],
  );
  if (set) await rows(`UPDATE subscriptions SET ${set} WHERE id = $1`, [id(n)]);
  for (const [month, isPaid] of [
    [2, true],
    [3, isMarchPaid],
  ] as const) {
    await rows(
      `INSERT INTO charges (id, subscription_id, mode, step, n, amount, joining_fee, currency, due_at, period_to, paid_at, is_invoiced)
       VALUES ($1, $2, 'test', 0, $3, 600, 0, 'GBP', make_timestamptz(2027, $4, 1, 0, 0, 0, 'UTC'), make_timestamptz(2027, $4 + 1, 1, 0, 0, 0, 'UTC'),
         CASE WHEN $5 THEN make_timestamptz(2027, $4, 1, 0, 0, 0, 'UTC') END, $5)`,
      [id(n * 1000 + month), id(n), month - 2, month, isPaid],
    );
    await rows(
      `INSERT INTO payments (id, charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, state, gateway_ref, decline_code, at, settled_at)
       VALUES ($1::uuid, $1::uuid, 'test', $2, 1, $1::uuid::text, 600, 'GBP', $3::text, $1::uuid::text, CASE WHEN $3::text = 'declined' THEN 'declined' END, make_timestamptz(2027, $4, 1, 0, 0, 0, 'UTC'), make_timestamptz(2027, $4, 1, 0, 0, 0, 'UTC'))`,
      [id(n * 1000 + month), id(102), isPaid ? 'succeeded' : 'declined', month],
    );
  }
  await rows(
    `INSERT INTO holdings (member_id, tier_id, mode, why, subscription_id, is_paid, from_at, until_at)
     VALUES ($1, 'observer', 'test', 'subscription', $1, true, '2027-02-01', CASE WHEN $2 = 'ended' THEN '2027-03-08'::timestamptz END)`,
    [id(n), state],
  );
}

async function checkout(
  n: number,
  state: string,
  s: { at: string; isAwaited?: boolean; credit?: number },
): Promise<void> {
  const of = n + 50;
  await rows(
    `INSERT INTO subscriptions (id, member_id, mode, track, offer_version_id, state, started_at, gateway_account_id) VALUES ($1, $2, 'test', 'course', $3, 'pending', $4, $5)`,
    [id(of), id(n), id(101), s.at, id(s.isAwaited ? 103 : 102)],
  );
  await rows(
    `INSERT INTO joinings (id, subscription_id, offer_id, track, mode, member_id, email, name, return_to, state, at) VALUES ($1, $1, 'monthly', 'course', 'test', $2, 'm@moor.example', 'Someone', '/', $3, $4)`,
    [id(of), id(n), state, s.at],
  );
  await rows(
    `INSERT INTO charges (id, subscription_id, mode, step, n, amount, joining_fee, currency, due_at, reference) VALUES ($1, $1, 'test', 0, 0, 600, 0, 'GBP', $2, $3)`,
    [id(of), s.at, s.isAwaited ? 'ABCD-2345' : null],
  );
  await rows(
    `INSERT INTO payments (id, charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, state, decline_code, at, settled_at, is_awaited)
     VALUES ($1::uuid, $1::uuid, 'test', $2, 1, $1::uuid::text, $3, 'GBP', $4::text, CASE WHEN $4::text = 'declined' THEN 'declined' END, $5, CASE WHEN $4::text = 'declined' THEN $5::timestamptz END, $6)`,
    [
      id(of),
      id(s.isAwaited ? 103 : 102),
      600 - (s.credit ?? 0),
      s.isAwaited ? 'intent' : 'declined',
      s.at,
      s.isAwaited ?? false,
    ],
  );
  if (!s.credit) return;
  await rows(
    `INSERT INTO credits (id, member_id, mode, currency, amount, unspent, payment_id, charge_id, reason, at) VALUES ($1, $2, 'test', 'GBP', 500, 500 - $3::bigint, $4, $4, 'x', '2027-03-01')`,
    [id(of), id(n), s.credit, id(n * 1000 + 3)],
  );
  await rows('INSERT INTO credit_uses (credit_id, charge_id, amount) VALUES ($1, $1, $2)', [
    id(of),
    s.credit,
  ]);
}

beforeAll(async () => {
  await server.createDatabase(name);
  const databaseUrl = server.url(name);
  const to = { databaseUrl, dir: 'migrations', migrationsTable: 'migrations', direction: 'up' as const };
  await runner({ ...to, count: BEFORE_THE_BOOK, verbose: false, log: () => undefined });
  db = new pg.Client({ connectionString: databaseUrl, options: '-c timezone=UTC' });
  await db.connect();
  const definition = {
    tier: 'observer',
    currency: 'GBP',
    steps: [{ kind: 'repeat', amount: 600, every: { n: 1, unit: 'month' }, times: null }],
    after: 'end',
  };
  await rows(
    `INSERT INTO site (name, zone, currency, sender_name, sender_address) VALUES ('Moor', 'UTC', 'GBP', 'Moor', 'a@moor.example')`,
  ).catch(async () => rows(`UPDATE site SET zone = 'UTC'`));
  await rows(`INSERT INTO tiers (id, name, key_cut) VALUES ('observer', 'Observer', '{"notches": [1]}')`);
  await rows(`INSERT INTO offers (id, tier_id, name) VALUES ('monthly', 'observer', 'Monthly')`);
  for (const [n, version] of [
    [101, 1],
    [104, 2],
    [105, 3],
  ] as const)
    await rows(
      `INSERT INTO offer_versions (id, offer_id, version, currency, definition, is_paid) VALUES ($1, 'monthly', $2, 'GBP', $3, true)`,
      [id(n), version, definition],
    );
  for (const [n, gateway] of [
    [102, 'curlew-cards'],
    [103, 'bank-transfer'],
  ] as const)
    await rows(
      `INSERT INTO gateway_accounts (id, gateway, mode, label, site_key, secret_key_sealed, checked_at, settings) VALUES ($1, $2, 'test', 'x', $2, 'x', now(), '{"daysToPay": 4}')`,
      [id(n), gateway],
    );
  await member(WORKS);
  await member(MOVES, { set: `moves_to = '${id(104)}', owner_moved_to = '${id(104)}'` });
  await member(SWITCHES, { set: `moves_to = '${id(105)}', owner_moved_to = '${id(104)}'` });
  await member(OVERDUE, {
    state: 'overdue',
    isMarchPaid: false,
    set: `failures = 1, first_failed_at = '2027-03-01', due_at = '2027-03-11'`,
  });
  await member(DISPUTED, { set: `disputed_at = '2027-03-05'` });
  await rows(
    `INSERT INTO disputes (payment_id, mode, state, opened_at) VALUES ($1, 'test', 'open', '2027-03-05')`,
    [id(DISPUTED * 1000 + 3)],
  );
  await member(AWAITS);
  await checkout(AWAITS, 'open', { at: '2027-03-09T12:00:00Z', isAwaited: true });
  await member(LEFT);
  await checkout(LEFT, 'expired', { at: '2027-02-20T12:00:00Z', credit: 200 });
  await member(UNPAID, {
    state: 'ended',
    isMarchPaid: false,
    set: `failures = 4, first_failed_at = '2027-03-01'`,
  });
  await rows(
    `INSERT INTO audit (at, actor_kind, action, subject, detail) SELECT ended_at, 'worker', 'subscription ended unpaid', 'subscription:' || id, '{}' FROM subscriptions WHERE id = $1`,
    [id(UNPAID)],
  );
  await member(CREDITED);
  await checkout(CREDITED, 'open', { at: '2027-03-09T12:00:00Z', credit: 300 });
  const kept = await books();
  await migrate(databaseUrl);
  before = kept;
});
afterAll(async () => {
  await db.end();
  await server.dropDatabase(name);
});

let before: unknown;
/** What must be the same before and after. */
const books = async () => ({
  subscriptions: await rows(
    `SELECT id, state, paid_through, due_at FROM subscriptions WHERE track = 'sky' ORDER BY id`,
  ),
  payments: await rows('SELECT id, state, amount, idempotency_key FROM payments ORDER BY id'),
  charges: await rows('SELECT id, amount, paid_at FROM charges ORDER BY id'),
  credits: await rows('SELECT id, amount, voided FROM credits ORDER BY id'),
});
const one = async (n: number) => (await rows('SELECT * FROM subscriptions WHERE id = $1', [id(n)]))[0];
const isHeld = async (n: number): Promise<boolean> =>
  (
    await rows(
      `SELECT 1 FROM holdings WHERE member_id = $1 AND from_at <= $2 AND (until_at IS NULL OR until_at > $2)`,
      [id(n), NOW],
    )
  ).length > 0;

describe('the upgrade to the book', () => {
  it('changes no payment, charge, credit or subscription', async () => {
    expect(await books()).toEqual(before);
    expect(await rows('SELECT count(*)::int FROM books')).toEqual([{ count: 9 }]);
  });

  it('keeps what is held as it was; a dispute has ended what it suspends', async () => {
    for (const n of [WORKS, MOVES, SWITCHES, OVERDUE, AWAITS, LEFT, CREDITED])
      expect(await isHeld(n), String(n)).toBe(true);
    for (const n of [DISPUTED, UNPAID]) expect(await isHeld(n), String(n)).toBe(false);
    expect(await one(DISPUTED)).toMatchObject({ disputes: [id(DISPUTED * 1000 + 3)] });
  });

  it('tells a move of the owner from a switch that the member asked for', async () => {
    expect(await one(MOVES)).toMatchObject({ moves_to: id(104), switches_to: null });
    expect(await one(SWITCHES)).toMatchObject({ moves_to: id(104), switches_to: id(105) });
  });

  it('numbers charges, knows which are open, and when the worker has something to do', async () => {
    expect(
      await rows('SELECT number, kind, state, due FROM charges WHERE subscription_id = $1 ORDER BY number', [
        id(OVERDUE),
      ]),
    ).toEqual([
      { number: 1, kind: 'first', state: 'paid', due: '600' },
      { number: 2, kind: 'period', state: 'open', due: '600' },
    ]);
    expect(await one(OVERDUE)).toMatchObject({
      unpaid_charge_id: id(OVERDUE * 1000 + 3),
      charges_issued: 2,
      next_at: new Date('2027-03-11T00:00:00Z'),
    });
    expect(await one(UNPAID)).toMatchObject({
      ended_unpaid: true,
      unpaid_charge_id: id(UNPAID * 1000 + 3),
      next_at: null,
    });
    // A transfer is awaited for the four days of its account.
    expect(await one(AWAITS + 50)).toMatchObject({ next_at: new Date('2027-03-13T12:00:00Z') });
    expect(await rows('SELECT state FROM checkouts WHERE id = $1', [id(AWAITS + 50)])).toEqual([
      { state: 'awaiting' },
    ]);
  });

  it('frees credit that an expired checkout had reserved, and keeps what an open one has', async () => {
    const credit = async (n: number) =>
      rows('SELECT spent, reserved, unspent FROM credits WHERE id = $1', [id(n + 50)]);
    expect(await credit(LEFT)).toEqual([{ spent: '0', reserved: '0', unspent: '500' }]);
    expect(await credit(CREDITED)).toEqual([{ spent: '0', reserved: '300', unspent: '200' }]);
    expect(await one(LEFT + 50)).toMatchObject({ state: 'ended' });
  });

  it('remembers of the past what matters later', async () => {
    expect(
      await rows('SELECT track, had_trial, joined_at FROM book_summaries WHERE member_id = $1', [id(WORKS)]),
    ).toEqual([{ track: 'sky', had_trial: false, joined_at: new Date('2027-02-01T00:00:00Z') }]);
  });
});
