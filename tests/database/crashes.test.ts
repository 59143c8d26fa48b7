import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { randomUUID } from 'node:crypto';
import { afterEach, describe, expect, it } from 'vitest';
import { nextPeriod } from '../../src/core/offers/schedule';
import { gatewayById } from '../../src/gateways';
import { WORKER } from '../../src/platform/actor';
import { keysOf } from '../../src/services/lib/gateway-account';
import { moveClock } from '../../src/services/move-clock';
import { reconcile } from '../../src/services/lib/reconcile';
import { sweepPayments } from '../../src/services/sweep-payments';
import { pool } from '../../src/platform/store/db';
import { findGatewayAccount } from '../../src/store/gateways';
import { insertJoining } from '../../src/store/joinings';
import { findSubscription, insertPending, setMethod } from '../../src/store/subscriptions';
import { findOffer } from '../../src/store/offers';
import { cardToken } from '../../scripts/lib/stand-ins';
import {
  doAllDue,
  environment,
  join,
  joinInput,
  memberNamed,
  rows,
  subscriptionOf,
  lanternMoor,
  intentFor,
  value,
  joinNew,
  hasJoined,
} from './lantern-moor';

const moor = lanternMoor();
const setSlow = (ms: number) =>
  fetch(`${moor.gatewayUrl}/faults`, { method: 'POST', body: `slowMs=${ms}`, redirect: 'manual' });
const openIntents = async (): Promise<number> =>
  (await rows(`SELECT 1 FROM payments WHERE state = 'intent'`)).length;
const theirs = async (): Promise<number> => {
  const account = await findGatewayAccount(pool(), moor.accountId);
  const listed = account && (await gatewayById(account.gateway).listPayments(keysOf(account)));
  return listed?.ok ? listed.payments.length : -1;
};
const worker = () =>
  spawn(process.execPath, ['--import', 'tsx', 'src/worker/main.ts'], {
    env: { ...process.env, ...environment(moor) },
    stdio: 'ignore',
  });

afterEach(() => setSlow(0));

describe('a worker killed between charge and record', () => {
  it('leaves an intent, and after a restart the books equal the gateway’s: charged once', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    const before = await theirs();
    await setSlow(20_000);
    await moveClock(moor.owner, { days: 15 });
    const first = worker();
    // The gateway has taken the money and has not answered yet: the worst moment there is.
    await expect.poll(theirs, { timeout: 20_000 }).toBe(before + 1);
    first.kill('SIGKILL');
    await once(first, 'exit');
    expect(await openIntents()).toBe(1);
    expect((await subscriptionOf(memberId)).state).toBe('trial');

    await setSlow(0);
    const second = worker();
    await expect.poll(async () => (await subscriptionOf(memberId)).state, { timeout: 20_000 }).toBe('active');
    second.kill('SIGTERM');
    await once(second, 'exit');
    expect(await theirs()).toBe(before + 1);
    expect(await openIntents()).toBe(0);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
  });

  it('before the gateway was asked: the money is asked for after the restart, under the same key', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    await moveClock(moor.owner, { days: 15 });
    const offer = await findOffer(pool(), 'observer-monthly');
    const stored = await findSubscription(pool(), subscription.id);
    const period = nextPeriod(offer!.definition, stored!.startedAt, 'Europe/London', false, stored!.period);
    const intent = await intentFor(stored!, period!, stored!.dueAt!);
    await doAllDue();
    expect((await subscriptionOf(memberId)).state).toBe('active');
    expect(
      await rows('SELECT state FROM payments WHERE idempotency_key = $1', [intent.idempotencyKey]),
    ).toEqual([{ state: 'succeeded' }]);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
  });
});

describe('a web process killed between charge and record of a joining', () => {
  async function halfJoined(charge: boolean): Promise<string> {
    const email = `half-${randomUUID()}@moor.example`;
    const offer = (await findOffer(pool(), 'eclipse-week-once'))!;
    const account = (await findGatewayAccount(pool(), moor.accountId))!;
    const startedAt = new Date().toISOString();
    const pending = await insertPending(pool(), {
      taxCountry: '',
      addedTax: 0,
      memberId: null,
      mode: 'test',
      track: 'eclipse-week',
      offerVersionId: offer.versionId,
      startedAt,
      slot: '',
      skipTrial: false,
      skipFee: false,
      gatewayAccountId: account.id,
    });
    await insertJoining(
      pool(),
      {
        id: randomUUID(),
        subscriptionId: pending.id,
        track: 'eclipse-week',
        mode: 'test',
        memberId: null,
        email,
        name: 'Half Way',
        offerId: offer.id,
        answers: [],
        codeId: null,
        replacesId: null,
        quoteId: null,
        at: startedAt,
        returnTo: '/',
      },
      0,
    );
    const method = await gatewayById('curlew-cards').saveMethod(keysOf(account), {
      token: await cardToken(moor.gatewayUrl, moor.siteKey, 'works'),
      email,
      idempotencyKey: pending.id,
    });
    if (method.state !== 'saved') throw new Error(method.state);
    await setMethod(pool(), pending.id, { ...method, methodLabel: method.label, methodExpires: null });
    const period = nextPeriod(offer.definition, pending.startedAt, 'Europe/London', false, null)!;
    const intent = await intentFor(pending, period, pending.startedAt);
    if (charge) {
      await gatewayById('curlew-cards').charge(keysOf(account), {
        ...method,
        amount: intent.amount,
        currency: 'GBP',
        idempotencyKey: intent.idempotencyKey,
        note: '',
      });
    }
    await new Promise((resolve) => setTimeout(resolve, 2100));
    return email;
  }

  it.each([[true], [false]])(
    'is finished by the sweep (already charged: %s): nobody who paid is shut out',
    async (charged) => {
      const email = await halfJoined(charged);
      expect(await hasJoined(email)).toBe(false);
      value(await sweepPayments(WORKER));
      const member = await memberNamed(email);
      expect(await subscriptionOf(member!.id)).toMatchObject({ state: 'active' });
      expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
    },
  );
});

it('a gateway that does not answer is asked again by the same form, and charged once', async () => {
  const input = await joinInput(moor, 'eclipse-week-once', 'works');
  await setSlow(16_000);
  const before = await theirs();
  const first = await joinNew(input);
  expect(first).toMatchObject({
    ok: false,
    problems: { '': expect.stringContaining('not be charged twice') as string },
  });
  await setSlow(0);
  expect(await joinNew(input)).toMatchObject({ ok: true });
  expect(await theirs()).toBe(before + 1);
});
