import { expect, it } from 'vitest';
import { connectGateway } from '../../src/billing/services/connect-gateway';
import { disconnectGateway } from '../../src/billing/services/disconnect-gateway';
import { endSubscription } from '../../src/billing/services/cancel-subscription';
import { gatewayList } from '../../src/billing/services/gateway-list';
import { prepareCheckout } from '../../src/checkout/services/prepare-checkout';
import { OWNER } from '../../scripts/lib/load-demo';
import { readTestKeys } from '../../scripts/lib/stand-ins';
import { VISITOR_ACTOR } from '../../src/platform/actor';
import { join, lanternMoor, rows, value } from './lantern-moor';

const moor = lanternMoor();

it('a gateway says what runs on it, is disconnected once nothing does, and can be connected again', async () => {
  const cards = async () =>
    value(await gatewayList(moor.owner)).accounts.find((one) => one.gateway.nature === 'card');
  const accountId = (await cards())?.account.id;
  const disconnect = () => disconnectGateway(moor.owner, { accountId, password: OWNER.password });
  const { subscription } = await join(moor, 'observer-monthly', 'works');
  expect((await cards())?.inUse).toEqual({ subscriptions: 1, payments: 0, refunds: 0 });
  expect(await disconnect()).toMatchObject({
    problems: { '': { code: 'gateway.in-use', values: { subscriptions: 1 } } },
  });
  value(await endSubscription(moor.owner, subscription.id));
  value(await disconnect());
  expect(await cards()).toBeUndefined();
  expect(await rows('SELECT secret_key_sealed FROM gateway_accounts WHERE id = $1', [accountId])).toEqual([
    { secret_key_sealed: '' },
  ]);
  const page = value(await prepareCheckout(VISITOR_ACTOR, { offerId: 'eclipse-week-once', mode: '' })).page;
  expect(page?.obstacle?.words).toContain('Payments aren’t set up yet');
  const keys = await readTestKeys(moor.gatewayUrl);
  value(await connectGateway(moor.owner, { gateway: 'curlew-cards', ...keys, password: OWNER.password }));
  expect((await cards())?.account.id).toBe(accountId);
});
