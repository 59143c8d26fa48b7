import { mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CurlewCards } from '../../stand-ins/curlew-cards/server';
import { State as CardState } from '../../stand-ins/curlew-cards/state';
import { DunlinWallet } from '../../stand-ins/dunlin-wallet/server';
import { State as WalletState } from '../../stand-ins/dunlin-wallet/state';
import { serve } from '../../stand-ins/lib/http';

const addressOf = (server: Server): string => `http://127.0.0.1:${(server.address() as AddressInfo).port}`;

/** A card gateway and a wallet that know nothing yet, in the process of the test: a process of their own takes a second each. */
export async function standIns(): Promise<{ gatewayUrl: string; walletUrl: string; stop: () => void }> {
  const folder = mkdtempSync(join(tmpdir(), 'nest-key-stand-ins-'));
  const states = [
    new CardState(join(folder, 'cards.json')),
    new WalletState(join(folder, 'wallet.json')),
  ] as const;
  const cards = new CurlewCards(states[0]);
  const wallet = new DunlinWallet(states[1]);
  const servers = await Promise.all([
    serve('Curlew Cards', 0, (...asked) => cards.handle(...asked)),
    serve('Dunlin Wallet', 0, (...asked) => wallet.handle(...asked)),
  ]);
  const timer = setInterval(() => wallet.passTime(), 1000);
  const [gatewayUrl = '', walletUrl = ''] = servers.map(addressOf);
  return {
    gatewayUrl,
    walletUrl,
    stop: () => {
      clearInterval(timer);
      for (const server of servers) {
        server.closeAllConnections();
        server.close();
      }
      for (const state of states) state.close();
      rmSync(folder, { recursive: true });
    },
  };
}
