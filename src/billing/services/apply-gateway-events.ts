import { config } from '@/platform/config';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { claimGatewayEvents, postponeGatewayEvent } from '@/billing/store/gateways';
import { applyGatewayEvent } from './lib/apply-gateway-event';

export type EventTrouble = { event: string; error: unknown };

/** Does what the gateways' waiting messages ask for. One that fails is put off, and holds up no other. */
export const applyGatewayEvents = systemUse('apply-gateway-events', nothing, async () => {
  const events = await claimGatewayEvents(pool(), 20, config().LEASE_SECONDS);
  const troubles: EventTrouble[] = [];
  for (const event of events) {
    try {
      await applyGatewayEvent(event);
    } catch (error) {
      troubles.push({ event: event.id, error });
      await postponeGatewayEvent(pool(), event.id, String(error), 30);
    }
  }
  return done({ count: events.length, troubles });
});
