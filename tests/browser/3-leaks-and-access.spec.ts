import { readFileSync } from 'node:fs';
import type axe from 'axe-core';
import type { AxeResults } from 'axe-core';
import { expect, test, type APIRequestContext, type Browser, type Page } from '@playwright/test';
import { pool } from '../../src/platform/store/db';
import { ensureLanternMoor, fillPerson, MEMBER_PASSWORD, newMember, signInAtDesk } from './people';

test.beforeAll(ensureLanternMoor);

/** Words that are only in the closed part of an item of Lantern Moor. */
const CLOSED = {
  '/posts/zodiacal-light': ['third gatepost', 'mend the stove', 'good photograph'],
  '/posts/double-stars': ['written the hour in red', 'Do not raise the power', 'steadiest of the month'],
  '/posts/frames-horsehead': ['Frames 61 to 70', 'guide star was lost'],
  '/posts/mirror-1': ['third of a turn', 'walk round the barrel'],
  '/library': ['latitude of the moor'],
  '/library/winter-charts': ['Crab from where'],
  '/members-room': ['rakes it out'],
  // Open to everyone but for its sections: first and last, one within another, in a list and in a table.
  '/visit': ['padlock on the gate', 'behind the barometer', 'second notch', 'Sign the log', 'quarry track'],
};

const SHAPES: Record<string, string>[] = [
  {},
  { RSC: '1' },
  { RSC: '1', 'Next-Router-Prefetch': '1' },
  { RSC: '1', 'Next-Router-Prefetch': '1', 'Next-Router-Segment-Prefetch': '/_tree' },
  { RSC: '1', 'Next-Router-Prefetch': '1', 'Next-Router-Segment-Prefetch': '/__PAGE__' },
];

async function everythingSent(request: APIRequestContext, paths: string[]): Promise<string> {
  let sent = '';
  for (const path of paths) {
    for (const headers of SHAPES) {
      const response = await request.get(path, { headers });
      sent += JSON.stringify(response.headers()) + (await response.body()).toString('utf8');
    }
  }
  return sent;
}

async function gazer(browser: Browser): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  await page.goto('/join/gazer-free?to=/account');
  await fillPerson(page, {
    name: 'Signe Alder',
    email: `signe.${Date.now()}@moor.example`,
    password: MEMBER_PASSWORD,
  });
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'You now have Gazer' })).toBeVisible({ timeout: 20_000 });
  return page;
}

const paths = [
  ...Object.keys(CLOSED),
  '/',
  '/posts',
  '/posts?category=guides',
  '/categories/guides',
  '/archive',
  '/search?q=gatepost',
  '/search?q=zodiacal+light',
  '/files',
  '/feed.xml',
  '/feed.atom',
  '/feed.json',
  '/sitemap.xml',
  '/join',
  '/desk/find?q=zodiacal',
  '/desk/content/items/zodiacal-light',
  '/posts/zodiacal-light/',
  '/posts//zodiacal-light',
  '/POSTS/zodiacal-light',
];

test('no closed word reaches a visitor: pages, navigation, prefetch, lists, feed, meta tags', async ({
  request,
}) => {
  const sent = await everythingSent(request, paths);
  // The probe itself must be able to find words: the open ones are there.
  expect(sent).toContain('Stand with the dome at your back');
  for (const words of Object.values(CLOSED).flat()) expect(sent).not.toContain(words);
});

test('no closed word reaches a member without the right tier', async ({ browser }) => {
  const page = await gazer(browser);
  const sent = await everythingSent(page.context().request, paths);
  expect(sent).toContain('rakes it out');
  for (const [path, words] of Object.entries(CLOSED))
    if (path !== '/members-room') for (const closed of words) expect(sent).not.toContain(closed);
  await page.context().close();
});

test('the owner is sent the closed words: the probe can find them', async ({ page }) => {
  await signInAtDesk(page);
  const sent = await everythingSent(page.context().request, Object.keys(CLOSED));
  for (const words of ['third gatepost', 'Frames 61 to 70', 'rakes it out']) expect(sent).toContain(words);
});

test('every page is sent with a strict policy, and none may be kept but what is the same for all', async ({
  request,
}) => {
  const headersOf = async (path: string, headers = {}) => (await request.get(path, { headers })).headers();
  const [shared, own, signIn] = [
    await headersOf('/posts/zodiacal-light'),
    await headersOf('/posts/zodiacal-light', { cookie: 'nest_theme=dark' }),
    await headersOf('/sign-in'),
  ];
  expect(shared['content-security-policy']).toMatch(/script-src 'self'( 'sha256-[^']+')+;/);
  expect(shared['cache-control']).toMatch(/^public, max-age=0, s-maxage=1|no-store/);
  for (const headers of [own, signIn]) {
    expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
    expect(headers['cache-control']).toContain('no-store');
  }
  for (const headers of [shared, own, signIn]) {
    expect(headers['content-security-policy']).not.toMatch(/script-src[^;]*unsafe-inline/);
    expect(headers['x-content-type-options']).toBe('nosniff');
  }
});

test('members who hold the same are answered with one page, and nobody else with it', async ({ request }) => {
  const [WORDS, path] = ['third gatepost', '/posts/zodiacal-light'];
  const ask = async (path: string, cookie = '') => {
    const answer = await request.get(path, { headers: cookie ? { cookie } : {} });
    const isKept = !(answer.headers()['content-security-policy'] ?? '').includes('nonce-');
    const html = await answer.text();
    return { isKept, html, isOpen: html.includes(WORDS), isDark: html.includes('data-theme="dark"') };
  };
  const [one, two, gazer, none] = [
    await newMember('Runa Sedge', 'observer'),
    await newMember('Tam Wicket', 'observer'),
    await newMember('Ebba Fenn', 'gazer'),
    await newMember('Odo Marsh'),
  ];
  const first = await ask(path, one.cookie);
  expect(first).toMatchObject({ isKept: true, isOpen: true });
  expect((await ask(path, two.cookie)).html === first.html).toBe(true);
  expect(first.html.match(/Runa|Tam|@moor\.example/)).toBeNull();
  for (const cookie of [
    '',
    gazer.cookie,
    none.cookie,
    `${two.cookie}x`,
    `nest_look=tier:gazer; ${none.cookie}`,
  ])
    expect((await ask(path, cookie)).isOpen).toBe(false);
  // Of two sessions none is trusted to be the one that is meant.
  const both = await ask(path, `${gazer.cookie}; ${one.cookie}`);
  expect(both.isKept).toBe(false);
  // A theme that was chosen is theirs alone.
  expect((await ask(path, `nest_theme=dark; ${one.cookie}`)).isDark).toBe(true);
  expect((await ask(path, one.cookie)).isDark).toBe(false);
  // What shows who they are is made for each.
  const account = await ask('/account', one.cookie);
  expect(account.isKept).toBe(false);
  expect((await ask('/account', two.cookie)).html.includes('Runa')).toBe(false);
  // What they hold is looked up each time, and so is the session.
  await pool().query(`UPDATE holdings SET until_at = from_at + interval '1 ms' WHERE member_id = $1`, [
    two.memberId,
  ]);
  expect((await ask(path, two.cookie)).isOpen).toBe(false);
  expect((await ask(path, one.cookie)).isOpen).toBe(true);
  await pool().query('UPDATE members SET blocked_at = now() WHERE id = $1', [one.memberId]);
  expect((await ask(path, one.cookie)).isOpen).toBe(false);
});

test('a post with comments is one page for members alike, and of their own for those who wrote any', async ({
  browser,
  baseURL,
}) => {
  const path = '/posts/zodiacal-light';
  await pool().query(`UPDATE items SET comments_on = true WHERE id = 'zodiacal-light'`);
  const people = [
    await newMember('Brand Alder', 'observer'),
    await newMember('Siv Carr', 'observer'),
    await newMember('Ned Fold', 'observer'),
  ];
  const pages = await Promise.all(
    people.map(async ({ cookie }) => {
      const [name = '', value = ''] = cookie.split('=');
      const context = await browser.newContext();
      await context.addCookies([{ name, value, url: baseURL ?? '' }]);
      return context.newPage();
    }),
  );
  const [writer, reader, other] = pages as [Page, Page, Page];
  const open = async (page: Page, at = path) => {
    const answer = await page.goto(at);
    const isKept = !(answer?.headers()['content-security-policy'] ?? '').includes('nonce-');
    return { isKept, html: (await answer?.text()) ?? '' };
  };
  const first = await open(writer);
  expect(first.isKept).toBe(true);
  expect(first.html.match(/Brand|Siv|@moor\.example/)).toBeNull();
  expect((await open(reader)).isKept).toBe(true);

  const words = writer.getByRole('textbox', { name: 'Your comment' });
  await words.fill('It stood on the ridge like a lamp.');
  await expect(writer.getByText('Shown as Brand Alder, once it has been approved.')).toBeVisible();
  await writer.getByRole('button', { name: 'Post comment' }).click();
  await expect(writer.getByText('Waiting for approval')).toBeVisible();
  // Loaded anew at once, their own is there still, and others never get that page.
  const own = await open(writer);
  expect([own.isKept, own.html.includes('like a lamp')]).toEqual([false, true]);
  expect((await open(reader)).html).not.toContain('like a lamp');
  expect((await open(writer, '/visit')).isKept).toBe(true);

  // Signed out elsewhere meanwhile: what was typed is sent once they, and nobody else, have signed in again.
  await other.goto(path);
  await other.getByRole('textbox', { name: 'Your comment' }).fill('So it did here.');
  await expect(other.getByText('Shown as Ned Fold, once it has been approved.')).toBeVisible();
  await pool().query('DELETE FROM sessions WHERE member_id = $1', [people[2]?.memberId]);
  await other.getByRole('button', { name: 'Post comment' }).click();
  await expect(other.getByRole('dialog').getByLabel(/^Password for .+@moor\.example$/)).toBeVisible();
  for (const page of pages) await page.context().close();
});

test('changes from another site, unsigned messages and strangers at the Desk are turned away', async ({
  request,
}) => {
  const look = await request.post('/look', {
    form: { as: 'visitor' },
    headers: { origin: 'https://evil.example' },
    maxRedirects: 0,
  });
  expect(look.status()).toBe(403);
  expect((await request.post('/api/gateways/not-an-id/events', { data: '{}' })).status()).toBe(404);
  expect(
    (
      await request.post('/api/gateways/00000000-0000-4000-8000-000000000000/events', { data: '{}' })
    ).status(),
  ).toBe(404);
  for (const path of ['/desk', '/desk/members', '/desk/money/gateways', '/desk/access/guides']) {
    expect((await request.get(path, { maxRedirects: 0 })).headers().location).toContain('/desk/sign-in');
    const payload = (await (await request.get(path, { headers: { RSC: '1' } })).body()).toString('utf8');
    expect(payload).not.toContain('@moor.example');
  }
});

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

/**
 * What axe, which is in the page already, finds there. Contrast is the slowest of its rules: it is looked at once for each
 * look of a text, which is its classes and those of what it is in. The card form belongs to the gateway and is looked at by itself.
 */
const violations = (page: Page, what: 'contrast' | 'all else'): Promise<AxeResults['violations']> =>
  page.evaluate(async (which) => {
    const { axe: inPage } = window as unknown as { axe: typeof axe };
    const options = { resultTypes: ['violations' as const], iframes: false, preload: false };
    if (which === 'all else') {
      const rules = { 'color-contrast': { enabled: false } };
      return (await inPage.run({ exclude: [['iframe']] }, { ...options, rules })).violations;
    }
    const looks = new Map<string, Element>();
    for (const element of document.body.querySelectorAll('*')) {
      const hasWords = [...element.childNodes].some(
        (node) => node.nodeType === 3 && node.textContent?.trim(),
      );
      if (!hasWords && !/^(INPUT|SELECT|TEXTAREA)$/.test(element.tagName)) continue;
      const chain = [element, element.parentElement, element.parentElement?.parentElement];
      const look = chain.map((one) => `${one?.tagName} ${one?.getAttribute('class')}`).join(' < ');
      if (!looks.has(look)) looks.set(look, element);
    }
    return (await inPage.run({ include: [...looks.values()] }, { ...options, runOnly: ['color-contrast'] }))
      .violations;
  }, what);

test.describe('accessibility: no serious finding, and no sideways scrolling', () => {
  /** Everything once; contrast, which alone differs between them, in the light theme and in the dark one. */
  const check = async (page: Page, path: string): Promise<void> => {
    await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    await page.goto(path, { waitUntil: 'load' });
    await page.evaluate(AXE);
    const light = [...(await violations(page, 'all else')), ...(await violations(page, 'contrast'))];
    await page.emulateMedia({ colorScheme: 'dark' });
    const dark = await violations(page, 'contrast');
    const serious = [
      ...light.map((found) => ({ ...found, theme: 'light' })),
      ...dark.map((found) => ({ ...found, theme: 'dark' })),
    ].filter(({ impact }) => impact === 'serious' || impact === 'critical');
    const where = serious.map(({ id, theme, nodes }) => {
      const first = nodes.slice(0, 3).map((node) => node.target.join(' '));
      return `${path} (${theme}): ${id} ${first.join(' | ')}`;
    });
    expect(where).toEqual([]);
    // A phone, and a wide screen at 200 %: nothing makes the page scroll sideways.
    const wide = page.viewportSize();
    for (const width of [390, 640]) {
      await page.setViewportSize({ width, height: 844 });
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect(over, `${path} at ${width}`).toBeLessThanOrEqual(0);
    }
    if (wide) await page.setViewportSize(wide);
  };

  test('on the site', async ({ page }) => {
    for (const path of [
      '/',
      '/posts',
      '/posts/zodiacal-light',
      '/categories/guides',
      '/archive',
      '/search?q=dome',
      '/join',
      '/join?every=1-year',
      '/join/observer-monthly',
      '/sign-in/other-browser',
      '/by-mail',
      '/register',
      '/code',
      '/sign-in',
      '/nowhere',
    ])
      await check(page, path);
  });

  test('where a code is typed', async ({ page }) => {
    await page.goto('/join/gazer-free');
    await page.getByLabel('Your email').fill('axe@moor.example');
    await page.getByRole('button', { name: 'Continue' }).click();
    await expect(page).toHaveURL(/sign-in\/code/);
    await check(page, '/sign-in/code');
  });

  test('in the account', async ({ browser }) => {
    const page = await gazer(browser);
    await check(page, new URL(page.url()).pathname);
    await check(page, '/account');
    await check(page, '/account/settings');
    await check(page, '/account/receipts');
    await check(page, '/join/warden-monthly');
    await check(page, '/join/eclipse-week-once');
    await page.context().close();
  });

  test('at the Desk', async ({ page }) => {
    test.slow();
    await check(page, '/desk/sign-in');
    await signInAtDesk(page);
    for (const path of [
      '',
      '/content',
      '/content/items/visit',
      '/content/items/visit/history?version=1',
      '/content?kind=file',
      '/content/menu',
      '/content/categories',
      '/content/tags',
      '/content/kinds',
      '/content/calendar',
      '/content/trash',
      '/access?why=zodiacal-light&as=visitor',
      '/access?view=rulebook',
      '/access/guides',
      '/access/doorsteps',
      '/access/meters',
      '/access/meters/notes',
      '/access/passes',
      '/access/passes/clinic-guests',
      '/access/outside',
      '/access/outside/new',
      '/access/check',
      '/tiers',
      '/tiers/warden',
      '/tiers/warden/offers/warden-monthly',
      '/tiers/new',
      '/tiers/links',
      '/tiers/questions',
      '/tiers/unfinished',
      '/members',
      '/members/groups',
      '/members/import',
      '/members/invite',
      '/members/letters',
      '/members/letters/new',
      '/members/addresses',
      '/money',
      '/money/payments',
      '/money/due',
      '/money/failed',
      '/money/transfers',
      '/money/gateways',
      '/money/books',
      '/money/messages',
      '/money/products',
      '/money/products/new',
      '/money/codes',
      '/money/codes/new',
      '/settings',
      '/settings/theme',
      '/settings/api',
      '/settings/transfer',
      '/settings/words',
      '/settings/tax',
      '/settings/staff',
      '/members/groups/committee',
      '/settings/staff/editor',
      '/settings/webhooks',
      '/settings/dunning',
      '/settings/mail',
      '/settings/mail/receipt',
      '/settings/mail/log',
      '/settings/account',
      '/settings/audit',
      '/settings/live',
    ])
      await check(page, `/desk${path}`);
  });
});
