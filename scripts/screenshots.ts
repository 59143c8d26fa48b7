/**
 * Takes the pictures in docs/screenshots from a running demo: node --import tsx scripts/screenshots.ts [SITE-URL] [NAME…]
 * With names, only those.
 */
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from './lib/chromium';
import { MEMBER_PASSWORD, OWNER } from './lib/load-demo';
import { readKeys } from './lib/stand-ins';
import { numbered } from '../stand-ins/curlew-cards/cards';

const [base = 'http://127.0.0.1:4100', ...only] = process.argv.slice(2);
const folder = process.env.SCREENSHOT_FOLDER ?? 'docs/screenshots';

async function signIn(page: Page, email: string, password: string, to: string): Promise<void> {
  await page.goto(`${base}${to}`);
  await page.getByLabel('Email', { exact: true }).fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.waitForURL((url) => !url.pathname.endsWith('/sign-in'));
}

type Shot = {
  name: string;
  path: string;
  who: 'visitor' | 'member' | 'owner';
  width?: number;
  dark?: boolean;
  act?: (page: Page) => Promise<void>;
  height?: number;
  full?: boolean;
};

const firstMember = async (page: Page): Promise<void> => {
  await page.getByRole('link', { name: 'Osric Dunmore' }).first().click();
  await page.waitForURL(/members\/./);
};

const firstLetter = async (page: Page): Promise<void> => {
  await page.getByRole('main').getByRole('row').getByRole('link').first().click();
  await page.waitForURL(/letters\/./);
};

/** The address of the demo's Letterbox: twenty ports above the site. */
const LETTERBOX = `http://127.0.0.1:${Number(new URL(base).port) + 20}`;

/** Goes through the mailed code to checkout, as a new member does. */
const confirmEmail = async (page: Page, email = 'rowan.pike@moor.example'): Promise<void> => {
  const codes = async (): Promise<string[]> => {
    const letters = await page.request.get(`${LETTERBOX}/letters.json?to=${encodeURIComponent(email)}`);
    return ((await letters.json()) as { text: string }[]).flatMap(({ text }) => /^\d{6}$/m.exec(text) ?? []);
  };
  const before = (await codes()).length;
  await page.getByLabel('Your email').fill(email);
  await page.getByRole('button', { name: 'Continue' }).click();
  const code = page.getByRole('textbox', { name: 'Code' });
  await code.waitFor();
  while ((await codes()).length === before) await page.waitForTimeout(300);
  await code.fill((await codes())[0] ?? '');
  await page.getByRole('button', { name: 'Continue' }).click();
  await page.getByText('Signed in as').waitFor();
  await page.waitForTimeout(1_500);
};

/** The address of the demo's card gateway: ten ports above the site. */
const GATEWAY = `http://127.0.0.1:${Number(new URL(base).port) + 10}`;

/** Takes the demo live, and lets three people join with the gateway's live cards. It stays live, so it comes last. */
const goneLive = async (page: Page): Promise<void> => {
  const { siteKey, secretKey } = await readKeys(GATEWAY, 'live');
  await page.goto(`${base}/desk/money/gateways?mode=live`);
  const form = page.getByRole('form', { name: 'Connect Curlew Cards' });
  await form.getByLabel('Site key').fill(siteKey);
  await form.getByLabel('Secret key').fill(secretKey);
  await form.getByLabel('Your password').fill(OWNER.password);
  await form.getByRole('button', { name: 'Check and connect' }).click();
  await form.getByText('Connected.').waitFor();
  await page.goto(`${base}/desk/settings/live`);
  const live = page.getByRole('form', { name: 'Go live' });
  await live.getByLabel(/To confirm, type the name/).fill('Lantern Moor');
  await live.getByLabel('Your password').fill(OWNER.password);
  await page.getByRole('button', { name: 'Go live' }).click();
  await page.getByText('The site has been live since').waitFor();
  for (const [offer, name, serial] of [
    ['eclipse-week-once', 'Rowan Pike', 101],
    ['mirror-makers-instalments', 'Linnet Ashe', 102],
    ['observer-monthly', 'Corin Vale', 103],
  ] as const) {
    const context = await browser.newContext({ locale: 'en-GB' });
    const visitor = await context.newPage();
    await visitor.goto(`${base}/join/${offer}`);
    await confirmEmail(visitor, `${name.toLowerCase().replace(' ', '.')}@moor.example`);
    await visitor.getByLabel('Name', { exact: true }).fill(name);
    await visitor.getByLabel(/I keep the rules/).check();
    const frame = visitor.frameLocator('iframe[title^="Card details"]');
    await frame.getByLabel('Card number').fill(numbered(serial));
    await frame.getByLabel('Expires').fill('09/29');
    await frame.getByLabel('Code').fill('123');
    await visitor.getByRole('button', { name: /^(Pay |Join$)/ }).click();
    await visitor.waitForURL((url) => !url.pathname.startsWith(`/join/${offer}`));
    await context.close();
  }
  await page.goto(`${base}/desk`, { waitUntil: 'networkidle' });
};

const OLD_LIST = `Email,First name,Surname,Plan,Since,Expires
ada.fell@list.example,Ada,Fell,Observer,2026-01-01,2030-12-31
bo.fell@list.example,Bo,Fell,Star Warden,2025-06-01,
cy at list.example,Cy,Moss,,,
dee.heath@list.example,Dee,Heath,Gold,,
`;

/** Looks through a file of members. */
const checkedFile = async (page: Page): Promise<void> => {
  const file = { name: 'old list.csv', mimeType: 'text/csv', buffer: Buffer.from(OLD_LIST) };
  await page.setInputFiles('input[type=file]', file);
  await page.getByRole('button', { name: 'Check the file' }).click();
  await page.getByText('What would happen').waitFor();
};

const SHOTS: Shot[] = [
  { name: 'doorstep', path: '/posts/zodiacal-light', who: 'visitor' },
  { name: 'join', path: '/join', who: 'visitor' },
  { name: 'front-phone', path: '/', who: 'visitor', width: 390, height: 844 },
  { name: 'account', path: '/account', who: 'member' },
  { name: 'members-room', path: '/members-room', who: 'member' },
  { name: 'post', path: '/posts/zodiacal-light', who: 'member' },
  {
    name: 'checkout',
    path: '/join/observer-monthly?to=/posts/zodiacal-light',
    who: 'visitor',
    act: confirmEmail,
  },
  { name: 'desk-today', path: '/desk', who: 'owner' },
  { name: 'desk-content', path: '/desk/content', who: 'owner' },
  {
    name: 'desk-editor',
    path: '/desk/content/items/visit',
    who: 'owner',
    act: (page) => page.locator('.ProseMirror section').first().waitFor(),
    height: 1100,
  },
  {
    name: 'desk-access',
    path: '/desk/access?open=category:frames&why=frames-horsehead&as=tier:observer',
    who: 'owner',
  },
  { name: 'desk-letter', path: '/desk/members/letters', who: 'owner', act: firstLetter },
  { name: 'desk-import', path: '/desk/members/import', who: 'owner', act: checkedFile, full: true },
  {
    name: 'desk-offer',
    path: '/desk/tiers/warden/offers/warden-monthly',
    who: 'owner',
    act: (page) => page.waitForTimeout(400),
    full: true,
  },
  { name: 'desk-members', path: '/desk/members', who: 'owner' },
  { name: 'desk-member', path: '/desk/members', who: 'owner', act: firstMember },
  { name: 'desk-codes', path: '/desk/money/codes', who: 'owner' },
  { name: 'desk-staff', path: '/desk/settings/staff', who: 'owner', full: true },
  { name: 'desk-today-live', path: '/desk', who: 'owner', act: goneLive },
];

const browser = await chromium.launch(CHROMIUM);
for (const who of ['visitor', 'member', 'owner'] as const) {
  const shots = SHOTS.filter((shot) => shot.who === who && (only.length === 0 || only.includes(shot.name)));
  if (shots.length === 0) continue;
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
  const page = await context.newPage();
  page.on(
    'console',
    (message) =>
      message.type() === 'error' && console.log(`  ${page.url()}: ${message.text().slice(0, 300)}`),
  );
  if (who === 'member') await signIn(page, 'maren.oakley@moor.example', MEMBER_PASSWORD, '/sign-in');
  if (who === 'owner') await signIn(page, OWNER.email, OWNER.password, '/desk/sign-in');
  for (const shot of shots) {
    await page.setViewportSize({ width: shot.width ?? 1280, height: shot.height ?? 800 });
    await page.emulateMedia({ colorScheme: shot.dark ? 'dark' : 'light' });
    await page.goto(new URL(shot.path, base).toString(), { waitUntil: 'networkidle' });
    await shot.act?.(page);
    await page.waitForTimeout(150);
    await page.screenshot({ path: `${folder}/${shot.name}.png`, fullPage: shot.full });
    console.log(shot.name);
  }
  await context.close();
}
await browser.close();
