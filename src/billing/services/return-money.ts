import { config } from '@/platform/config';
import { gatewayById } from '@/billing/gateways';
import { listStray, markReturned, type StrayPayment } from '@/billing/store/agreements';
import { pool, transaction } from '@/platform/store/db';
import { findGatewayAccount, type GatewayAccount } from '@/billing/store/gateways';
import { listOpenRefunds } from '@/billing/store/subscription-work';
import { WORKER } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { keysOf } from './lib/gateway-account';
import { record } from '@/platform/record';
import { giveBack } from './lib/give-back';
import { openBook } from './lib/open-book';
import { currentSite } from '@/platform/site';
import { systemUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';

/** Settles refunds that a crash or silence left open, and returns money that belongs to nothing that runs. */
async function returnAll(): Promise<number> {
  const site = await currentSite();
  const refunds = await listOpenRefunds(pool(), config().LEASE_SECONDS, 20);
  for (const refund of refunds) {
    const { stored } = await transaction((db) =>
      openBook(db, site, WORKER, refund, { refunds: [refund.id] }),
    );
    await giveBack(WORKER, site, stored, refund.id);
  }
  const stray = await listStray(pool(), null, true, 20);
  for (const money of stray) {
    const account = await findGatewayAccount(pool(), money.gatewayAccountId);
    if (!account) continue;
    if (!(await sendBack(account, money))) continue;
    await markReturned(pool(), money.id);
    const subject = money.subscriptionId ? `subscription:${money.subscriptionId}` : `gateway:${account.id}`;
    await record(pool(), WORKER, siteNow(site, money.mode), 'stray money returned', subject, {
      amount: money.amount,
      currency: money.currency,
    });
  }
  return refunds.length;
}

/** True once nothing of it is left with us: refunded now, or at the gateway before, or taken by a dispute. */
async function sendBack(account: GatewayAccount, { id, gatewayRef, amount }: StrayPayment): Promise<boolean> {
  const [gateway, keys] = [gatewayById(account.gateway), keysOf(account)];
  const found = await gateway.findPayment(keys, { ref: gatewayRef });
  if (!found.ok || !found.payment) return false;
  const { refunds, dispute } = found.payment;
  const left = amount - refunds.reduce((sum, refund) => sum + refund.amount, 0);
  if (left <= 0 || dispute === 'lost') return true;
  const asked = { paymentRef: gatewayRef, amount: left, idempotencyKey: `stray:${id}` };
  return (await gateway.refund(keys, asked)).state === 'succeeded';
}

export const returnMoney = systemUse('return-money', nothing, async () => done(await returnAll()));
