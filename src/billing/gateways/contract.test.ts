import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Webhook } from 'standardwebhooks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { approveAtWallet, cardToken, consentOf, readTestKeys } from '../../../scripts/lib/stand-ins';
import { Stack } from '../../../scripts/lib/stack';
import { bankTransfer } from './bank-transfer';
import type { ChargeOutcome, Gateway, GatewayPayment, Keys } from './contract';
import { curlewCards } from './curlew-cards';
import { dunlinWallet } from './dunlin-wallet';

const NOW = '2027-01-31T12:00:00Z';

/** What a gateway's own side does beside the contract: a payer pays, well or badly. */
type Driver = {
  gateway: Gateway;
  away: Gateway;
  keys: Keys;
  /** One payment of 6.00, asked for twice under one key. */
  pays(key: string, how: 'well' | 'badly'): Promise<{ outcome: ChargeOutcome; payments: GatewayPayment[] }>;
};

const stack = new Stack('gateways-test');
const drivers: Partial<Record<'curlew-cards' | 'dunlin-wallet' | 'bank-transfer', Driver>> = {};

const money = (idempotencyKey: string) => ({ amount: 600, currency: 'GBP', idempotencyKey, note: '' });

beforeAll(async () => {
  const [cards, wallet] = [
    await stack.standIn('curlew-cards', 4300),
    await stack.standIn('dunlin-wallet', 4310),
  ];
  const [card, keys] = [curlewCards(cards), await readTestKeys(cards)];
  drivers['curlew-cards'] = {
    gateway: card,
    away: curlewCards('http://127.0.0.1:9'),
    keys,
    async pays(key, how) {
      const token = await cardToken(cards, keys.siteKey, 'fails-second');
      const method = await card.saveMethod(keys, { token, email: 'maren@moor.example', idempotencyKey: key });
      if (method.state !== 'saved') throw new Error(method.state);
      if (how === 'badly') await card.charge(keys, { ...method, ...money(`${key}:before`) });
      await card.charge(keys, { ...method, ...money(key) });
      const outcome = await card.charge(keys, { ...method, ...money(key) });
      const all = await card.listPayments(keys);
      return { outcome, payments: all.ok ? all.payments.filter((payment) => payment.key === key) : [] };
    },
  };
  const purse = dunlinWallet(wallet);
  const consented = await purse.keysFromConsent(await consentOf(purse, 'test'));
  if (!consented.ok) throw new Error(consented.reason);
  drivers['dunlin-wallet'] = {
    gateway: purse,
    away: dunlinWallet('http://127.0.0.1:9'),
    keys: consented.keys,
    async pays(key, how) {
      const outcome = await purse.charge(consented.keys, { customerRef: '', methodRef: '', ...money(key) });
      await purse.setRehearsalTime(consented.keys, NOW);
      for (let twice = 0; twice < 2; twice++) {
        const begun = await purse.beginAgreement(consented.keys, {
          currency: 'GBP',
          zone: 'Europe/London',
          startsAt: NOW,
          stages: [{ amount: 600, first: 600, every: { n: 1, unit: 'month' }, times: null }],
          takesUp: null,
          retryDays: [1],
          returnUrl: wallet,
          note: key,
          idempotencyKey: key,
        });
        if (!begun.ok) throw new Error(begun.reason);
        await approveAtWallet(begun.agreement.approveUrl, how === 'well' ? 'full' : 'empty');
        const listed = await purse.listPayments(consented.keys, begun.agreement.ref);
        if (twice) return { outcome, payments: listed.ok ? listed.payments : [] };
      }
      throw new Error('never');
    },
  };
  const bank = bankTransfer();
  drivers['bank-transfer'] = {
    gateway: bank,
    away: bank,
    keys: { siteKey: 'test 10-20-30 1234', secretKey: '' },
    pays: async (key) => ({
      outcome: await bank.charge(drivers['bank-transfer']!.keys, {
        customerRef: '',
        methodRef: '',
        ...money(key),
      }),
      payments: [],
    }),
  };
});

afterAll(() => stack.stop());

describe.each(['curlew-cards', 'dunlin-wallet', 'bank-transfer'] as const)('every gateway: %s', (id) => {
  const driver = (): Driver => drivers[id]!;
  const hasCalls = id !== 'bank-transfer';

  it('says what it is, what it can carry and how it is connected', () => {
    const { gateway } = driver();
    expect(gateway).toMatchObject({ id, hasWebhooks: hasCalls });
    expect(gateway.carries.units.length).toBeGreaterThan(0);
    expect(
      gateway.consentUrl({ back: 'http://x.example', state: 's', mode: 'test', siteName: 'Fern Club' }) !==
        null,
    ).toBe(gateway.connectedBy === 'consent');
    expect(gateway.frame('site', 'http://x.example') !== null).toBe(gateway.nature === 'card');
  });

  it('knows its own keys, and no others', async () => {
    const { gateway, keys } = driver();
    expect(gateway.inspectKeys(keys, 'test')).toBeNull();
    expect(await gateway.checkKeys(keys)).toMatchObject({ ok: true });
    if (!hasCalls) return;
    expect(gateway.inspectKeys(keys, 'live')).not.toBeNull();
    expect(await gateway.checkKeys({ ...keys, secretKey: 'withdrawn' })).toMatchObject({
      ok: false,
      field: 'secretKey',
    });
    expect(await gateway.checkKeys({ ...keys, siteKey: 'another' })).toMatchObject({
      ok: false,
      field: 'siteKey',
    });
  });

  it('takes money once for one key, however often it is asked, and says that it did', async () => {
    const { gateway, keys } = driver();
    const { outcome, payments } = await driver().pays('sub:0:0:1', 'well');
    expect(outcome.state).toBe(gateway.nature === 'card' ? 'succeeded' : 'awaited');
    if (!hasCalls) return;
    expect(payments).toMatchObject([
      { state: 'succeeded', amount: 600, currency: 'GBP', refunds: [], dispute: null },
    ]);
    const found = await gateway.findPayment(keys, { ref: payments[0]!.ref });
    expect(found).toEqual({ ok: true, payment: payments[0] });
  });

  it('says why money did not come', async () => {
    const { payments } = await driver().pays('sub:1:0:1', 'badly');
    expect(payments).toMatchObject(hasCalls ? [{ state: 'declined', code: 'no-funds' }] : []);
  });

  it('refunds part and the rest, once for a key, and never more than came', async () => {
    const { gateway, keys } = driver();
    const { payments } = await driver().pays('sub:2:0:1', 'well');
    const paymentRef = payments[0]?.ref ?? 'none';
    const back = (amount: number, idempotencyKey: string) =>
      gateway.refund(keys, { paymentRef, amount, idempotencyKey });
    if (!gateway.carries.refund) return expect(await back(100, 'r1')).toEqual({ state: 'by-hand' });
    const first = await back(250, 'r1');
    expect(first.state).toBe('succeeded');
    expect(await back(250, 'r1')).toEqual(first);
    expect((await back(351, 'r2')).state).toBe('refused');
    expect((await back(350, 'r3')).state).toBe('succeeded');
    const found = await gateway.findPayment(keys, { ref: paymentRef });
    expect(found.ok && found.payment?.refunds.map(({ key, amount }) => [key, amount])).toEqual([
      ['r1', 250],
      ['r3', 350],
    ]);
  });

  it('sends signed messages that it can read again, and refuses forged and stale ones', async () => {
    const { gateway, keys } = driver();
    if (!hasCalls)
      return expect((await gateway.registerWebhook(keys, 'http://x.example', 'Fern Club')).ok).toBe(false);
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
    const address = `http://127.0.0.1:${(ear.address() as AddressInfo).port}/`;
    const made = await gateway.registerWebhook(keys, address, 'Fern Club');
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
    const { away, keys } = driver();
    const asked = await away.refund(keys, { paymentRef: 'p', amount: 1, idempotencyKey: 'k' });
    expect(asked.state).toBe(hasCalls ? 'unknown' : 'by-hand');
    if (!hasCalls) return;
    expect((await away.listPayments(keys)).ok).toBe(false);
    expect(await away.checkKeys(keys)).toMatchObject({ ok: false, field: null });
    const charged = await away.charge(keys, { customerRef: 'c', methodRef: 'm', ...money('k') });
    expect(charged.state).toBe(away.nature === 'card' ? 'unknown' : 'awaited');
  });
});

describe('a card', () => {
  it.each(['declined', 'no-funds', 'expired'] as const)('that is refused says why: %s', async (behaviour) => {
    const { gateway, keys } = drivers['curlew-cards']!;
    const token = await cardToken(gateway.frame('', '')!.origin, keys.siteKey, behaviour);
    const take = () =>
      gateway.saveMethod(keys, { token, email: 'x@moor.example', idempotencyKey: behaviour });
    expect(await take()).toEqual({ state: 'declined', ref: null, code: behaviour });
  });

  it('that asks for confirmation is not kept without it; a token is taken once', async () => {
    const { gateway, keys } = drivers['curlew-cards']!;
    const { origin } = gateway.frame('', '')!;
    const take = (token: string, idempotencyKey: string) =>
      gateway.saveMethod(keys, { token, email: 'x@moor.example', idempotencyKey });
    const asks = await cardToken(origin, keys.siteKey, 'asks');
    expect(await take(asks, 'c1')).toMatchObject({ state: 'declined', code: 'needs-confirmation' });
    const confirmed = await cardToken(origin, keys.siteKey, 'asks');
    await fetch(`${origin}/frame/confirm`, { method: 'POST', body: JSON.stringify({ token: confirmed }) });
    expect((await take(confirmed, 'c2')).state).toBe('saved');
    expect(await take(confirmed, 'c3')).toMatchObject({ state: 'declined', code: 'bad-token' });
  });
});

describe('a wallet', () => {
  it('bills by itself on our calendar, tries again as it was told, and stops when it is told to', async () => {
    const { gateway, keys } = drivers['dunlin-wallet']!;
    const begun = await gateway.beginAgreement(keys, {
      currency: 'GBP',
      zone: 'Europe/London',
      startsAt: '2027-01-31T12:00:00Z',
      stages: [
        { amount: 0, first: 0, every: { n: 14, unit: 'day' }, times: 1 },
        { amount: 600, first: 1600, every: { n: 1, unit: 'month' }, times: null },
      ],
      takesUp: null,
      retryDays: [1, 3],
      returnUrl: 'http://x.example',
      note: 'two stages',
      idempotencyKey: 'two-stages',
    });
    if (!begun.ok) throw new Error(begun.reason);
    const { ref, approveUrl } = begun.agreement;
    await approveAtWallet(approveUrl, 'fills-up');
    await gateway.setRehearsalTime(keys, '2027-04-20T12:00:00Z');
    const bills = async () => {
      const listed = await gateway.listPayments(keys, ref);
      return listed.ok ? listed.payments.map(({ at, amount, state }) => `${at} ${amount} ${state}`) : [];
    };
    expect(await bills()).toEqual([
      '2027-02-14T12:00:00Z 1600 succeeded',
      '2027-03-14T12:00:00Z 600 declined',
      '2027-03-15T12:00:00Z 600 succeeded',
      '2027-04-14T11:00:00Z 600 succeeded',
    ]);
    await gateway.endAgreement(keys, ref);
    expect(await gateway.findAgreement(keys, ref)).toMatchObject({ ok: true, agreement: { state: 'ended' } });
    await gateway.setRehearsalTime(keys, '2027-08-20T12:00:00Z');
    expect(await bills()).toHaveLength(4);
  });
});
