import { serveAndSay } from '../lib/http';
import { DunlinWallet } from './server';
import { State } from './state';

/** Usage: dunlin-wallet PORT STATE-FILE */
const [port, file] = process.argv.slice(2);
if (!port || !file) {
  console.error('Dunlin Wallet needs a port and a file to keep its state in.');
  process.exit(1);
}

const state = new State(file);
state.writeAtEnd();
const dunlinWallet = new DunlinWallet(state);
setInterval(() => dunlinWallet.passTime(), 1000).unref();
await serveAndSay('Dunlin Wallet', Number(port), (...asked) => dunlinWallet.handle(...asked));
