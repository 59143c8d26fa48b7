import { config } from '@/platform/config';
import { bankTransfer } from './bank-transfer';
import type { Gateway } from './contract';
import { curlewCards } from './curlew-cards';
import { dunlinWallet } from './dunlin-wallet';

/** Every gateway that Nest Key can speak to, in the order in which they are offered. A new one is added here. */
const GATEWAYS: Record<string, () => Gateway> = {
  'curlew-cards': () => curlewCards(config().CURLEW_CARDS_URL),
  'dunlin-wallet': () => dunlinWallet(config().DUNLIN_WALLET_URL),
  'bank-transfer': bankTransfer,
};

export function allGateways(): Gateway[] {
  return Object.values(GATEWAYS).map((make) => make());
}

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
