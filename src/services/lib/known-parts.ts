import type { GatewayAccount } from '@/store/gateways';
import type { StoredCharge } from '@/store/payments';
import type { Site } from '@/platform/store/site';
import type { StoredSubscription } from '@/store/subscriptions';
import type { Bought } from './terms';

/** What whoever collects knows already, and need not look up again. */
export type Known = {
  site: Site;
  account: GatewayAccount;
  subscription: StoredSubscription;
  charge: StoredCharge;
  bought: Bought;
};
