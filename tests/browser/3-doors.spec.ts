import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { join as joinPath } from 'node:path';
import { expect, test, type APIRequestContext } from '@playwright/test';
import { personNamed } from '../../scripts/lib/people';
import { cardToken } from '../../scripts/lib/stand-ins';
import type { StaffRole } from '../../src/core/staff';
import { VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { pool, transaction } from '../../src/platform/store/db';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { openSession } from '../../src/people/services/lib/open-session';
import { findOffer } from '../../src/tiers/store/offers';
import { sendForm } from './forms';
import { ensureLanternMoor, GATEWAY_URL, MEMBER_PASSWORD, OWNER, testKeys } from './people';

const SITE = process.env.SITE_URL ?? '';
const newEmail = (): string => `door-${randomUUID().slice(0, 8)}@moor.example`;

test.beforeAll(ensureLanternMoor);

/** What a browser of theirs carries: a session, and the device cookie that stays after it. */
async function cookiesOf(email: string): Promise<{ actor: Actor; session: string; device: string }> {
  const actor = await personNamed('Someone Else', email, MEMBER_PASSWORD);
  const { rows } = await pool().query<{ staff_role: StaffRole | null }>(
    'SELECT staff_role FROM members WHERE id = $1',
    [actor.memberId],
  );
  const opened = await transaction((db) =>
    openSession(
      db,
      VISITOR_ACTOR,
      { id: actor.memberId ?? '', staffRole: rows[0]?.staff_role ?? null },
      'test',
    ),
  );
  return { actor, ...opened };
}
const sessionOf = async (email: string): Promise<{ cookie: string }> => ({
  cookie: `nest_session=${(await cookiesOf(email)).session}`,
});

/** An unfinished checkout: the card was declined. */
async function openCheckout(): Promise<{ id: string; memberId: string; email: string }> {
  const email = newEmail();
  const actor = await personNamed('Vera Fell', email, MEMBER_PASSWORD);
  const id = randomUUID();
  await submitCheckout(actor, {
    checkoutId: id,
    offerId: 'observer-monthly',
    versionId: (await findOffer(pool(), 'observer-monthly'))?.versionId,
    answers: { rules: 'yes' },
    name: 'Vera Fell',
    cardToken: await cardToken(GATEWAY_URL, (await testKeys()).siteKey, 'declined'),
    returnTo: '/account',
  });
  return { id, memberId: actor.memberId ?? '', email };
}

type Sent = { status: number; headers: Record<string, string | string[] | undefined>; text: string };
/** Sends a request exactly as given: no client normalises it. */
function raw(
  path: string,
  { method = 'GET', headers = {}, body }: { method?: string; headers?: object; body?: string | Buffer } = {},
): Promise<Sent> {
  const { hostname, port } = new URL(SITE);
  return new Promise((resolve, reject) => {
    const sending = httpRequest(
      { hostname, port, path, method, headers: { ...headers } as Record<string, string> },
      (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 0,
            headers: answer.headers,
            text: Buffer.concat(parts).toString(),
          }),
        );
        answer.on('error', reject);
      },
    );
    // A server that has answered need not read the rest.
    sending.on('error', (error) => setTimeout(() => reject(error), 500));
    sending.end(body);
  });
}

test.describe('someone who knows an id', () => {
  const paths = (id: string): string[] => [
    `/join/approved/${id}`,
    `/join/pending/${id}`,
    `/join/pending/${id}/invoice/pdf`,
    `/join/done/${id}`,
    `/join/observer-monthly?joining=${id}`,
  ];

  test('of a checkout is not signed in by it, and sees nothing of it', async ({ request }) => {
    const { id, email } = await openCheckout();
    for (const cookie of [
      '',
      `nest_joining=${id}`,
      `nest_session=${id}`,
      `nest_code=${id}; nest_device=${id}`,
    ])
      for (const path of paths(id)) {
        const answer = await request.get(path, { headers: cookie ? { cookie } : {}, maxRedirects: 0 });
        expect(answer.headers()['set-cookie'] ?? '', path).not.toContain('nest_session');
        const sent = (await answer.body()).toString();
        for (const closed of [email, 'Vera Fell'])
          expect(sent, `${path} with ${cookie}`).not.toContain(closed);
        if (!path.includes('?joining')) expect([303, 307, 401, 404], path).toContain(answer.status());
      }
  });

  test('of another member’s checkout neither sees nor takes it over', async ({ request }) => {
    const { id, memberId } = await openCheckout();
    const thief = newEmail();
    const headers = await sessionOf(thief);
    const [approved = '', ...others] = paths(id).slice(0, 4);
    expect((await request.get(approved, { headers, maxRedirects: 0 })).headers().location).toBe('/join');
    for (const path of others)
      expect((await request.get(path, { headers, maxRedirects: 0 })).status(), path).toBe(404);
    const answer = await sendForm(
      request,
      '/join/observer-monthly',
      'Join',
      {
        checkoutId: id,
        name: 'A Thief',
        email: thief,
        'answers.rules': 'yes',
        cardToken: await cardToken(GATEWAY_URL, (await testKeys()).siteKey, 'works'),
      },
      headers,
    );
    expect(answer.headers().location ?? '').not.toContain('/join/done');
    const { rows } = await pool().query('SELECT member_id, state FROM checkouts WHERE id = $1', [id]);
    expect(rows).toEqual([{ member_id: memberId, state: 'open' }]);
    const { rowCount } = await pool().query(
      `SELECT 1 FROM subscriptions s JOIN members m ON m.id = s.member_id WHERE m.email = $1 AND s.state <> 'pending'`,
      [thief],
    );
    expect(rowCount).toBe(0);
  });
});

test.describe('strangers', () => {
  const trySignIn = (request: APIRequestContext, email: string, password: string, headers = {}) =>
    sendForm(request, '/sign-in', 'Sign in', { email, password }, headers);

  test('who try eight passwords lock out themselves: a known browser gets in, and a code is mailed; another claimed address does not help them', async ({
    request,
  }) => {
    const email = newEmail();
    const { device } = await cookiesOf(email);
    for (let n = 0; n < 8; n++)
      await trySignIn(request, email, 'wrong', { 'x-forwarded-for': `203.0.113.${n}` });
    const ninth = await trySignIn(request, email, MEMBER_PASSWORD, { 'x-forwarded-for': '203.0.113.99' });
    expect(await ninth.text()).toContain('Too many tries');
    const known = await trySignIn(request, email, MEMBER_PASSWORD, { cookie: `nest_device=${device}` });
    expect(known.headers()['set-cookie']).toContain('nest_session');
    const asked = await sendForm(request, '/sign-in', 'Email me a code instead', { email });
    expect(asked.headers().location).toContain('/sign-in/code');
  });

  test('cannot hold up the site with thousands of fields: it takes no longer for four times as many', async ({
    request,
  }) => {
    const page = { path: '/join/observer-monthly' };
    const boundary = 'b';
    const body = (count: number): string =>
      Array.from(
        { length: count },
        (_unused, n) => `--${boundary}\r\nContent-Disposition: form-data; name="answers.${n}"\r\n\r\n1\r\n`,
      ).join('') + `--${boundary}--\r\n`;
    const headers = await sessionOf(newEmail());
    const html = await (await request.get(page.path, { headers })).text();
    const action = /name="\$ACTION_\d+:0" value="\{&quot;id&quot;:&quot;(\w+)/.exec(html)?.[1] ?? '';
    const send = async (count: number) => {
      const started = performance.now();
      const first =
        `--${boundary}\r\nContent-Disposition: form-data; name="0"\r\n\r\n[{"problems":{}},"$K1"]\r\n` +
        body(count).replaceAll('name="answers', 'name="1_answers');
      const answer = await raw(page.path, {
        method: 'POST',
        headers: {
          ...headers,
          origin: SITE,
          'next-action': action,
          'content-type': `multipart/form-data; boundary=${boundary}`,
          'content-length': Buffer.byteLength(first),
        },
        body: first,
      });
      return { status: answer.status, ms: performance.now() - started };
    };
    await send(10);
    const few = await send(3_000);
    const other = performance.now();
    const [many, seen] = await Promise.all([
      send(12_000),
      raw('/sign-in').then(({ status }) => ({ status, ms: performance.now() - other })),
    ]);
    expect(seen.status).toBe(200);
    expect(seen.ms).toBeLessThan(3_000);
    expect(few.status).toBeLessThan(500);
    expect(many.status).toBeLessThan(500);
    // On a busy machine one try may be slow; work that grows with the square of the fields is slow every time.
    const tries = [many.ms];
    while (Math.min(...tries) >= 5 * Math.max(few.ms, 200) && tries.length < 4)
      tries.push((await send(12_000)).ms);
    expect(Math.min(...tries)).toBeLessThan(5 * Math.max(few.ms, 200));
    expect((await send(40_000)).status).toBe(413);
  });

  test('are told that a body is too long, or does not say how long it is', async () => {
    const long = Buffer.alloc(1_100_000, 97);
    const form = { 'content-type': 'application/x-www-form-urlencoded', 'content-length': long.length };
    for (const path of ['/sign-in', '/join/observer-monthly', '/desk/find'])
      expect((await raw(path, { method: 'POST', headers: form, body: long })).status, path).toBe(413);
    const chunked = { 'transfer-encoding': 'chunked', 'content-type': 'text/plain' };
    expect((await raw('/sign-in', { method: 'POST', headers: chunked, body: 'a=1' })).status).toBe(411);
    const event = `/api/gateways/${randomUUID()}/events`;
    for (const headers of [{ 'content-length': long.length }, { 'transfer-encoding': 'chunked' }])
      expect([404, 413]).toContain((await raw(event, { method: 'POST', headers, body: long })).status);
  });
});

test.describe('whatever is sent', () => {
  const ODD = [
    'x',
    '00000000-0000-0000-0000-000000000000',
    '%00',
    '%ff',
    '%ed%a0%80',
    '..%2f..%2fetc',
    "'--",
    '%F0%9F%A6%89',
    'a'.repeat(2_000),
  ];
  const PATHS = [
    '/ID',
    '/posts/ID',
    '/join/ID',
    '/buy/ID',
    '/by-mail/ID',
    '/code?word=ID&to=ID',
    '/api/letters/seen/ID',
    '/api/letters/read/ID',
    '/desk/members/letters/ID',
    '/desk/members/addresses?q=ID&page=ID',
    '/desk/money/products/ID',
    '/join/approved/ID',
    '/join/pending/ID',
    '/join/pending/ID/invoice/pdf',
    '/join/done/ID',
    '/sign-in/code/ID',
    '/sign-in/link/ID',
    '/account/receipts/ID',
    '/account/receipts/ID/pdf',
    '/account/receipts/of/ID',
    '/account/approved/ID',
    '/account/to-pay/ID/pdf',
    '/pictures/ID?size=ID',
    '/downloads/ID/ID',
    '/feeds/ID/feed.xml',
    '/feeds/ID/files/ID/ID',
    '/categories/ID',
    '/tags/ID',
    '/archive?month=ID&page=ID',
    '/search?q=ID&page=ID',
    '/look?as=ID',
    '/posts?category=ID&category=ID',
    '/join?to=ID&to=ID',
    '/sign-in?to=ID&to=ID',
    '/feed.xml?key=ID',
    '/desk/find?q=ID&q=ID',
    '/desk/content?kind=ID&q=ID&state=ID&category=ID&tag=ID&author=ID&access=ID&page=ID',
    '/desk/content/items/ID',
    '/desk/content/items/new?kind=ID',
    '/desk/content/items/ID/history?version=ID',
    '/desk/content/calendar?month=ID',
    '/desk/find-items?q=ID&kind=ID',
    '/desk/access/ID',
    '/desk/access?view=ID&view=ID',
    '/desk/tiers/ID',
    '/desk/tiers/ID/offers/ID',
    '/desk/members/ID',
    '/desk/members?q=ID&q=ID&tier=ID&state=ID&page=ID',
    '/desk/members/ID/switch/ID',
    '/desk/money/payments?q=ID&state=ID&page=ID&from=ID&subscription=ID',
    '/desk/money/due?page=ID&page=ID',
    '/desk/money/messages?page=ID',
    '/desk/money/transfers?q=ID',
    '/desk/money/export?from=ID&to=ID&mode=ID',
    '/desk/money/gateways?mode=ID',
    '/desk/money/gateways/consent?state=ID&code=ID',
    '/desk/settings/mail/ID',
    '/desk/settings/mail/log?q=ID&page=ID',
    '/desk/tiers/unfinished?page=ID',
  ];

  for (const [who, email] of [
    ['a visitor', ''],
    ['the owner', OWNER.email],
  ] as const)
    test(`in an address by ${who} is answered, and never by a failure`, async () => {
      test.slow();
      const headers = email ? await sessionOf(email) : {};
      const failed: string[] = [];
      for (const path of PATHS)
        for (const odd of ODD) {
          const asked = path.replaceAll('ID', odd);
          const { status } = await raw(asked, { headers });
          if (status >= 500 || status === 0) failed.push(`${status} ${asked.slice(0, 120)}`);
        }
      expect(failed).toEqual([]);
    });

  test('as a method that is not known is 405, and an address that cannot be read 400', async () => {
    for (const method of ['PUT', 'DELETE', 'PATCH', 'TRACE', 'PROPFIND'])
      expect((await raw('/posts', { method })).status, method).toBe(405);
    for (const path of ['/%ff', '/posts/%00', '/%', '/posts?q=%ff', '/%ed%a0%80'])
      expect((await raw(path)).status, path).toBe(400);
  });

  /** Every action of the build, each with a page that has it. */
  function actions(): { id: string; name: string; path: string }[] {
    const file = joinPath(process.env.NEST_BUILD_DIR ?? '', 'server', 'server-reference-manifest.json');
    type Entry = { workers: Record<string, unknown>; exportedName: string };
    const { node } = JSON.parse(readFileSync(file, 'utf8')) as { node: Record<string, Entry> };
    return Object.entries(node).map(([id, { workers, exportedName }]) => ({
      id,
      name: exportedName,
      path:
        (Object.keys(workers)[0] ?? '')
          .replace(/^app/, '')
          .replace(/\/page$/, '')
          .replace(/\/\([^)]*\)/g, '')
          .replace(/\/\[\[[^\]]*\]\]/g, '')
          .replace(/\[[^\]]*\]/g, 'x') || '/',
    }));
  }
  const deep = '['.repeat(5_000) + ']'.repeat(5_000);
  const part = (name: string, value: string): string =>
    `--b\r\nContent-Disposition: form-data; name="${name}"\r\n\r\n${value}\r\n`;
  const form = (fields: [string, string][]): string =>
    fields.map(([name, value]) => part(name, value)).join('') +
    part('0', '[{"problems":{}},"$K1"]') +
    '--b--\r\n';
  const FIELDS = [
    'id',
    'email',
    'account',
    'subscription',
    'checkoutId',
    'paymentId',
    'tax',
    'sections',
    'body',
  ];
  const multipart = 'multipart/form-data; boundary=b';
  const BODIES: [string, string][] = [
    ['text/plain;charset=UTF-8', '{not json'],
    ['text/plain;charset=UTF-8', deep],
    ['application/json', '{'],
    [multipart, 'no form at all'],
    ['application/x-www-form-urlencoded', 'a=%ff&b=%00'],
    ['text/plain;charset=UTF-8', '[]'],
    ['text/plain;charset=UTF-8', '["$F1","$Q2","$@3"]'],
    ['text/plain;charset=UTF-8', '["\\u0000","\\ud800"]'],
    [multipart, form([])],
    [multipart, form(FIELDS.map((name) => [`1_${name}`, deep]))],
    [multipart, form(FIELDS.map((name) => [`1_${name}`, '\u0000 \ud800 "']))],
    [multipart, form(FIELDS.map((name) => [`1_${name}`, 'no-uuid']))],
  ];

  /** The bodies before it cannot be read. How they are refused depends neither on the sender nor on the action, so a sample is enough. */
  const FIRST_READABLE = BODIES.findIndex(([, body]) => body === '[]');
  const EVERY = 10;
  const FIRST_FORM = BODIES.findIndex(([, body]) => body === form([]));

  for (const [who, email] of [
    ['a visitor', ''],
    ['the owner', OWNER.email],
  ] as const)
    test(`to any action by ${who} is answered, and never by a failure`, async () => {
      test.slow();
      const all = actions();
      expect(all.length).toBeGreaterThan(50);
      const headers = email ? await sessionOf(email) : {};
      const failed: string[] = [];
      for (const [place, { id, name, path }] of all.entries()) {
        if (email && /signOut/.test(name)) continue;
        const first = !email ? FIRST_FORM : place % EVERY === 0 ? 0 : FIRST_READABLE;
        for (const [index, [type, body]] of BODIES.entries()) {
          if (index < first) continue;
          const { status } = await raw(path, {
            method: 'POST',
            headers: {
              ...headers,
              origin: SITE,
              'next-action': id,
              'content-type': type,
              'content-length': Buffer.byteLength(body),
            },
            body,
          });
          if (status >= 500) failed.push(`${status} ${name} at ${path}: body ${index}`);
        }
      }
      expect(failed).toEqual([]);
    });
});

test('every answer says who may do what with it: pages, routes, files, refusals', async () => {
  for (const path of ['/', '/feed.xml', '/no-such-page', '/pictures/x', '/_next/static/none.js', '/%ff']) {
    const { headers } = await raw(path);
    expect(headers['x-content-type-options'], path).toBe('nosniff');
    expect(headers['content-security-policy'], path).toContain('default-src');
    expect(headers['x-request-id'], path).toMatch(/^[\w-]{8,}$/);
    // HTTPS is promised where there is HTTPS alone.
    expect(headers['strict-transport-security'], path).toBeUndefined();
  }
});
