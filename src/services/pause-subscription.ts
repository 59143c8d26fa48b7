import { gatewayById } from '@/gateways';
import { findGatewayAccount } from '@/store/gateways';
import type { Actor } from './actor';
import { changeSubscription } from './change-subscription';
import { chargeNow } from './charge-now';
import { pool } from '@/store/db';
import { findSubscription } from '@/store/subscriptions';
import type { Result } from './result';

/** Pauses a subscription from the end of what is paid: no access and no charges until it is taken up again. */
export function pauseSubscription(actor: Actor, id: string): Promise<Result<null>> {
  return changeSubscription(actor, id, { type: 'pause' }, async (subscription, db) => {
    const { gatewayAccountId } = subscription;
    const account = gatewayAccountId ? await findGatewayAccount(db, gatewayAccountId) : undefined;
    const gateway = account && gatewayById(account.gateway);
    return gateway && !gateway.carries.pause
      ? `${gateway.name} cannot pause what it bills. Cancel it instead; you can join again.`
      : null;
  });
}

/** Takes a pause back before it has begun; once it has, the next period begins now and is paid for now. */
export async function resumeSubscription(actor: Actor, id: string): Promise<Result<null>> {
  const subscription = await findSubscription(pool(), id);
  return subscription?.state === 'paused'
    ? chargeNow(actor, id, 'resume')
    : changeSubscription(actor, id, { type: 'resume' });
}
