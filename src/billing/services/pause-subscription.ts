import { gatewayById } from '@/billing/gateways';
import { findSubscription } from '@/billing/store/subscriptions';
import { uuid } from '@/platform/inputs';
import { refusedField } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { ownerOfSubscription as owner } from './lib/owners';
import { findGatewayAccount } from '@/billing/store/gateways';
import { changeSubscription } from './lib/change-subscription';

/** Pauses a subscription from the end of what is paid: no access and no charges until it is resumed. */
export const pauseSubscription = memberUse(
  'pause-subscription',
  uuid,
  async (actor, id) => {
    const found = await findSubscription(pool(), id);
    const account = found?.gatewayAccountId && (await findGatewayAccount(pool(), found.gatewayAccountId));
    const gateway = account && gatewayById(account.gateway);
    return gateway && !gateway.carries.pause
      ? refusedField('', 'wallet.cannot-pause', { gateway: gateway.name })
      : changeSubscription(actor, id, 'pause');
  },
  { owner, staff: 'manage members' },
);

/** Takes a pause back before it has begun; once it has, the next period begins now and is paid for now. */
export const resumeSubscription = memberUse(
  'resume-subscription',
  uuid,
  (actor, id) => changeSubscription(actor, id, 'resume'),
  { owner, staff: 'manage members' },
);
