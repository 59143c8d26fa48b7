import { gatewayById } from '@/gateways';
import { uuid } from '@/platform/inputs';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { findGatewayAccount } from '@/store/gateways';
import { findSubscription } from '@/store/subscriptions';
import { changeSubscription } from './lib/change-subscription';
import { chargeNow } from '@/services/lib/charge-now';
import { ownerOfSubscription as owner } from './lib/owners';

/** Pauses a subscription from the end of what is paid: no access and no charges until it is taken up again. */
export const pauseSubscription = memberUse(
  'pause-subscription',
  uuid,
  (actor, id) =>
    changeSubscription(actor, id, { type: 'pause' }, async (subscription, db) => {
      const { gatewayAccountId } = subscription;
      const account = gatewayAccountId ? await findGatewayAccount(db, gatewayAccountId) : undefined;
      const gateway = account && gatewayById(account.gateway);
      return gateway && !gateway.carries.pause
        ? `${gateway.name} cannot pause what it bills. Cancel it instead; you can join again.`
        : null;
    }),
  { owner, staff: 'manage members' },
);

/** Takes a pause back before it has begun; once it has, the next period begins now and is paid for now. */
export const resumeSubscription = memberUse(
  'resume-subscription',
  uuid,
  async (actor, id) =>
    (await findSubscription(pool(), id))?.state === 'paused'
      ? chargeNow(actor, id, 'resume')
      : changeSubscription(actor, id, { type: 'resume' }),
  { owner, staff: 'manage members' },
);
