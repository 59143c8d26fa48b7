import { config } from '@/config';
import type { Gateway } from './contract';
import { curlewCards } from './curlew-cards';

/** Every gateway that Nest Key can speak to. A new one is added here. */
const GATEWAYS: Record<string, () => Gateway> = {
  'curlew-cards': () => curlewCards(config().CURLEW_CARDS_URL),
};

/** @throws where no adapter has the id */
export function gatewayById(id: string): Gateway {
  const make = GATEWAYS[id];
  if (!make) throw new Error(`no gateway adapter is called “${id}”`);
  return make();
}

/** The origins whose pages may be framed at checkout. */
export function frameOrigins(): string[] {
  return [new URL(config().CURLEW_CARDS_URL).origin];
}
