/**
 * The pages that visitors and members ask for, beside a bare page of the framework that asks the database once; all in one
 * run, in turns. npm run bench -- pages [seconds a page and turn] [turns]
 */
import { rmSync } from 'node:fs';
import { Agent, get } from 'node:http';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { freePort } from '../scripts/lib/ports';
import { build, NEXT, Stack, webArgs } from '../scripts/lib/stack';
import { countingProxy } from './lib/counting-proxy';
import { fillContent, pagesSite, type PagesSite } from './lib/pages-site';

const AT_ONCE = 8;
const BARE = join('bench', 'bare');

type Page = { name: string; url: string; cookie?: string; goal?: number };
type Answer = { status: number; body: Buffer; ms: number };

const agent = new Agent({ keepAlive: true, maxSockets: AT_ONCE });

const ask = (url: string, cookie = ''): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const begun = performance.now();
    get(url, { agent, headers: cookie ? { cookie } : {} }, (response) => {
      const pieces: Buffer[] = [];
      response.on('data', (piece: Buffer) => pieces.push(piece));
      response.on('end', () =>
        resolve({
          status: response.statusCode ?? 0,
          body: Buffer.concat(pieces),
          ms: performance.now() - begun,
        }),
      );
    }).on('error', reject);
  });

/** Asks for a page for some seconds, several at once. @returns how long each answer took, in ms */
async function load({ url, cookie }: Page, seconds: number): Promise<number[]> {
  const took: number[] = [];
  const end = performance.now() + seconds * 1000;
  const one = async (): Promise<void> => {
    while (performance.now() < end) took.push((await ask(url, cookie)).ms);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  return took;
}

/** The scripts that a page names, as they are sent: bytes, compressed. */
async function scriptBytes(url: string, html: string): Promise<number> {
  const paths = new Set([...html.matchAll(/<script[^>]+src="([^"]+)"/g)].map(([, path = '']) => path));
  let bytes = 0;
  for (const path of paths) bytes += gzipSync((await ask(new URL(path, url).href)).body).length;
  return bytes;
}

/** Round trips to the database that one answer of a page takes, asked for again and again. */
async function tripsOf({ url, cookie }: Page, counted: Counted): Promise<number> {
  const ASKED = 20;
  const there = new URL(new URL(url).pathname, counted.url).href;
  for (let n = 0; n < 5; n++) await ask(there, cookie);
  const before = counted.trips();
  for (let n = 0; n < ASKED; n++) await ask(there, cookie);
  return (counted.trips() - before) / ASKED;
}

type Counted = { url: string; trips: () => number };
type Facts = { bytes: number; script: number; trips: number; took: number[] };

async function measure(
  pages: Page[],
  bare: Page,
  counted: Counted,
  { seconds, turns }: { seconds: number; turns: number },
): Promise<void> {
  const rows: { page: Page; facts: Facts }[] = [];
  for (const page of [bare, ...pages]) {
    const first = await ask(page.url, page.cookie);
    if (first.status !== 200) throw new Error(`${page.name} is answered with ${first.status}`);
    const script = await scriptBytes(page.url, first.body.toString());
    const trips = page === bare ? 1 : await tripsOf(page, counted);
    await load(page, 1);
    rows.push({ page, facts: { bytes: first.body.length, script, trips, took: [] } });
  }
  for (let turn = 0; turn < turns; turn++)
    for (const { page, facts } of rows) facts.took.push(...(await load(page, seconds)));
  const ofBare = rows[0]?.facts ?? { took: [], script: 0 };
  const columns = (cells: (string | number)[]): string =>
    cells.map((cell, n) => (n === 0 ? String(cell).padEnd(24) : String(cell).padStart(12))).join('');
  console.log(
    columns([
      '  page',
      'a second',
      'of bare',
      'goal',
      'p99 ms',
      'bytes',
      'script',
      'above bare',
      'round trips',
    ]),
  );
  for (const { page, facts } of rows) {
    const { bytes, script, trips, took } = facts;
    const p99 = took.sort((a, b) => a - b)[Math.floor(took.length * 0.99)] ?? 0;
    console.log(
      columns([
        `  ${page.name}`,
        (took.length / (seconds * turns)).toFixed(0),
        (took.length / ofBare.took.length).toFixed(2),
        page.goal?.toFixed(2) ?? '',
        p99.toFixed(1),
        bytes,
        script,
        script - ofBare.script,
        trips.toFixed(1),
      ]),
    );
  }
}

function pagesOf(url: string, { member, holder }: PagesSite): Page[] {
  return [
    { name: 'open post, visitor', url: `${url}/posts/first-clear-night`, goal: 0.85 },
    { name: 'open post, member', url: `${url}/posts/first-clear-night`, cookie: member, goal: 0.85 },
    { name: 'closed post, holder', url: `${url}/posts/zodiacal-light`, cookie: holder, goal: 0.85 },
    { name: 'closed post, member', url: `${url}/posts/zodiacal-light`, cookie: member, goal: 0.85 },
    { name: 'closed post, visitor', url: `${url}/posts/zodiacal-light`, goal: 0.85 },
    { name: 'front page', url: `${url}/` },
    { name: 'join page', url: `${url}/join`, goal: 0.65 },
    { name: 'account', url: `${url}/account`, cookie: holder, goal: 0.65 },
  ];
}

export async function run(args: string[]): Promise<void> {
  const [seconds, turns] = [Number(args[0] ?? 4), Number(args[1] ?? 3)];
  const stack = new Stack('bench');
  const site = await pagesSite();
  try {
    const [port, barePort] = [await freePort(4480), await freePort(4485)];
    const url = `http://127.0.0.1:${port}`;
    const environment = { ...(await build(stack)), ...site.environment, SITE_URL: url };
    // The framework wants its build inside its own folder.
    const bareBuild = `.next-${process.pid}`;
    stack.onStop(() => rmSync(join(BARE, bareBuild), { recursive: true, force: true }));
    const ofBare = { ...environment, NEST_BUILD_DIR: bareBuild, NEST_TSCONFIG: 'tsconfig.json' };
    // By webpack: the other bundler would take the product's proxy along, which lies above this folder.
    await stack.run('build-bare', [NEXT, 'build', BARE, '--webpack'], ofBare);
    stack.start('web', webArgs(port), environment);
    stack.start('bare', [NEXT, 'start', BARE, '-p', String(barePort), '-H', '127.0.0.1'], ofBare);
    // Another process, whose round trips are counted on their way; counting would slow down what is timed.
    const database = new URL(site.environment.DATABASE_URL);
    const [countedPort, proxyPort] = [await freePort(4490), await freePort(4495)];
    const proxy = countingProxy(proxyPort, { host: database.hostname, port: Number(database.port) });
    stack.onStop(() => proxy.close());
    database.port = String(proxyPort);
    stack.start('counted', webArgs(countedPort), { ...environment, DATABASE_URL: database.href });
    const counted = { url: `http://127.0.0.1:${countedPort}`, trips: proxy.count };
    await stack.untilAnswers(port, 'the site', '/sign-in');
    await stack.untilAnswers(countedPort, 'the counted site', '/sign-in');
    const bare = { name: 'bare page', url: `http://127.0.0.1:${barePort}/` };
    while (!(await ask(bare.url).catch(() => null))) await new Promise((resolve) => setTimeout(resolve, 200));
    console.log('Lantern Moor');
    await measure(pagesOf(url, site), bare, counted, { seconds, turns });
    console.log('With 100,000 items and 200 rules');
    await fillContent(site.db);
    await measure(pagesOf(url, site), bare, counted, { seconds, turns });
  } finally {
    agent.destroy();
    await stack.stop();
    await site.close();
  }
}
