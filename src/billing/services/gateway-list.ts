import type { Instant } from '@/core/instants';
import { allGateways, gatewayById } from '@/billing/gateways';
import type { Gateway } from '@/billing/gateways/contract';
import { pool } from '@/platform/store/db';
import {
  findComparison,
  type Comparison,
  countGatewayEvents,
  countOnAccount,
  listGatewayAccounts,
  listGatewayEvents,
  type GatewayAccount,
  type GatewayEventRow,
} from '@/billing/store/gateways';
import type { Site } from '@/platform/store/site';
import { webhookAddress } from './lib/gateway-account';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { z } from 'zod';

export type { Gateway };

export type GatewayLine = {
  account: GatewayAccount;
  gateway: Gateway;
  /** Null before its books were first compared with the gateway's. */
  books: { comparison: Comparison; comparedAt: Instant } | null;
  /** What still needs it, and so prevents disconnecting it. */
  inUse: { subscriptions: number; payments: number; refunds: number };
  /** Where its messages go; null where it sends none. */
  address: string | null;
};

/** The connected gateways, those of the site's mode first, each with how its books compared last, and those that can be connected. */
async function listGateways(): Promise<{ accounts: GatewayLine[]; all: Gateway[]; site: Site }> {
  const site = await currentSite();
  const own = (await listGatewayAccounts(pool())).sort(
    (a, b) => Number(b.mode === site.mode) - Number(a.mode === site.mode),
  );
  const accounts = await Promise.all(
    own.map(async (account) => {
      const gateway = gatewayById(account.gateway);
      return {
        account,
        gateway,
        books: await findComparison(pool(), account.id),
        inUse: await countOnAccount(pool(), account.id),
        address: gateway.hasWebhooks ? webhookAddress(account.id) : null,
      };
    }),
  );
  return { accounts, all: allGateways(), site };
}

const MOST_MESSAGES = 200;

/** What gateways have told the site in its mode, newest first, each with the label of its account. */
async function listMessages(
  state: string,
): Promise<{ rows: (GatewayEventRow & { label: string })[]; total: number; zone: string }> {
  const site = await currentSite();
  const narrowed = { mode: site.mode, state: state || null };
  const rows = await listGatewayEvents(pool(), MOST_MESSAGES, narrowed);
  const labels = new Map((await listGatewayAccounts(pool())).map(({ id, label }) => [id, label]));
  return {
    rows: rows.map((row) => ({ ...row, label: labels.get(row.gatewayAccountId) ?? '' })),
    total: await countGatewayEvents(pool(), narrowed),
    zone: site.zone,
  };
}

export const gatewayList = staffUse('see money')('gateway-list', nothing, async () =>
  done(await listGateways()),
);

export const gatewayMessages = staffUse('see money')(
  'gateway-messages',
  z.string().max(20),
  async (_, state) => done(await listMessages(state)),
);
