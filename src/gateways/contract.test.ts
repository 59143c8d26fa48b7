import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Webhook } from 'standardwebhooks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cardToken, readTestKeys } from '../../scripts/lib/load-demo';
import { freePort } from '../../scripts/lib/ports';
import { untilAnswers } from '../../scripts/lib/stack';
import type { Gateway, Keys } from './contract';
import { curlewCards } from './curlew-cards';

/** What a stand-in offers the contract test besides the contract: tokens of cards that behave in a known way. */
type StandIn = {
  gateway: Gateway;
  keys: Keys;
  token(behaviour: 'works' | 'declined' | 'no-funds' | 'expired' | 'fails-second'): Promise<string>;
};

let folder: string;
let child: ChildProcess;
let standIn: StandIn;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'curlew-'));
  const port = await freePort(4300);
  const url = `http://127.0.0.1:${port}`;
  child = spawn(
    process.execPath,
    ['--import', 'tsx', 'stand-ins/curlew-cards/main.ts', String(port), join(folder, 'state.json')],
    { stdio: 'ignore' },
  );
  await untilAnswers(url, 'Curlew Cards');
  const keys = await readTestKeys(url);
  standIn = {
    gateway: curlewCards(url),
    keys,
    token: (behaviour) => cardToken(url, keys.siteKey, behaviour),
  };
});

afterAll(() => {
  child.kill();
  rmSync(folder, { recursive: true });
});

describe.each([['curlew-cards']])('every gateway: %s', () => {
  const save = async (behaviour: Parameters<StandIn['token']>[0], idempotencyKey: string) =>
    standIn.gateway.saveMethod(standIn.keys, {
      token: await standIn.token(behaviour),
      email: 'maren@moor.example',
      idempotencyKey,
    });
  const charge = (method: { customerRef: string; methodRef: string }, idempotencyKey: string) =>
    standIn.gateway.charge(standIn.keys, {
      ...method,
      amount: 600,
      currency: 'GBP',
      idempotencyKey,
      note: '',
    });
  async function saved(behaviour: Parameters<StandIn['token']>[0], key: string) {
    const method = await save(behaviour, key);
    if (method.state !== 'saved') throw new Error(method.state);
    return method;
  }

  it('knows its own keys, and no others', async () => {
    const { gateway, keys } = standIn;
    expect(gateway.inspectKeys(keys, 'test')).toBeNull();
    expect(gateway.inspectKeys(keys, 'live')?.message).toMatch(/test-mode key/);
    expect(await gateway.checkKeys(keys)).toMatchObject({ ok: true });
    expect(await gateway.checkKeys({ ...keys, secretKey: 'withdrawn' })).toMatchObject({
      ok: false,
      field: 'secretKey',
    });
    expect(await gateway.checkKeys({ ...keys, siteKey: 'another' })).toMatchObject({
      ok: false,
      field: 'siteKey',
    });
  });

  it('charges once for one idempotency key, however often it is asked', async () => {
    const method = await saved('works', 'k1');
    const first = await charge(method, 'sub:0:0:1');
    expect(first).toMatchObject({ state: 'succeeded' });
    expect(await charge(method, 'sub:0:0:1')).toEqual(first);
    const listed = await standIn.gateway.listPayments(standIn.keys);
    expect(listed.ok && listed.payments.filter((payment) => payment.key === 'sub:0:0:1')).toHaveLength(1);
  });

  it.each(['declined', 'no-funds', 'expired'] as const)(
    'says why a card is refused: %s',
    async (behaviour) => {
      expect(await save(behaviour, `k2:${behaviour}`)).toEqual({
        state: 'declined',
        ref: null,
        code: behaviour,
      });
    },
  );

  it('tells of a charge that fails later, and remembers it', async () => {
    const method = await saved('fails-second', 'k3');
    expect((await charge(method, 'sub:1:0:1')).state).toBe('succeeded');
    const second = await charge(method, 'sub:1:1:1');
    expect(second).toMatchObject({ state: 'declined', code: 'no-funds' });
    const found = await standIn.gateway.findPayment(standIn.keys, { key: 'sub:1:1:1' });
    expect(found).toMatchObject({ ok: true, payment: { state: 'declined', amount: 600, currency: 'GBP' } });
    expect(await standIn.gateway.findPayment(standIn.keys, { key: 'never' })).toEqual({
      ok: true,
      payment: null,
    });
  });

  it('will not take a token twice', async () => {
    const token = await standIn.token('works');
    const take = (idempotencyKey: string) =>
      standIn.gateway.saveMethod(standIn.keys, { token, email: 'x@moor.example', idempotencyKey });
    expect((await take('k4')).state).toBe('saved');
    expect(await take('k5')).toMatchObject({ state: 'declined', code: 'bad-token' });
  });

  it('sends signed messages that it can read again, and refuses forged and stale ones', async () => {
    const { gateway, keys } = standIn;
    const heard: { headers: Record<string, string>; body: string }[] = [];
    const ear: Server = createServer((request, response) => {
      let body = '';
      request.on('data', (chunk) => (body += String(chunk)));
      request.on('end', () => {
        heard.push({ headers: request.headers as Record<string, string>, body });
        response.end();
      });
    });
    await new Promise<void>((resolve) => ear.listen(0, '127.0.0.1', resolve));
    const made = await gateway.registerWebhook(
      keys,
      `http://127.0.0.1:${(ear.address() as AddressInfo).port}/`,
    );
    if (!made.ok) throw new Error(made.reason);
    expect((await gateway.requestPing(keys, made.ref)).ok).toBe(true);
    await expect.poll(() => heard.length).toBeGreaterThan(0);
    ear.close();
    const { headers, body } = heard[0]!;
    expect(gateway.readWebhook(made.secret, headers, body)).toMatchObject({
      ok: true,
      payload: { type: 'ping' },
    });
    expect(gateway.readWebhook(made.secret, headers, body.replace('ping', 'pong')).ok).toBe(false);
    expect(gateway.readWebhook(made.secret, { 'webhook-id': 'x' }, body).ok).toBe(false);
    const old = new Date(Date.now() - 20 * 60_000);
    const stale = {
      'webhook-id': 'x',
      'webhook-timestamp': String(Math.floor(old.getTime() / 1000)),
      'webhook-signature': new Webhook(made.secret).sign('x', old, body),
    };
    expect(gateway.readWebhook(made.secret, stale, body).ok).toBe(false);
  });

  it('calls silence unknown, never a refusal', async () => {
    const away = curlewCards('http://127.0.0.1:9');
    expect(
      (
        await away.charge(standIn.keys, {
          customerRef: 'c',
          methodRef: 'm',
          amount: 1,
          currency: 'GBP',
          idempotencyKey: 'k',
          note: '',
        })
      ).state,
    ).toBe('unknown');
    expect((await away.saveMethod(standIn.keys, { token: 't', email: 'e', idempotencyKey: 'k' })).state).toBe(
      'unknown',
    );
    expect((await away.listPayments(standIn.keys)).ok).toBe(false);
    expect(await away.checkKeys(standIn.keys)).toMatchObject({ ok: false, field: null });
  });
});
