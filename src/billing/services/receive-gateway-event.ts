import { gatewayById } from '@/billing/gateways';
import { pool } from '@/platform/store/db';
import { findGatewayAccount, insertGatewayEvent } from '@/billing/store/gateways';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { unseal } from '@/platform/seal';
import { z } from 'zod';
import { publicUse } from '@/platform/use';
import { uuid } from '@/platform/inputs';
import { done } from '@/platform/result';

export type Reception = 'stored' | 'known already' | 'refused' | 'unknown account';

/** Refused messages are kept to be looked at, but nobody can fill the database with them. */
const REFUSALS: Limit = { name: 'webhook:refused', points: 100, seconds: 3600 };

/** Verifies a gateway's message and stores it for the worker. Nothing else happens here, so the answer is at once. */
async function receive({ accountId, headers, body }: z.output<typeof inputSchema>): Promise<Reception> {
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return 'unknown account';
  const reading = account.webhookSecretSealed
    ? gatewayById(account.gateway).readWebhook(unseal(account.webhookSecretSealed), headers, body)
    : { ok: false as const, reason: 'no webhook is registered for this account' };
  if (!reading.ok) {
    if ((await spendPoint(REFUSALS, accountId)) === 0) {
      const messageId = (headers['webhook-id'] ?? 'without an id').slice(0, 200);
      await insertGatewayEvent(pool(), {
        gatewayAccountId: accountId,
        messageId,
        payload: { unread: body.slice(0, 2000) },
        state: 'refused',
        result: reading.reason,
      });
    }
    return 'refused';
  }
  const added = await insertGatewayEvent(pool(), {
    gatewayAccountId: accountId,
    messageId: reading.messageId,
    payload: reading.payload,
    state: 'new',
    result: '',
  });
  return added ? 'stored' : 'known already';
}

const inputSchema = z.object({
  accountId: uuid,
  headers: z.record(z.string(), z.string()),
  body: z.string(),
});

export const receiveGatewayEvent = publicUse('receive-gateway-event', inputSchema, async (_, message) =>
  done(await receive(message)),
);
