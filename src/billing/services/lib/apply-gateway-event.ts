import { z } from 'zod';
import { gatewayById } from '@/billing/gateways';
import { pool } from '@/platform/store/db';
import {
  findGatewayAccount,
  finishGatewayEvent,
  postponeGatewayEvent,
  setHeard,
  type GatewayEventRow,
} from '@/billing/store/gateways';
import { keysOf } from './gateway-account';
import { settleAgreementByRef } from '@/billing/services/lib/settle-agreement';
import { syncPayment } from '@/billing/services/lib/sync-payment';

/** A message that speaks of something not known here may only be early; after so many looks it is set aside. */
const MOST_LOOKS = 6;

const payloadSchema = z.object({
  type: z.string(),
  paymentRef: z.string().optional(),
  agreementRef: z.string().optional(),
});

/** Does what a verified message asks for. It is a hint: what it speaks of is fetched from the gateway. */
export async function applyGatewayEvent(event: GatewayEventRow): Promise<void> {
  const payload = payloadSchema.parse(event.payload);
  const account = await findGatewayAccount(pool(), event.gatewayAccountId);
  if (!account) return finishGatewayEvent(pool(), event.id, 'ignored', 'the gateway is no longer connected');
  if (payload.type === 'ping') {
    await setHeard(pool(), account.id);
    return finishGatewayEvent(pool(), event.id, 'done', 'heard');
  }
  if (payload.agreementRef) {
    const result = await settleAgreementByRef(account, payload.agreementRef);
    return result === null
      ? waitOrDrop(event, 'nobody here has this agreement')
      : finishGatewayEvent(pool(), event.id, 'done', result);
  }
  if (!payload.paymentRef)
    return finishGatewayEvent(pool(), event.id, 'ignored', `nothing is done for “${payload.type}”`);
  const found = await gatewayById(account.gateway).findPayment(keysOf(account), { ref: payload.paymentRef });
  if (!found.ok) return waitOrDrop(event, found.reason);
  if (!found.payment)
    return finishGatewayEvent(pool(), event.id, 'ignored', 'the gateway knows no such payment');
  const result = await syncPayment(account, found.payment);
  return result === null
    ? waitOrDrop(event, 'no payment here is this one')
    : finishGatewayEvent(pool(), event.id, 'done', result);
}

async function waitOrDrop(event: GatewayEventRow, reason: string): Promise<void> {
  if (event.attempts >= MOST_LOOKS) return finishGatewayEvent(pool(), event.id, 'ignored', reason);
  await postponeGatewayEvent(pool(), event.id, reason, 2 ** event.attempts);
}
