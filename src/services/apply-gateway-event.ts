import { z } from 'zod';
import { gatewayById } from '@/gateways';
import { pool } from '@/store/db';
import {
  findGatewayAccount,
  finishGatewayEvent,
  postponeGatewayEvent,
  setHeard,
  type GatewayEventRow,
} from '@/store/gateways';
import { findPaymentByKey } from '@/store/payments';
import { GATEWAY } from './actor';
import { keysOf } from './connect-gateway';
import { recordOutcome } from './record-outcome';

/** A message that speaks of something not known here may only be early; after so many looks it is set aside. */
const MOST_LOOKS = 6;

const payloadSchema = z.object({ type: z.string(), paymentRef: z.string().optional() });

/** Does what a verified message asks for. It is a hint: the payment it speaks of is fetched from the gateway. */
export async function applyGatewayEvent(event: GatewayEventRow): Promise<void> {
  const payload = payloadSchema.parse(event.payload);
  const account = await findGatewayAccount(pool(), event.gatewayAccountId);
  if (!account)
    return finishGatewayEvent(pool(), event.id, 'ignored', 'the gateway is not connected any more');
  if (payload.type === 'ping') {
    await setHeard(pool(), account.id);
    return finishGatewayEvent(pool(), event.id, 'done', 'heard');
  }
  if (!payload.paymentRef)
    return finishGatewayEvent(pool(), event.id, 'ignored', `nothing is done for “${payload.type}”`);

  const found = await gatewayById(account.gateway).findPayment(keysOf(account), { ref: payload.paymentRef });
  if (!found.ok) return waitOrDrop(event, found.reason);
  if (!found.payment)
    return finishGatewayEvent(pool(), event.id, 'ignored', 'the gateway knows no such payment');
  const { payment } = found;
  const ours = await findPaymentByKey(pool(), payment.key);
  if (!ours || ours.gatewayAccountId !== account.id) return waitOrDrop(event, 'no payment here has this key');
  if (ours.state !== 'intent') return finishGatewayEvent(pool(), event.id, 'done', 'recorded before');
  await recordOutcome(
    GATEWAY,
    ours,
    payment.state === 'succeeded'
      ? { state: 'succeeded', ref: payment.ref }
      : { state: 'declined', ref: payment.ref, code: payment.code ?? 'declined' },
  );
  await finishGatewayEvent(pool(), event.id, 'done', `recorded as ${payment.state}`);
}

async function waitOrDrop(event: GatewayEventRow, reason: string): Promise<void> {
  if (event.attempts >= MOST_LOOKS) return finishGatewayEvent(pool(), event.id, 'ignored', reason);
  await postponeGatewayEvent(pool(), event.id, reason, 2 ** event.attempts);
}
