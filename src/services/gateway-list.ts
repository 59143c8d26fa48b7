import { pool } from '@/store/db';
import {
  listGatewayAccounts,
  listGatewayEvents,
  type GatewayAccount,
  type GatewayEventRow,
} from '@/store/gateways';
import type { Site } from '@/store/site';
import { reconcile, type Reconciliation } from './reconcile';
import { currentSite } from './site';

export type GatewayLine = {
  account: GatewayAccount;
  reconciliation: Reconciliation;
  refused: GatewayEventRow[];
};

/** The connected gateways, each with its books compared and the messages that were refused lately. */
export async function gatewayList(): Promise<{ accounts: GatewayLine[]; site: Site }> {
  const site = await currentSite();
  const accounts = await Promise.all(
    (await listGatewayAccounts(pool())).map(async (account) => ({
      account,
      reconciliation: await reconcile(account.id),
      refused: await listGatewayEvents(pool(), 5, { accountId: account.id, state: 'refused' }),
    })),
  );
  return { accounts, site };
}
