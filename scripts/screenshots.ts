/**
 * Takes the pictures in docs/screenshots from a running demo: node --import tsx scripts/screenshots.ts [SITE-URL] [NAME…]
 * With names, only those.
 */
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from './lib/chromium';
import { MEMBER_PASSWORD, OWNER } from './lib/load-demo';

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

/** Opens the raw frames to one tier and the guides to another, and reviews that. */
const paintedDraft = async (page: Page): Promise<void> => {
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  await page
    .getByLabel(/Raw frames, Eclipse Week$/)
    .first()
    .click();
  await page
    .getByLabel(/Observing guides, Gazer$/)
    .first()
    .click();
  await page.getByRole('button', { name: 'Review' }).click();
  await page.getByText('What the draft changes').waitFor();
};

/** The address of the demo's Letterbox: twenty ports above the site. */
const LETTERBOX = `http://127.0.0.1:${Number(new URL(base).port) + 20}`;

/** Goes through the mailed code to checkout, as a new member does. */
const confirmEmail = async (page: Page): Promise<void> => {
  const email = 'rowan.pike@moor.example';
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
  { name: 'front-page', path: '/', who: 'visitor' },
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
  { name: 'desk-draft', path: '/desk/access?open=category:frames', who: 'owner', act: paintedDraft },
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
];

const browser = await chromium.launch(CHROMIUM);
for (const who of ['owner', 'member', 'visitor'] as const) {
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
