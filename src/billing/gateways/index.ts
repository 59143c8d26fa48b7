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

/** A gateway that is connected in one way; the answer is null where there is none of that id. */
export function gatewayConnectedBy(way: Gateway['connectedBy'], id: string): Gateway | null {
  return allGateways().find((gateway) => gateway.connectedBy === way && gateway.id === id) ?? null;
}

/** The gateway by which people pay by transfer. @throws where there is none */
export function transferGateway(): Gateway {
  const found = allGateways().find((gateway) => gateway.nature === 'transfer');
  if (!found) throw new Error('no gateway adapter takes transfers');
  return found;
}
