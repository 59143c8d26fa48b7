import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { Webhook } from 'standardwebhooks';
import { isPrivateAddress, postWebhook } from '../../src/billing/services/lib/post-webhook';
import { sendWebhooks } from '../../src/billing/services/send-webhooks';
import {
  addWebhook,
  changeWebhook,
  removeWebhook,
  sendWebhookAgain,
  webhookLog,
  webhooksPlace,
} from '../../src/billing/services/webhooks';
import { config } from '../../src/platform/config';
import { WORKER } from '../../src/platform/actor';
import { join, lanternMoor, passDays, rows, value } from './lantern-moor';

type Heard = { headers: IncomingMessage['headers']; body: string };
type Told = {
  type: string;
  data: { member: { id: string }; subscription: { tier: string; offer: string; state: string } };
};

const moor = lanternMoor();
const heard: Heard[] = [];
let answer = 200;
let url = '';
const receiver = createServer((request, response) => {
  let body = '';
  request.on('data', (piece: Buffer) => (body += piece.toString()));
  request.on('end', () => {
    heard.push({ headers: request.headers, body });
    response.writeHead(answer, answer === 302 ? { location: '/elsewhere' } : {}).end();
  });
});

beforeAll(async () => {
  await new Promise<void>((resolve) => receiver.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(receiver.address() as AddressInfo).port}/hook`;
});
afterAll(() => receiver.close());
beforeEach(async () => {
  heard.length = 0;
  answer = 200;
  await rows('DELETE FROM webhooks');
});

const ALL = ['joined', 'paid', 'failed', 'switched', 'refunded', 'ended'];
const add = async (more: object = {}) =>
  value(await addWebhook(moor.owner, { url, topics: ALL, tiers: [], ...more }));
const send = async () => value(await sendWebhooks(WORKER));
const told = (): Told[] => heard.map(({ body }) => JSON.parse(body) as Told);
const log = async (id: string) => value(await webhookLog(moor.owner, { id })).rows;
const again = () => rows(`UPDATE webhook_messages SET next_attempt_at = now() WHERE state = 'waiting'`);

describe('a webhook', () => {
  it('is told only of what it asked for, of the tiers that it named, and in its own mode', async () => {
    await add({ topics: ['joined'], tiers: ['eclipse-week'] });
    await join(moor, 'observer-monthly', 'works');
    await join(moor, 'eclipse-week-once', 'works');
    await rows(`UPDATE webhooks SET mode = 'live'`);
    await join(moor, 'eclipse-week-once', 'works');
    await send();
    expect(told().map(({ type, data }) => [type, data.subscription.tier])).toEqual([
      ['subscription.joined', 'eclipse-week'],
    ]);
  });

  it('that does not take a message gets it again, with the same id, until it does', async () => {
    const { id } = await add({ topics: ['joined'] });
    await join(moor, 'eclipse-week-once', 'works');
    answer = 500;
    await send();
    expect(await send()).toBe(0);
    expect(await log(id)).toMatchObject([{ state: 'waiting', attempts: 1, answer: '500' }]);
    expect(value(await webhooksPlace(moor.owner)).webhooks[0]?.failingSince).not.toBeNull();
    answer = 302;
    await again();
    await send();
    expect(await log(id)).toMatchObject([{ state: 'waiting', attempts: 2, answer: '302' }]);
    answer = 204;
    await again();
    await send();
    expect(await log(id)).toMatchObject([{ state: 'sent', attempts: 3, answer: '204' }]);
    expect(value(await webhooksPlace(moor.owner)).webhooks[0]?.failingSince).toBeNull();
    expect(new Set(heard.map(({ headers }) => headers['webhook-id'])).size).toBe(1);
  });

  it('is given up after the last try, and sent again by hand', async () => {
    const { id } = await add({ topics: ['joined'], url: 'http://127.0.0.1:9/closed' });
    await join(moor, 'eclipse-week-once', 'works');
    await rows(`UPDATE webhook_messages SET attempts = 9`);
    await send();
    const [message] = await log(id);
    expect(message).toMatchObject({ state: 'failed', attempts: 10 });
    expect(message?.answer).toMatch(/ECONNREFUSED/);
    value(await changeWebhook(moor.owner, { id, url, topics: ['joined'], tiers: [], isOn: true }));
    value(await sendWebhookAgain(moor.owner, message?.id));
    expect((await sendWebhookAgain(moor.owner, message?.id)).ok).toBe(false);
    await send();
    expect(await log(id)).toMatchObject([{ state: 'sent', attempts: 1 }]);
  });

  it('gets each message once from workers that send side by side, and none while it is off', async () => {
    const { id } = await add({ topics: ['joined'] });
    for (let n = 0; n < 3; n++) await join(moor, 'eclipse-week-once', 'works');
    await changeWebhook(moor.owner, { id, url, topics: ['joined'], tiers: [], isOn: false });
    expect(await send()).toBe(0);
    await join(moor, 'eclipse-week-once', 'works');
    await changeWebhook(moor.owner, { id, url, topics: ['joined'], tiers: [], isOn: true });
    await Promise.all([send(), send(), send()]);
    // What happened while it was off was never meant for it; what waited is sent.
    expect(heard).toHaveLength(3);
    expect(new Set(heard.map(({ headers }) => headers['webhook-id'])).size).toBe(3);
    value(await removeWebhook(moor.owner, id));
    expect(await rows('SELECT 1 FROM webhook_messages')).toEqual([]);
  });

  it('is told, signed, of who joins and pays, and of what ends; its secret is shown once', async () => {
    const { secret } = await add();
    expect(JSON.stringify(value(await webhooksPlace(moor.owner)))).not.toContain(secret);
    const { memberId } = await join(moor, 'eclipse-week-once', 'works');
    await passDays(moor, 400);
    while (await send());
    const theirs = told().filter(({ data }) => data.member.id === memberId);
    expect(theirs.map(({ type }) => type).sort()).toEqual([
      'subscription.ended',
      'subscription.joined',
      'subscription.paid',
    ]);
    for (const { headers, body } of heard) {
      const named = Object.fromEntries(Object.entries(headers).map(([name, text]) => [name, String(text)]));
      expect(() => new Webhook(secret).verify(body, named)).not.toThrow();
      expect(() => new Webhook(secret).verify(body.replace('subscription', 'prescription'), named)).toThrow();
    }
    const paid = theirs.find(({ type }) => type === 'subscription.paid');
    expect(paid?.data).toMatchObject({
      mode: 'test',
      member: { id: memberId },
      subscription: { tier: 'eclipse-week', offer: 'eclipse-week-once' },
      payment: { amount: 2500, currency: 'GBP' },
    });
    heard.length = 0;
    expect(await send()).toBe(0);
    expect(heard).toEqual([]);
  });
});

describe('an address', () => {
  it('must be one outside: not inside a network, by number or by name', async () => {
    for (const address of [
      '127.0.0.1',
      '10.1.2.3',
      '192.168.1.1',
      '169.254.169.254',
      '::1',
      'fd00::1',
      '::ffff:10.0.0.1',
    ])
      expect([address, isPrivateAddress(address)]).toEqual([address, true]);
    for (const address of ['93.184.215.14', '2606:2800:220:1::1'])
      expect([address, isPrivateAddress(address)]).toEqual([address, false]);
    config().WEBHOOKS_TO_OWN_MACHINE = 'no';
    try {
      for (const inside of [url, url.replace('127.0.0.1', 'localhost'), url.replace('127.0.0.1', '[::1]')])
        await expect(postWebhook(inside, {}, '{}')).rejects.toThrow('inside of a network');
      expect(await addWebhook(moor.owner, { url, topics: ALL, tiers: [] })).toMatchObject({
        problems: { url: { code: 'webhook.url' } },
      });
    } finally {
      config().WEBHOOKS_TO_OWN_MACHINE = 'yes';
    }
    expect(heard).toEqual([]);
    expect(await addWebhook(moor.owner, { url, topics: [], tiers: [] })).toMatchObject({
      problems: { topics: { code: 'webhook.no-topics' } },
    });
  });
});
