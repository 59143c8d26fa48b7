/**
 * A post that a whole town reads at once: visitors through nginx, by the configuration of the docs, while the rules change; in
 * one run with pages that are made anew each time. npm run bench -- crowd [seconds]
 */
import { createHash } from 'node:crypto';
import { gunzipSync } from 'node:zlib';
import { Pool } from 'undici';
import { freePort } from '../scripts/lib/ports';
import { build, Stack, webArgs } from '../scripts/lib/stack';
import { startNginx } from '../tests/lib/nginx';
import { pagesSite, type PagesSite } from './lib/pages-site';

const AT_ONCE = 64;
/** An answer through the cache may be as old as this, in ms. */
const MOST_AGE = 2_000;
/** The post that is closed and opened in the middle; the post that is always closed; a sentence of each. */
const CHANGED = { path: '/posts/first-clear-night', words: 'the one star that stays where it is' };
const CLOSED = { path: '/posts/zodiacal-light', words: 'Do not look for a beam' };

type Change = { at: number; isOpen: boolean };
type Tally = { answers: number; old: number; leaked: number; failed: number; took: number[] };

/** Whether a sentence is in an answer; of equal answers one is looked at. */
function reader(words: string): (body: Buffer) => boolean {
  const known = new Map<string, boolean>();
  return (body) => {
    const key = createHash('md5').update(body).digest('base64');
    const seen = known.get(key) ?? gunzipSync(body).includes(words);
    known.set(key, seen);
    return seen;
  };
}

/** Asks for a page for some seconds, many at once; `judge` is told of each answer and when it was asked for and came, in ms. */
async function crowd(
  pool: Pool,
  path: string,
  seconds: number,
  headers: Record<string, string>,
  judge: (body: Buffer, asked: number, came: number, tally: Tally) => void,
): Promise<Tally> {
  const tally: Tally = { answers: 0, old: 0, leaked: 0, failed: 0, took: [] };
  const end = performance.now() + seconds * 1000;
  const one = async (): Promise<void> => {
    while (performance.now() < end) {
      const asked = performance.now();
      const answer = await pool.request({
        path,
        method: 'GET',
        headers: { 'accept-encoding': 'gzip', ...headers },
      });
      const body = Buffer.from(await answer.body.arrayBuffer());
      const came = performance.now();
      tally.answers++;
      tally.took.push(came - asked);
      if (answer.statusCode !== 200) tally.failed++;
      else judge(body, asked, came, tally);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  return tally;
}

/** Whether a post was as it was seen at some moment between two, by its changes. */
const wasSo = (changes: Change[], isOpen: boolean, from: number, to: number): boolean =>
  changes.some(
    (change, n) => change.isOpen === isOpen && change.at <= to && (changes[n + 1]?.at ?? Infinity) >= from,
  );

function tell(name: string, seconds: number, { answers, old, leaked, failed, took }: Tally): number {
  const rate = answers / seconds;
  const p99 = took.sort((a, b) => a - b)[Math.floor(took.length * 0.99)] ?? 0;
  console.log(
    `  ${name.padEnd(44)}${rate.toFixed(0).padStart(8)} a second${p99.toFixed(1).padStart(9)} ms p99${String(old).padStart(6)} too old${String(leaked).padStart(6)} leaked${String(failed).padStart(6)} failed`,
  );
  return rate;
}

async function measure(web: Pool, nginx: Pool, { db }: PagesSite, seconds: number): Promise<void> {
  const nothing = (): void => {};
  // A theme that a visitor chose is theirs, and so is the page.
  const own = { cookie: 'nest_theme=dark' };
  await crowd(web, CHANGED.path, 3, own, nothing);
  const anew = await crowd(web, CHANGED.path, seconds, own, nothing);
  const made = tell('made anew each time (a theme of their own)', seconds, anew);
  tell('kept by the web process, no cache', seconds, await crowd(web, CHANGED.path, seconds, {}, nothing));

  const [isClosedShown, isOpenShown] = [reader(CLOSED.words), reader(CHANGED.words)];
  const doorstep = await crowd(nginx, CLOSED.path, seconds, {}, (body, _, __, tally) => {
    if (isClosedShown(body)) tally.leaked++;
  });
  const rates = [tell('a doorstep through nginx', seconds, doorstep)];

  const changes: Change[] = [{ at: performance.now() - 10_000, isOpen: true }];
  const change = async (isOpen: boolean): Promise<void> => {
    await db.query(`UPDATE rules SET is_on = $1 WHERE id = 'crowd'`, [!isOpen]);
    changes.push({ at: performance.now(), isOpen });
  };
  const seen = new Set<boolean>();
  const timers = [0.35, 0.6, 0.85].map((share, n) =>
    setTimeout(() => void change(n % 2 === 1), seconds * 1000 * share),
  );
  const changing = await crowd(nginx, CHANGED.path, seconds, {}, (body, asked, came, tally) => {
    seen.add(isOpenShown(body));
    // A change may be seen a moment before its statement has been answered here.
    if (!wasSo(changes, isOpenShown(body), asked - MOST_AGE, came + 50)) tally.old++;
  });
  timers.forEach(clearTimeout);
  if (seen.size < 2) throw new Error('the change was never seen');
  rates.push(tell('a post that is closed and opened, through nginx', seconds, changing));
  console.log(
    `  ${rates.map((rate) => `${(rate / made).toFixed(0)} times`).join(' and ')} the rate of pages made anew`,
  );
}

export async function run(args: string[]): Promise<void> {
  const seconds = Number(args[0] ?? 8);
  const stack = new Stack('bench');
  const site = await pagesSite();
  try {
    await site.db.query(
      `INSERT INTO rules (id, name, is_on, definition) VALUES ('crowd', 'Crowd', false,
         '{"covers":[{"kind":"item","id":"first-clear-night"}],"openTo":[{"who":{"kind":"tier","id":"observer"}}]}')`,
    );
    const port = await freePort(4480);
    const url = `http://127.0.0.1:${port}`;
    stack.start('web', webArgs(port), { ...(await build(stack)), ...site.environment, SITE_URL: url });
    await stack.untilAnswers(port, 'the site', '/sign-in');
    const nginx = await startNginx('site.conf', [url]);
    stack.onStop(() => nginx.stop());
    const [web, cached] = [url, nginx.url].map((at) => new Pool(at, { connections: AT_ONCE }));
    if (!web || !cached) throw new Error('nothing to ask');
    await measure(web, cached, site, seconds);
    await Promise.all([web.close(), cached.close()]);
  } finally {
    await stack.stop();
    await site.close();
  }
}
