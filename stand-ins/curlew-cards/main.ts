import { serveAndSay } from '../lib/http';
import { CurlewCards } from './server';
import { State } from './state';

/** Usage: curlew-cards PORT STATE-FILE */
const [port, file] = process.argv.slice(2);
if (!port || !file) {
  console.error('Curlew Cards needs a port and a file to keep its state in.');
  process.exit(1);
}

const state = new State(file);
state.writeAtEnd();
const curlewCards = new CurlewCards(state);
await serveAndSay('Curlew Cards', Number(port), (...asked) => curlewCards.handle(...asked));
