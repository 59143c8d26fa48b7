import { VISITOR_ACTOR } from '../../src/platform/actor';
import { randomUUID } from 'node:crypto';
import { Webhook } from 'standardwebhooks';
import { beforeEach, describe, expect, it } from 'vitest';
import { applyGatewayEvent } from '../../src/billing/services/lib/apply-gateway-event';
import { receiveGatewayEvent } from '../../src/billing/services/receive-gateway-event';
import { unseal } from '../../src/platform/seal';
import { pool } from '../../src/platform/store/db';
import { claimGatewayEvents, findGatewayAccount, listGatewayEvents } from '../../src/billing/store/gateways';
import { join, passDays, rows, lanternMoor, value } from './lantern-moor';

const moor = lanternMoor();

async function signed(
  payload: object,
  id = randomUUID() as string,
  at = new Date(),
): Promise<{ headers: Record<string, string>; body: string }> {
  const account = await findGatewayAccount(pool(), moor.accountId);
  const body = JSON.stringify(payload);
  const signature = new Webhook(unseal(account!.webhookSecretSealed!)).sign(id, at, body);
  return {
    body,
    headers: {
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
      'webhook-signature': signature,
    },
  };
}

const receive = async (message: { headers: Record<string, string>; body: string }) =>
  value(await receiveGatewayEvent(VISITOR_ACTOR, { accountId: moor.accountId, ...message }));
const process = async (): Promise<void> => {
  for (const event of await claimGatewayEvents(pool(), 50, 0)) await applyGatewayEvent(event);
};
const snapshot = () =>
  rows(
    `SELECT (SELECT count(*)::int FROM payments) AS payments, (SELECT count(*)::int FROM holdings) AS holdings, (SELECT string_agg(state, ',' ORDER BY id) FROM subscriptions) AS states`,
  );

describe('a message from the gateway', () => {
  beforeEach(() => pool().query('DELETE FROM gateway_events'));

  it('is stored, and a ping shows the webhook as heard', async () => {
    expect(await receive(await signed({ type: 'ping' }))).toBe('stored');
    expect((await findGatewayAccount(pool(), moor.accountId))?.heardAt).toBeNull();
    await process();
    expect((await findGatewayAccount(pool(), moor.accountId))?.heardAt).not.toBeNull();
  });

  it.each<[string, () => Promise<{ headers: Record<string, string>; body: string }>]>([
    ['unsigned', () => Promise.resolve({ headers: { 'webhook-id': 'x' }, body: '{"type":"ping"}' })],
    ['with a stale time', () => signed({ type: 'ping' }, 'old', new Date(Date.now() - 3_600_000))],
    ['from the future', () => signed({ type: 'ping' }, 'new', new Date(Date.now() + 3_600_000))],
    [
      'changed on the way',
      async () => ({ ...(await signed({ type: 'ping' })), body: '{"type":"payment.succeeded"}' }),
    ],
  ])('%s is refused, logged, and changes nothing', async (_, make) => {
    const before = await snapshot();
    expect(await receive(await make())).toBe('refused');
    await process();
    expect(await snapshot()).toEqual(before);
    expect(await listGatewayEvents(pool(), 10, { accountId: moor.accountId })).toMatchObject([
      { state: 'refused' },
    ]);
  });

  it('replayed is known already, and is done once', async () => {
    const message = await signed({ type: 'ping' });
    expect([await receive(message), await receive(message)]).toEqual(['stored', 'known already']);
    await process();
    expect(await receive(message)).toBe('known already');
    expect(await listGatewayEvents(pool(), 10, { accountId: moor.accountId })).toHaveLength(1);
  });

  it('for an unknown account is turned away', async () => {
    const { headers, body } = await signed({ type: 'ping' });
    const message = { accountId: randomUUID(), headers, body };
    expect(value(await receiveGatewayEvent(VISITOR_ACTOR, message))).toBe('unknown account');
  });

  it('for an unknown payment is ignored and logged', async () => {
    const before = await snapshot();
    await receive(await signed({ type: 'payment.succeeded', payment: { id: 'pay_nobody' } }));
    await process();
    expect(await listGatewayEvents(pool(), 10, { accountId: moor.accountId })).toMatchObject([
      { state: 'ignored', result: 'the gateway knows no such payment' },
    ]);
    expect(await snapshot()).toEqual(before);
  });

  it('is only a hint: a payment said to have succeeded is looked up, not believed', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'fails-second');
    await passDays(moor, 15);
    const [paid] = await rows<{ gateway_ref: string }>(
      `SELECT p.gateway_ref FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = $1 AND p.state = 'succeeded'`,
      [subscription.id],
    );
    expect(paid).toBeDefined();
    const before = await snapshot();
    await receive(await signed({ type: 'payment.declined', payment: { id: paid?.gateway_ref } }));
    await process();
    expect(await listGatewayEvents(pool(), 10, { accountId: moor.accountId })).toMatchObject([
      { state: 'done', result: 'known already' },
    ]);
    expect(await snapshot()).toEqual(before);
  });
});
