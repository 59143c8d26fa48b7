/**
 * All suites, or those named: npm test -- unit database. Ends with a line of how many passed and failed.
 * Anything after -- goes to the runner of a single named suite: npm test -- browser -- -g "double click"
 */
import { spawn } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { freePort } from './lib/ports';
import { migrate } from './lib/migrations';
import { startServer, type Server } from './lib/postgres';
import { environment as environmentOf } from '../tests/lib/environment';
import { build, prepare, Stack, stopWith, tsx, webArgs, WORKER_ARGS, type Environment } from './lib/stack';

type Count = { passed: number; failed: number };
const SUITES = ['lint', 'types', 'unit', 'database', 'browser'] as const;
type Suite = (typeof SUITES)[number];

const given = process.argv.slice(2);
const split = given.indexOf('--');
const named = (split === -1 ? given : given.slice(0, split)) as Suite[];
const extra = split === -1 ? [] : given.slice(split + 1);
const wanted = new Set<Suite>(named.length > 0 ? named : SUITES);
const unknown = named.filter((name) => !SUITES.includes(name));
if (unknown.length > 0) {
  console.error(`There is no suite called ${unknown.join(', ')}. The suites are ${SUITES.join(', ')}.`);
  process.exit(2);
}

const started = Date.now();
const stack = new Stack('test');
stopWith(stack);
const totals: Count = { passed: 0, failed: 0 };

function run(args: string[], environment: Record<string, string> = {}): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, {
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...environment },
    });
    stack.onStop(() => child.kill());
    child.once('exit', (code) => resolve(code === 0));
  });
}

/** A suite without a count of its own counts as one. */
async function single(steps: string[][]): Promise<Count> {
  for (const step of steps) if (!(await run(step))) return { passed: 0, failed: 1 };
  return { passed: 1, failed: 0 };
}

/** A runner that died before it could count has failed, whatever its file says. */
function counted(ok: boolean, file: string, read: (report: never) => Count): Count {
  if (!existsSync(file)) return { passed: 0, failed: 1 };
  const count = read(JSON.parse(readFileSync(file, 'utf8')) as never);
  return !ok && count.failed === 0 ? { ...count, failed: 1 } : count;
}

async function vitest(project: string): Promise<Count> {
  const file = join(stack.folder, `${project}.json`);
  const ok = await run([
    'node_modules/vitest/vitest.mjs',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
    ...extra,
  ]);
  return counted(ok, file, (report: { numPassedTests: number; numFailedTests: number }) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests,
  }));
}

/** Files of the browser suite that share a site of their own; all others share the first. Each group takes about as long. */
const APART = [
  ['3-leaks-and-access', '4-offers', '6-money', '7-settings'],
  ['3-doors', '5-checkout', '9-content', '13-members', '14-letters-and-passes'],
];
const BROWSER_TESTS = 'tests/browser';
/** Making an empty site asks no gateway. */
const NOWHERE = 'http://127.0.0.1:9';

async function browser(): Promise<Count> {
  const files = readdirSync(BROWSER_TESTS).filter((file) => file.endsWith('.spec.ts'));
  const groupOf = (file: string): number =>
    APART.findIndex((group) => group.includes(file.replace('.spec.ts', '')));
  const groups =
    extra.length > 0
      ? [extra]
      : [-1, ...APART.keys()].map((group) =>
          files.filter((file) => groupOf(file) === group).map((file) => `${BROWSER_TESTS}/${file}`),
        );
  console.log('  Starting PostgreSQL, and building the site (under a minute)');
  const [server, built] = await Promise.all([startServer(5480), build(stack)]);
  stack.onStop(() => server.stop());
  // Each group begins with a copy of one empty site.
  const template = `nest_browser_${process.pid}`;
  await server.createDatabase(template);
  stack.onStop(() => server.dropDatabase(template));
  await migrate(server.url(template));
  const empty = environmentOf({ databaseUrl: server.url(template), gatewayUrl: NOWHERE, walletUrl: NOWHERE });
  if (!(await run(tsx(`${BROWSER_TESTS}/empty-site.ts`), empty))) return { passed: 0, failed: 1 };
  const counts = await Promise.all(
    groups.map((group, index) => browse(server, template, built, index + 1, group)),
  );
  return {
    passed: counts.reduce((sum, count) => sum + count.passed, 0),
    failed: counts.reduce((sum, count) => sum + count.failed, 0),
  };
}

/** Runs files of the browser suite, one after the other, on a site of their own. */
async function browse(
  server: Server,
  template: string,
  built: Environment,
  which: number,
  files: string[],
): Promise<Count> {
  const site = new Stack(`test-site-${which}`);
  stack.onStop(() => site.stop());
  const at = 4130 + 30 * which;
  const ports = { web: at, gateway: at + 10, wallet: at + 15, smtp: at + 25, letterbox: at + 20 };
  const { letterboxUrl, webPort, ...prepared } = await prepare(site, server, ports, template);
  const environment = { ...built, ...prepared.environment };
  site.start('web', webArgs(webPort), environment);
  site.start('worker', WORKER_ARGS, environment);
  // In one group two webs and two workers share a database: nothing may depend on being alone.
  const second = which === 1 ? await freePort(at + 5) : null;
  if (second) site.start('web-2', webArgs(second), environment);
  if (second) site.start('worker-2', WORKER_ARGS, environment);
  await site.untilAnswers(webPort, 'The site', '/sign-in');
  const secondUrl = second ? await site.untilAnswers(second, 'The second web', '/sign-in') : '';
  const file = join(site.folder, 'browser.json');
  const ok = await run(['node_modules/@playwright/test/cli.js', 'test', '--reporter=list,json', ...files], {
    ...environment,
    NODE_ENV: 'test',
    SECOND_SITE_URL: secondUrl,
    LETTERBOX_URL: letterboxUrl,
    NEST_TEST_FOLDER: site.folder,
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
  });
  if (!ok)
    for (const name of ['web', 'worker'])
      console.log(`--- ${name}\n${readFileSync(site.logFile(name), 'utf8').slice(-4000)}`);
  return counted(ok, file, (report: { stats: { expected: number; unexpected: number; flaky: number } }) => ({
    passed: report.stats.expected,
    failed: report.stats.unexpected + report.stats.flaky,
  }));
}

const RUN: Record<Suite, () => Promise<Count>> = {
  lint: () =>
    single([
      ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level=warn', '.'],
      ['node_modules/oxlint/bin/oxlint'],
      ['--import', 'tsx', 'scripts/check-imports.ts'],
    ]),
  types: () => single([['node_modules/typescript-native/bin/tsc', '--noEmit']]),
  unit: () => vitest('unit'),
  database: () => vitest('database'),
  browser,
};

async function play(suite: Suite): Promise<void> {
  const begun = Date.now();
  console.log(`\n${suite}`);
  const count = await RUN[suite]().catch((error: unknown) => {
    console.error(error);
    return { passed: 0, failed: 1 };
  });
  totals.passed += count.passed;
  totals.failed += count.failed;
  console.log(
    `${suite}: ${count.passed} passed, ${count.failed} failed, in ${Math.round((Date.now() - begun) / 1000)} s`,
  );
}

// Lint keeps one core busy for as long as several of the others take.
const LANES: Suite[][] = [['lint'], ['types', 'unit', 'database', 'browser']];
await Promise.all(
  LANES.map(async (lane) => {
    for (const suite of lane) if (wanted.has(suite)) await play(suite);
  }),
);
await stack.stop();
console.log(`\nAll in ${Math.round((Date.now() - started) / 1000)} s.`);
console.log(`${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed > 0 || totals.passed === 0 ? 1 : 0);
