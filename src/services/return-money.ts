import { config } from '@/config';
import { gatewayById } from '@/gateways';
import { listStray, markReturned } from '@/store/agreements';
import { pool } from '@/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { listOpenRefunds } from '@/store/refunds';
import { WORKER } from './actor';
import { siteNow } from './clock';
import { keysOf } from './connect-gateway';
import { record } from './record';
import { collectRefund } from './refund-payment';
import { currentSite } from './site';

/** Settles refunds that a crash or silence left open, and returns money that belongs to nothing that runs. */
export async function returnMoney(): Promise<number> {
  const refunds = await listOpenRefunds(pool(), config().LEASE_SECONDS, 20);
  for (const refund of refunds) await collectRefund(WORKER, refund);
  const stray = await listStray(pool(), null, true, 20);
  const site = await currentSite();
  for (const money of stray) {
    const account = await findGatewayAccount(pool(), money.gatewayAccountId);
    if (!account) continue;
    const outcome = await gatewayById(account.gateway).refund(keysOf(account), {
      paymentRef: money.gatewayRef,
      amount: money.amount,
      idempotencyKey: `stray:${money.id}`,
    });
    if (outcome.state !== 'succeeded') continue;
    await markReturned(pool(), money.id);
    const subject = money.subscriptionId ? `subscription:${money.subscriptionId}` : `gateway:${account.id}`;
    await record(pool(), WORKER, siteNow(site, money.mode), 'stray money returned', subject, {
      amount: money.amount,
      currency: money.currency,
    });
  }
  return refunds.length;
}
