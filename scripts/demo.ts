/**
 * Brings Lantern Moor up: database, stand-ins, web and worker; with --empty, a site with nothing in it. What scripts/demo.sh
 * runs.
 */
import { parseArgs } from 'node:util';
import { startServer } from './lib/postgres';
import { build, prepare, Stack, stopWith, webArgs, WORKER_ARGS } from './lib/stack';

const { values: options } = parseArgs({ options: { empty: { type: 'boolean', default: false } } });
const started = Date.now();
const tell = (text: string): void => console.log(`  ${text}`);
const stack = new Stack('demo');
stopWith(stack);

try {
  console.log('\nNest Key: the demo site Lantern Moor\n');
  tell('Starting PostgreSQL and the stand-ins: Curlew Cards, Dunlin Wallet and Letterbox');
  const server = await startServer(5460);
  stack.onStop(() => server.stop());
  const wanted = { web: 4100, gateway: 4110, wallet: 4115, smtp: 4125, letterbox: 4120 };
  const { siteUrl, gatewayUrl, walletUrl, letterboxUrl, webPort, ...prepared } = await prepare(
    stack,
    server,
    wanted,
  );
  tell('Building the site (under a minute)');
  const environment = { ...prepared.environment, ...(await build(stack)) };
  Object.assign(process.env, environment);
  tell('Starting the site');
  stack.start('web', webArgs(webPort), environment);
  await stack.untilAnswers(webPort, 'The site', '/sign-in');
  const { loadDemo, loadEmptySite, MEMBER_PASSWORD, OWNER } = await import('./lib/load-demo');
  if (options.empty) await loadEmptySite();
  else {
    tell('Loading Lantern Moor');
    await loadDemo(gatewayUrl, tell);
  }
  stack.start('worker', WORKER_ARGS, environment);
  stack.onLost = (name) =>
    console.error(`\n${name} has stopped; see ${stack.logFile(name)}. Press Ctrl+C, then run this again.`);
  console.log(`
${options.empty ? 'An empty site' : 'Lantern Moor'} is open (${Math.round((Date.now() - started) / 1000)} seconds).

  The site        ${siteUrl}
  The Desk        ${siteUrl}/desk       as ${OWNER.email}, password: ${OWNER.password}${
    options.empty
      ? ''
      : `
  A member        ${siteUrl}/sign-in    as maren.oakley@moor.example, password: ${MEMBER_PASSWORD}`
  }
  Letterbox       ${letterboxUrl}            the mail that the site sends
  Curlew Cards    ${gatewayUrl}            the card gateway: its keys, test cards, payments
  Dunlin Wallet   ${walletUrl}            the wallet that bills by itself

Nothing here is real, and it is gone when you stop it: press Ctrl+C.
`);
} catch (error) {
  console.error(`\nThe demo could not be started. ${error instanceof Error ? error.message : String(error)}`);
  await stack.stop();
  process.exit(1);
}
