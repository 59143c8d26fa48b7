import { expect, test } from '@playwright/test';
import { openSession } from '../../src/people/services/lib/open-session';
import { VISITOR_ACTOR } from '../../src/platform/actor';
import { pool, transaction } from '../../src/platform/store/db';
import { findMemberByEmail } from '../../src/people/store/members';
import { startNginx, type Nginx } from '../lib/nginx';
import { ensureLanternMoor, OWNER } from './people';

const SITE = process.env.SITE_URL ?? '';
/** A sentence of the closed part of a text. */
const [CLOSED, SECRET] = ['/posts/zodiacal-light', 'Do not look for a beam'];

let nginx: Nginx;
test.beforeAll(async () => {
  await ensureLanternMoor();
  nginx = await startNginx('site.conf', [SITE]);
});
test.afterAll(() => nginx.stop());

type Answer = { text: string; cache: string; control: string };
async function ask(url: string, cookie?: string): Promise<Answer> {
  const answer = await fetch(url, { headers: cookie ? { cookie } : {} });
  const header = (name: string): string => answer.headers.get(name) ?? '';
  return { text: await answer.text(), cache: header('x-cache'), control: header('cache-control') };
}

async function staffCookie(): Promise<string> {
  const member = await findMemberByEmail(pool(), OWNER.email);
  if (!member) throw new Error('no owner');
  const { session } = await transaction((db) => openSession(db, VISITOR_ACTOR, member, 'password'));
  return `nest_session=${session}`;
}

/** Turns the rule on or off that closes the guides. */
async function closeGuides(isOn: boolean): Promise<void> {
  await pool().query(
    `UPDATE rules SET is_on = $1 WHERE definition @> '{"covers":[{"kind":"category","id":"guides"}]}'`,
    [isOn],
  );
}

test('behind a cache, visitors and members in turn are each answered as they may read', async () => {
  const cookie = await staffCookie();
  const seen: string[] = [];
  for (let turn = 0; turn < 12; turn++) {
    const visitor = await ask(`${nginx.url}${CLOSED}`);
    expect(visitor.text).not.toContain(SECRET);
    expect(visitor.control).toContain('s-maxage=1');
    seen.push(visitor.cache);
    const member = await ask(`${nginx.url}${CLOSED}`, cookie);
    expect(member.text).toContain(SECRET);
    expect(member.control).toContain('no-store');
    expect(member.cache).toBe('BYPASS');
  }
  expect(seen).toContain('HIT');
});

test('a page that is handed on works, and names its scripts', async ({ page }) => {
  const complaints: string[] = [];
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
  page.on('pageerror', (error) => complaints.push(error.message));
  for (const path of ['/', CLOSED, CLOSED]) {
    const answer = await page.goto(`${nginx.url}${path}`);
    const policy = (await answer?.allHeaders())?.['content-security-policy'] ?? '';
    expect(policy).toMatch(/script-src 'self' 'sha256-[^;]*;/);
    expect(policy).not.toContain('nonce-');
    // React has taken the page over: what it hands its elements is there.
    await page.waitForFunction(() => Object.keys(document.body).some((key) => key.startsWith('__react')));
  }
  expect(complaints).toEqual([]);
});

test('a change of the rules is seen at once where there is no cache, and within two seconds where there is one', async () => {
  const [behind, other] = [`${nginx.url}${CLOSED}`, process.env.SECOND_SITE_URL || SITE];
  for (const isOn of [false, true]) {
    await ask(behind);
    await closeGuides(isOn);
    for (const web of [SITE, other]) expect((await ask(`${web}${CLOSED}`)).text.includes(SECRET)).toBe(!isOn);
    await new Promise((resolve) => setTimeout(resolve, 2_000));
    expect((await ask(behind)).text.includes(SECRET)).toBe(!isOn);
  }
});

test('what depends on who asks, or on how it was asked, is not handed on', async () => {
  for (const path of [
    '/sign-in',
    '/search?q=light',
    '/account',
    '/desk/sign-in',
    '/nowhere',
    '/api/v1/nothing',
  ])
    expect((await ask(`${nginx.url}${path}`)).control, path).toMatch(/no-store/);
  const framework = await fetch(`${nginx.url}${CLOSED}`, { headers: { rsc: '1' } });
  expect(framework.headers.get('cache-control')).toContain('no-store');
});
