import { mkdirSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { saveFrameOrigins, saveOutsideSite } from '../../src/access/services/outside-sites';
import { saveRule } from '../../src/access/services/save-rule';
import { nginxLines } from '../../src/core/access/nginx-lines';
import { openSession } from '../../src/people/services/lib/open-session';
import { findMemberByEmail } from '../../src/people/store/members';
import { SETUP, VISITOR_ACTOR } from '../../src/platform/actor';
import { pool, transaction } from '../../src/platform/store/db';
import { runNginx, type Nginx } from '../lib/nginx';
import { ensureLanternMoor, OWNER } from './people';

const SITE = process.env.SITE_URL ?? '';
const SECRET = 'The old ledger lies in the loft.';

/** A site of plain files behind an nginx that asks this one. On "localhost" it is another host than this site is. */
async function serveFiles(isHere: boolean): Promise<Nginx & { secret: string }> {
  let secret = '';
  const nginx = await runNginx((port, folder) => {
    secret = `of-${port}`;
    for (const [path, words] of [
      ['open/page.html', 'Everyone may read this.'],
      ['closed/page.html', SECRET],
      ['archive/page.html', SECRET],
      ['index.html', 'The front.'],
    ] as const) {
      const file = join(folder, 'files', path);
      mkdirSync(join(file, '..'), { recursive: true });
      writeFileSync(file, `<!doctype html><title>Old</title><p>${words}</p>`);
    }
    const lines = nginxLines({ web: SITE, isHere }).replaceAll('NEST_SECRET', secret);
    return `server {
      listen 127.0.0.1:${port}; server_name localhost; root ${folder}/files;
      rewrite ^/rewritten/(.*)$ /closed/$1;
      ${lines}
    }`;
  });
  return { ...nginx, url: nginx.url.replace('127.0.0.1', 'localhost'), secret };
}

/** Lets this site know another by the secret that its nginx has. */
async function list(name: string, origin: string, prefix: string, secret: string): Promise<void> {
  const saved = await saveOutsideSite(SETUP, { id: '', name, origin, prefix });
  if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
  await pool().query(`UPDATE outside_sites SET secret_hash = sha256($2::bytea) WHERE id = $1`, [
    saved.value.id,
    Buffer.from(secret),
  ]);
}

async function ownerCookie(): Promise<string> {
  const member = await findMemberByEmail(pool(), OWNER.email);
  if (!member) throw new Error('no owner');
  const { session } = await transaction((db) => openSession(db, VISITOR_ACTOR, member, 'password'));
  return `nest_session=${session}`;
}

const ask = async (url: string, headers: Record<string, string> = {}) => {
  const answer = await fetch(url, { headers, redirect: 'manual' });
  return { status: answer.status, to: answer.headers.get('location') ?? '', text: await answer.text() };
};

let other: Nginx & { secret: string };
let folder: Nginx & { secret: string };
test.beforeAll(async () => {
  await ensureLanternMoor();
  [other, folder] = [await serveFiles(false), await serveFiles(true)];
  await list('Old papers', other.url, '/old', other.secret);
  await list('Archive', new URL(SITE).origin, '', folder.secret);
  const rule = {
    name: 'Old papers',
    covers: [
      { kind: 'path', pattern: '/old/closed/*' },
      { kind: 'path', pattern: '/archive/*' },
    ],
    openTo: [{ who: { kind: 'tier', id: 'observer' } }],
  };
  const saved = await saveRule(SETUP, rule);
  if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
});
test.afterAll(async () => {
  await other.stop();
  await folder.stop();
  await pool().query("DELETE FROM outside_sites; DELETE FROM rules WHERE name = 'Old papers'");
});

test('a folder on the same host follows the rules, by the session of this site', async () => {
  const closed = await ask(`${folder.url}/archive/page.html`);
  expect(closed.status).toBe(302);
  expect(closed.to).toContain('/outside/archive?to=');
  expect(closed.text).not.toContain(SECRET);
  const owner = await ask(`${folder.url}/archive/page.html`, { cookie: await ownerCookie() });
  expect([owner.status, owner.text.includes(SECRET)]).toEqual([200, true]);
});

test('whatever an address is written as, the stricter of what was asked for and what is served counts', async () => {
  expect((await ask(`${other.url}/open/page.html`)).text).toContain('Everyone');
  for (const path of [
    '/closed/page.html',
    '/rewritten/page.html',
    '/open/%2e%2e/closed/page.html',
    '//closed//page.html',
    '/%63losed/page.html',
    '/closed/./page.html?x=/open/page.html',
    '/open/../closed/page.html',
    '/closed%2fpage.html',
  ]) {
    const answer = await ask(`${other.url}${path}`);
    expect(answer.text, path).not.toContain(SECRET);
    expect([302, 403, 404], path).toContain(answer.status);
  }
});

test('only who knows the secret is answered, and a cookie from elsewhere opens nothing', async () => {
  const headers = { 'x-nest-raw': '/open/page.html', 'x-nest-served': '/open/page.html' };
  expect((await ask(`${SITE}/api/gate`, headers)).status).toBe(403);
  expect((await ask(`${SITE}/api/gate`, { ...headers, 'x-nest-secret': 'guess' })).status).toBe(403);
  expect((await ask(`${SITE}/api/gate`, { ...headers, 'x-nest-secret': other.secret })).status).toBe(204);
  expect((await ask(`${other.url}/_nest/gate`)).status).toBe(404);
  // The session of this site counts on this host alone.
  const there = await ask(`${other.url}/closed/page.html`, { cookie: await ownerCookie() });
  expect(there.status).toBe(302);
  expect((await ask(`${other.url}/_nest/enter?token=guess`)).to).toBe('/');
});

test('on another host someone signs in here, is let in there once by a link, and is out when they sign out', async ({
  page,
}) => {
  await page.goto(`${other.url}/closed/page.html`);
  await expect(page.getByRole('heading', { name: 'Old papers' })).toBeVisible();
  expect(page.url()).toContain(`${SITE}/outside/old-papers`);
  await page.getByText('Already a member?').click();
  await page.getByLabel('Email').fill(OWNER.email);
  await page.getByLabel('Password', { exact: true }).fill(OWNER.password);
  const entered = page.waitForRequest((request) => request.url().includes('/_nest/enter?token='));
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  const link = (await entered).url();
  await expect(page.getByText(SECRET)).toBeVisible();
  expect(page.url()).toBe(`${other.url}/closed/page.html`);
  // The link is worth nothing in another browser.
  const again = await ask(link);
  expect([again.status, again.to]).toEqual([302, '/']);
  const cookies = await page.context().cookies(other.url);
  const given = cookies.find(({ name }) => name === 'nest_outside');
  expect(given).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
  const cookie = `nest_outside=${given?.value ?? ''}`;
  expect((await ask(`${other.url}/closed/page.html`, { cookie })).text).toContain(SECRET);
  // It is for this one site, and no session here.
  expect((await ask(`${folder.url}/archive/page.html`, { cookie })).text).not.toContain(SECRET);
  await pool().query('DELETE FROM sessions USING members WHERE members.id = member_id AND email = $1', [
    OWNER.email,
  ]);
  expect((await ask(`${other.url}/closed/page.html`, { cookie })).text).not.toContain(SECRET);
});

test.describe('a frame of another site', () => {
  const [ITEM, CLOSED, OTHER] = ['zodiacal-light', 'third gatepost', 'double-stars'];
  let club: Server;
  let origin: string;
  test.beforeAll(async () => {
    club = createServer((request, response) => {
      response.setHeader('content-type', 'text/html');
      response.end(`<!doctype html><title>Club</title><h1>The club</h1>
        <iframe src="${SITE}/embed/${request.url === '/other' ? OTHER : ITEM}" width="700" height="500"></iframe>`);
    });
    await new Promise<void>((resolve) => club.listen(0, '127.0.0.1', resolve));
    origin = `http://localhost:${(club.address() as AddressInfo).port}`;
  });
  test.afterAll(async () => {
    await saveFrameOrigins(SETUP, '');
    club.close();
  });
  const headersOf = async (path: string) =>
    (await fetch(`${SITE}${path}`)).headers.get('content-security-policy') ?? '';

  test('is shown by sites that the owner lists, and by no other; no other page is', async ({ page }) => {
    await saveFrameOrigins(SETUP, '');
    expect(await headersOf(`/embed/${ITEM}`)).toContain("frame-ancestors 'none'");
    await page.goto(origin);
    await expect(page.frameLocator('iframe').getByRole('heading')).toHaveCount(0);
    expect((await saveFrameOrigins(SETUP, "https://a.example 'self'")).ok).toBe(false);
    await saveFrameOrigins(SETUP, `${origin}/some/page\nhttps://club.example`);
    const policy = await headersOf(`/embed/${ITEM}`);
    expect(policy).toContain(`frame-ancestors ${origin} https://club.example`);
    expect(policy).toContain("form-action 'none'");
    for (const path of ['/', `/posts/${ITEM}`, '/sign-in', '/let-in', '/join', '/embed/nowhere', '/api/v1'])
      expect(await headersOf(path), path).toContain("frame-ancestors 'none'");
    await page.goto(origin);
    const frame = page.frameLocator('iframe');
    await expect(frame.getByRole('heading', { name: /zodiacal light/ })).toBeVisible();
    await expect(frame.locator('form, input')).toHaveCount(0);
    expect(await frame.locator('body').innerHTML()).not.toContain(CLOSED);
  });

  test('shows one item, once its reader has signed in and allowed it in a window of its own, until they sign out', async ({
    page,
  }) => {
    await saveFrameOrigins(SETUP, origin);
    await page.goto(origin);
    const frame = page.frameLocator('iframe');
    const opened = page.waitForEvent('popup');
    await frame.getByRole('link', { name: 'Sign in to read on' }).click();
    const letters = /letters: ([A-Z]{4})/.exec(await frame.getByRole('status').innerText())?.[1] ?? '';
    const window = await opened;
    await window.getByLabel('Email').first().fill(OWNER.email);
    await window.getByLabel('Password', { exact: true }).fill(OWNER.password);
    await window.getByRole('button', { name: 'Sign in', exact: true }).click();
    await expect(window.getByText(`show these letters: ${letters}`)).toBeVisible();
    expect(await frame.locator('body').innerHTML()).not.toContain(CLOSED);
    await window.getByRole('button', { name: 'Show it' }).click();
    await expect(window.getByText('You can close this window.')).toBeVisible();
    await expect(frame.getByText(CLOSED)).toBeVisible({ timeout: 10_000 });
    expect(await page.content()).not.toContain(CLOSED);
    // For this item alone, and in this site's frames alone.
    await page.goto(`${origin}/other`);
    await expect(frame.getByRole('link', { name: 'Sign in to read on' })).toBeVisible();
    const cookies = await page.context().cookies();
    const given = cookies.find(({ name }) => name.startsWith('nest_embed_'));
    expect(given).toMatchObject({ httpOnly: true, secure: true, sameSite: 'None' });
    expect(given).toHaveProperty('partitionKey');
    await page.goto(origin);
    await expect(frame.getByText(CLOSED)).toBeVisible();
    await pool().query('DELETE FROM sessions USING members WHERE members.id = member_id AND email = $1', [
      OWNER.email,
    ]);
    await page.reload();
    await expect(frame.getByRole('link', { name: 'Sign in to read on' })).toBeVisible();
    expect(await frame.locator('body').innerHTML()).not.toContain(CLOSED);
  });
});
