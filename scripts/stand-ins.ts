/**
 * npm run stand-ins: Curlew Cards, Dunlin Wallet and Letterbox, at the addresses that .env.example names. Their state
 * is kept in .data/stand-ins, so that the keys are the same after a restart. Ctrl+C stops them.
 */
import { mkdirSync } from 'node:fs';
import getPort from 'get-port';
import { Stack, stopWith, tsx } from './lib/stack';

const FOLDER = '.data/stand-ins';
const PORTS = { 'curlew-cards': 4110, 'dunlin-wallet': 4115, letterbox: 4120, smtp: 4125 };

const stack = new Stack('stand-ins');
stopWith(stack);
try {
  for (const [name, port] of Object.entries(PORTS))
    if ((await getPort({ port, host: '127.0.0.1' })) !== port)
      throw new Error(`Port ${port}, for ${name}, is in use. Stop what listens there, then run this again.`);
  mkdirSync(FOLDER, { recursive: true });
  for (const name of ['curlew-cards', 'dunlin-wallet'] as const)
    stack.start(name, tsx(`stand-ins/${name}/main.ts`, String(PORTS[name]), `${FOLDER}/${name}.json`), {});
  stack.start(
    'letterbox',
    tsx('stand-ins/letterbox/main.ts', String(PORTS.smtp), String(PORTS.letterbox)),
    {},
  );
  for (const name of ['curlew-cards', 'dunlin-wallet', 'letterbox'] as const)
    await stack.untilAnswers(PORTS[name], name);
  stack.onLost = (name) => console.error(`\n${name} has stopped; see ${stack.logFile(name)}.`);
  console.log(`
  Curlew Cards    http://127.0.0.1:${PORTS['curlew-cards']}    the card gateway: its keys, test cards, payments
  Dunlin Wallet   http://127.0.0.1:${PORTS['dunlin-wallet']}    the wallet that bills by itself
  Letterbox       http://127.0.0.1:${PORTS.letterbox}    the mail that the site sends (SMTP at port ${PORTS.smtp})

Press Ctrl+C to stop them.
`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  await stack.stop();
  process.exit(1);
}
