import { beforeAll, describe, expect, it, vi } from 'vitest';
import { gatewayMessages } from '../../src/billing/services/gateway-list';
import { plainWords } from '@/words/desk';
import { transferList } from '../../src/billing/services/transfer-list';
import { memberAccount } from '../../src/billing/services/lib/member-account';
import { unfinishedCheckouts } from '../../src/checkout/services/unfinished-checkouts';
import { exportMoney } from '../../src/desk/services/export-money';
import { paymentList, upcomingCharges } from '../../src/desk/services/money-lists';
import { pool } from '../../src/platform/store/db';
import { connectOthers, join, joinInput, joinNew, lanternMoor, rows, value, piecesOf } from './lantern-moor';

const moor = lanternMoor();
const MANY = 1_100;

/** So many members, each with a copy of what one row of a table says. */
const copies = (table: string, of: string, change: string): Promise<unknown[]> =>
  rows(
    `INSERT INTO ${table} SELECT (jsonb_populate_record(t, jsonb_build_object('id', gen_random_uuid(), ${change}))).*
     FROM ${table} t, members m WHERE t.id = $1 AND m.email LIKE 'copy-%'`,
    [of],
  );

/** How many statements something takes. */
async function statementsOf(work: () => Promise<unknown>): Promise<number> {
  const asked = vi.spyOn(pool(), 'query');
  await work();
  const count = asked.mock.calls.length;
  asked.mockRestore();
  return count;
}

let first: { memberId: string; subscription: { id: string } };
let bank: string;

beforeAll(async () => {
  ({ bank } = await connectOthers(moor));
  first = await join(moor, 'observer-monthly', 'works');
  await rows(
    `INSERT INTO members (email, name, joined_at) SELECT 'copy-' || n || '@moor.example', 'Copy ' || n, now() FROM generate_series(1, $1::int) n`,
    [MANY],
  );
  await copies('subscriptions', first.subscription.id, `'member_id', m.id`);
});

describe('a list that is longer than what is shown of it', () => {
  it('says so, and the sum of what falls due counts all of it', async () => {
    const due = value(await upcomingCharges(moor.owner));
    expect(due.rows).toHaveLength(500);
    expect(due.total).toBe(MANY + 1);
    expect(due.sums).toEqual([{ currency: 'GBP', amount: 600 * (MANY + 1), count: MANY + 1 }]);
  });

  it('of unfinished checkouts', async () => {
    const [done] = await rows<{ id: string }>('SELECT id FROM checkouts WHERE member_id = $1', [
      first.memberId,
    ]);
    await copies(
      'checkouts',
      done?.id ?? '',
      `'member_id', m.id, 'email', m.email, 'state', 'open', 'subscription_id', NULL`,
    );
    const listed = value(await unfinishedCheckouts(moor.owner));
    expect([listed.checkouts.length, listed.total]).toEqual([200, MANY]);
    expect(listed.checkouts[0]).toMatchObject({ offerName: 'Monthly', tier: { name: 'Observer' } });
  });

  it('of messages', async () => {
    await rows(
      `INSERT INTO gateway_events (gateway_account_id, message_id, payload, state) SELECT $1, 'copy-' || n, '{}', 'done' FROM generate_series(1, 300) n`,
      [moor.accountId],
    );
    const { rows: shown, total } = value(await gatewayMessages(moor.owner, 'done'));
    expect(shown).toHaveLength(200);
    expect(total).toBeGreaterThanOrEqual(300);
  });
});

describe('an export', () => {
  const exported = async (list: string): Promise<string[]> =>
    piecesOf(value(await exportMoney(moor.owner, { list })).lines);
  const ids = (pieces: string[]): string[] =>
    pieces
      .join('')
      .trim()
      .split('\r\n')
      .slice(1)
      .map((line) => line.split(',')[0] ?? '');

  it('of subscriptions comes in pieces, and has each once', async () => {
    const pieces = await exported('subscriptions');
    // The head, a thousand, and the rest.
    expect(pieces).toHaveLength(3);
    expect(ids(pieces)).toHaveLength(MANY + 1);
    expect(new Set(ids(pieces)).size).toBe(MANY + 1);
  });

  it('has what was there when it began, whatever comes while it is read', async () => {
    await join(moor, 'eclipse-week-once', 'works');
    const { lines } = value(await exportMoney(moor.owner, { list: 'payments' }));
    await lines.next();
    const first = await lines.next();
    await join(moor, 'eclipse-week-once', 'works');
    expect((await lines.next()).done).toBe(true);
    const { total } = value(await paymentList(moor.owner, {}));
    expect(String(first.value).trim().split('\r\n')).toHaveLength(total - 1);
  });

  it('of the ledger adds up to what was received and went back', async () => {
    const [sum] = await rows<{ sum: bigint }>(
      `SELECT (SELECT sum(amount) FROM payments WHERE state = 'succeeded') - (SELECT coalesce(sum(amount), 0) FROM refunds WHERE state = 'succeeded') AS sum`,
    );
    const amounts = (await exported('ledger')).join('').trim().split('\r\n').slice(1);
    const total = amounts.reduce((all, line) => all + Math.round(Number(line.split(',')[4]) * 100), 0);
    expect(total).toBe(Number(sum?.sum));
  });
});

describe('one query for a list, not one for each of its rows', () => {
  it('of unfinished checkouts', async () => {
    expect(await statementsOf(() => unfinishedCheckouts(moor.owner))).toBeLessThan(10);
  });

  it('of transfers', async () => {
    const transfers = () => statementsOf(() => transferList(moor.owner));
    const ask = async (offer: string): Promise<void> => {
      value(await joinNew(await joinInput(moor, offer, null, { accountId: bank })));
    };
    await ask('eclipse-week-once');
    const one = await transfers();
    for (let n = 0; n < 4; n++) await ask('eclipse-week-once');
    expect(value(await transferList(moor.owner)).awaited).toHaveLength(5);
    expect(await transfers()).toBe(one);
  });

  it('of what a member has', async () => {
    const id = first.memberId;
    // What is the same for all is read by the first request, and would be counted here.
    await memberAccount({ id }, plainWords);
    const one = await statementsOf(() => memberAccount({ id }, plainWords));
    for (const slot of ['a', 'b', 'c'])
      await rows(
        `INSERT INTO subscriptions SELECT (jsonb_populate_record(t, jsonb_build_object('id', gen_random_uuid(), 'slot', $2::text))).*
         FROM subscriptions t WHERE t.id = $1`,
        [first.subscription.id, slot],
      );
    expect((await memberAccount({ id }, plainWords)).subscriptions).toHaveLength(4);
    expect(await statementsOf(() => memberAccount({ id }, plainWords))).toBe(one);
  });
});
