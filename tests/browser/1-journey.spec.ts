import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import {
  confirmIn,
  expectLetter,
  fillPerson,
  fillPersonByCode,
  lettersTo,
  moveClock,
  OWNER,
  pickCard,
  signIn,
  testKeys,
} from './people';

/** From an empty site to a paying member who reads a closed page: the order in which an owner works. */
test.describe.configure({ mode: 'serial' });

const SECRET = 'the key is under the third stone';
const maren = { name: 'Maren Oakley', email: 'maren@moor.example', password: 'look up more often' };
const osric = { name: 'Osric Dunmore', email: 'osric@moor.example', password: 'look up more often' };

let desk: Page;
let owners: BrowserContext;
let visitors: BrowserContext;
let visitor: Page;

test.beforeAll(async ({ browser }) => {
  owners = await browser.newContext();
  visitors = await browser.newContext();
  [desk, visitor] = [await owners.newPage(), await visitors.newPage()];
});
test.afterAll(async () => {
  await owners.close();
  await visitors.close();
});

test('1. the owner signs in at the Desk, and finds the way about', async () => {
  await desk.goto('/desk/tiers');
  await signIn(desk, OWNER.email, 'not the password');
  await expect(desk.getByRole('alert').filter({ hasText: 'don’t match' })).toBeVisible();
  await expect(desk.getByLabel('Email', { exact: true })).toHaveValue(OWNER.email);
  await signIn(desk, OWNER.email, OWNER.password);
  await expect(desk.getByRole('heading', { name: 'Tiers', exact: true })).toBeVisible();
  await expect(desk.getByRole('navigation', { name: 'Desk' }).getByRole('link')).toHaveText([
    'Today',
    'Content',
    'Access',
    'Tiers',
    'Members',
    'Money',
  ]);
  await expect(desk.getByText('No real money')).toBeVisible();

  await desk.getByRole('button', { name: 'Lantern Moor' }).click();
  await desk.getByRole('menuitem', { name: 'Dark' }).click();
  await expect(desk.locator('html')).toHaveAttribute('data-theme', 'dark');
  await desk.getByRole('button', { name: 'Lantern Moor' }).click();
  await desk.getByRole('menuitem', { name: 'System' }).click();
  await expect(desk.locator('html')).not.toHaveAttribute('data-theme', /./);

  await desk.keyboard.press('?');
  await expect(desk.getByRole('heading', { name: 'Keys' })).toBeVisible();
  await desk.keyboard.press('Escape');
  await desk.keyboard.press('Control+k');
  await desk.getByRole('combobox', { name: 'Find' }).fill('gateways');
  await desk.getByRole('option', { name: /Gateways/ }).click();
  await expect(desk).toHaveURL(/money\/gateways/);
});

test('2. connects Curlew Cards in test mode; each wrong key gets its own sentence', async () => {
  const keys = await testKeys();
  const connect = async (siteKey: string, secretKey: string, password = OWNER.password): Promise<void> => {
    await desk.getByLabel('Site key').fill(siteKey);
    await desk.getByLabel('Secret key').fill(secretKey);
    await confirmIn(desk.getByRole('form', { name: 'Connect Curlew Cards' }), password);
    await desk.getByRole('button', { name: 'Check and connect' }).click();
  };
  await connect('', '');
  await expect(desk.getByText('Paste the site key.')).toBeVisible();
  await connect(keys.siteKey, keys.secretKey.slice(0, -6));
  await expect(desk.getByText('This key is cut off: 6 characters are missing')).toBeVisible();
  await connect(keys.siteKey, keys.secretKey.replace('_test_', '_live_'));
  await expect(desk.getByText('This is a live-mode key')).toBeVisible();
  await connect(keys.siteKey, keys.siteKey);
  await expect(desk.getByText('This is the site key.')).toBeVisible();
  await expect(desk.getByLabel('Site key')).toHaveValue(keys.siteKey);
  await connect(keys.siteKey, keys.secretKey, 'not my password');
  await expect(desk.getByText('This isn’t your password. Nothing was changed.')).toBeVisible();
  await connect(keys.siteKey, keys.secretKey);
  const card = desk.getByRole('region', { name: 'Curlew Cards' });
  await expect(card.getByText(/^heard on/)).toBeVisible({ timeout: 20_000 });
  await expect(card.getByText('match the gateway’s: 0 payments')).toBeVisible();
  await expect(desk.getByLabel('Secret key')).toHaveValue('');
  await desk.reload();
  expect(await desk.content()).not.toContain(keys.secretKey);
});

test('3. makes tiers with offers, and sees every date and amount before saving', async () => {
  await desk.goto('/desk/tiers');
  await desk.getByRole('link', { name: 'New tier' }).click();
  await desk.getByRole('button', { name: 'Create the tier' }).click();
  await expect(desk.getByText('Name the tier.')).toBeVisible();
  await desk.getByLabel('Name', { exact: true }).fill('Observer');
  await desk.getByRole('textbox', { name: 'Description' }).fill('Every guide and note.');
  await desk.getByRole('button', { name: 'Create the tier' }).click();
  await desk.getByRole('link', { name: 'Add its first offer' }).click();

  await desk.getByRole('button', { name: 'Create the offer' }).click();
  await expect(desk.getByText('Type an amount, or 0 for free.')).toBeVisible();
  const price = desk.getByRole('listitem').filter({ hasText: 'Repeating price' });
  await price.getByLabel('Amount (GBP)').fill('6.005');
  await expect(price.getByText('GBP has at most 2 decimals.')).toBeVisible();
  await price.getByLabel('Amount (GBP)').fill('6');
  await desk.getByRole('button', { name: 'Begin with a trial' }).click();
  await desk.getByLabel('Name of the offer').fill('Monthly');
  await expect(desk.getByText('“14 days free, then £6 a month until you cancel.”')).toBeVisible();
  await desk.getByLabel('if they join on').fill('2027-01-31');
  const table = desk.getByRole('table');
  await expect(table.getByRole('row').nth(1)).toContainText('Sun 31 Jan 2027');
  await expect(table.getByRole('row').nth(1)).toContainText('£0.00');
  await expect(table.getByRole('row').nth(2)).toContainText('Sun 14 Feb 2027');
  await expect(table.getByRole('row').last()).toContainText('12 payments');
  await expect(table.getByRole('row').last()).toContainText('£72.00');
  await desk.getByRole('button', { name: 'Create the offer' }).click();
  await expect(desk.getByRole('heading', { name: 'Observer: Monthly', exact: true })).toBeVisible();
  await expect(desk.getByText('/join/observer-monthly', { exact: false })).toBeVisible();

  // A free tier, and one paid for once.
  for (const [name, offer, amount, sentence] of [
    ['Gazer', 'Free', '0', '“Free for good.”'],
    ['Founder', 'For good', '400', '“£400 once, for good.”'],
  ] as const) {
    await desk.goto('/desk/tiers/new');
    await desk.getByLabel('Name', { exact: true }).fill(name);
    await desk.getByRole('button', { name: 'Create the tier' }).click();
    await desk.getByRole('link', { name: 'Add its first offer' }).click();
    await desk.getByRole('button', { name: 'Add a single payment' }).click();
    await desk.getByRole('button', { name: 'Remove this step' }).first().click();
    await desk.getByLabel('Amount (GBP)').fill(amount);
    await desk.getByLabel('Lasts').selectOption('forever');
    await desk.getByLabel('Name of the offer').fill(offer);
    await expect(desk.getByText(sentence)).toBeVisible();
    await desk.getByRole('button', { name: 'Create the offer' }).click();
    await expect(desk.getByRole('heading', { name: `${name}: ${offer}`, exact: true })).toBeVisible();
  }
});

test('4. writes a page with a summary, and publishes it', async () => {
  await desk.goto('/desk/content');
  await desk.getByRole('link', { name: 'New page' }).click();
  await desk.getByRole('button', { name: 'Publish' }).click();
  await expect(desk.getByText('Give it a title.')).toBeVisible();
  await desk.getByLabel('Title').fill('Where the key is');
  await desk.getByLabel('Summary').fill('On finding the way into the dome.');
  const editor = desk.getByRole('textbox', { name: 'Text' });
  await editor.click();
  await editor.pressSequentially(
    'Walk round the dome once, from the left, and count the stones as you go along. ',
  );
  await editor.press('Enter');
  await desk.getByRole('button', { name: 'Bold' }).click();
  await editor.pressSequentially(`And now: ${SECRET}.`);
  await desk.getByRole('button', { name: 'Publish' }).click();
  await expect(desk.getByText('Saved.')).toBeVisible();
  await desk.getByRole('button', { name: 'Add to the menu' }).click();
  await expect(desk.getByRole('button', { name: 'Add to the menu' })).toHaveCount(0);
  await visitor.goto('/where-the-key-is');
  await expect(visitor.locator('strong')).toContainText(SECRET);
});

test('5. closes the page to all but that tier, with a doorstep', async () => {
  await desk.getByRole('link', { name: 'Add a rule for it' }).click();
  await desk.getByLabel('Add a tier, a group or others').fill('Observer');
  await desk.getByRole('option', { name: 'Observer', exact: true }).click();
  await desk.getByLabel('Its own doorstep').check();
  await desk.getByLabel('How many').fill('0');
  await desk.getByRole('button', { name: 'Create the rule' }).click();
  await expect(desk.getByText('At least one.')).toBeVisible();
  await desk.getByLabel('How many').fill('9');
  await desk.getByLabel('Notice for: Visitors').fill('The rest is for Observers.');
  await desk.getByRole('button', { name: 'Create the rule' }).click();
  const row = desk.getByRole('row').filter({ hasText: 'Where the key is' });
  await expect(row.getByRole('gridcell')).toHaveText(['Closed', 'Closed', 'Open', 'Closed', 'Closed']);
});

test('6. a visitor sees the teaser and the doorstep; the closed words are in nothing the server sent', async () => {
  await visitor.goto('/where-the-key-is');
  await expect(visitor.getByText('Walk round the dome once, from the left, and…')).toBeVisible();
  await expect(visitor.getByRole('heading', { name: 'This page is for Observer' })).toBeVisible();
  await expect(visitor.getByText('The rest is for Observers.')).toBeVisible();
  const shapes: Record<string, string>[] = [{}, { RSC: '1' }, { RSC: '1', 'Next-Router-Prefetch': '1' }];
  for (const headers of shapes) {
    const response = await visitors.request.get('/where-the-key-is', { headers });
    const bytes = (await response.body()).toString('latin1');
    if (!headers['Next-Router-Prefetch']) expect(bytes).toContain('Walk round the dome');
    expect(bytes).not.toContain('third stone');
    expect(bytes).not.toContain('count the stones');
  }
});

test('7. the visitor joins on one page and is brought back to the page they wanted, open', async ({
  request,
}) => {
  await visitor.getByRole('link', { name: 'Join Observer' }).click();
  await expect(visitor.getByRole('complementary', { name: 'What you pay' })).toContainText('Due today£0.00');
  await expect(visitor.getByRole('complementary', { name: 'What you pay' })).toContainText('£6.00');
  await fillPersonByCode(visitor, maren);
  await expect(visitor.getByRole('complementary', { name: 'What you pay' })).toContainText('Due today£0.00');
  await pickCard(visitor, 'Works');
  await visitor.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(visitor.getByRole('heading', { name: 'You now have Observer' })).toBeVisible({
    timeout: 20_000,
  });
  await expect(visitor.getByRole('complementary', { name: 'Receipt' })).toContainText('Paid todaynothing');
  const password = visitor.getByRole('form', { name: 'Password' });
  await password.getByLabel('New password').fill('password123');
  await password.getByRole('button', { name: 'Set password' }).click();
  await expect(password.getByText('This password is easy to guess.')).toBeVisible();
  await password.getByLabel('New password').fill(maren.password);
  await password.getByRole('button', { name: 'Set password' }).click();
  await expect(visitor.getByText('You sign in with your password')).toBeVisible();
  await visitor.getByRole('link', { name: 'Continue to the page you came from' }).click();
  await expect(visitor.getByText(SECRET)).toBeVisible();
  await expect(visitor).toHaveURL(/where-the-key-is$/);
  await expectLetter(request, maren.email, /^Welcome to Lantern Moor, Maren$/);
});

test('8. Members and Money show the member, the trial and the next charge', async () => {
  await desk.goto('/desk/members');
  const row = desk.getByRole('row').filter({ hasText: 'Maren Oakley' });
  await expect(row).toContainText('Observer');
  await expect(row).toContainText('in trial');
  await expect(row).toContainText('£6.00 on');
  await row.getByRole('link').click();
  await expect(desk.getByText('Next charge for Observer')).toBeVisible();
  await desk.goto('/desk/money');
  await expect(desk.getByRole('row').filter({ hasText: 'Maren Oakley' })).toContainText('in trial');
});

test('9. the clock is moved: one charge, one receipt; a card that fails later closes the page after the retries', async ({
  request,
  browser,
}) => {
  const other = await browser.newContext();
  const page = await other.newPage();
  await page.goto('/join/observer-monthly?to=/where-the-key-is');
  await fillPerson(page, osric);
  await pickCard(page, 'Fails later');
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await page.getByRole('link', { name: 'Continue to the page you came from' }).click({ timeout: 20_000 });
  await expect(page.getByText(SECRET)).toBeVisible();

  await moveClock(desk, 15);
  await expectLetter(request, maren.email, /^Receipt: £6.00 for Observer$/);
  await desk.goto('/desk/money/payments');
  await expect(desk.getByRole('row').filter({ hasText: 'Maren Oakley' })).toHaveCount(1);
  await expect(desk.getByRole('row').filter({ hasText: 'Maren Oakley' })).toContainText('received');

  await moveClock(desk, 31);
  // Thirty-one days reach the failure, and in a long month the first retry too.
  await expect
    .poll(async () => (await lettersTo(request, osric.email)).map((letter) => letter.subject))
    .toContain('A payment for Observer failed');
  await desk.goto('/desk/money?state=overdue');
  await expect(desk.getByRole('row').filter({ hasText: 'Osric Dunmore' })).toContainText('overdue');
  await page.reload();
  await expect(page.getByText(SECRET)).toBeVisible();

  await moveClock(desk, 8);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'This page is for Observer' })).toBeVisible();
  await expect(page.getByText(SECRET)).toHaveCount(0);
  await expectLetter(request, osric.email, /has ended: the payment failed$/);
  await desk.goto('/desk/money/gateways');
  await expect(desk.getByText(/match the gateway’s: \d+ payments, no difference/)).toBeVisible();
  await other.close();
});

test('10. the member signs in, sees what they hold, cancels, and keeps access to the end of what is paid', async ({
  request,
}) => {
  await visitor.goto('/account');
  await visitor.getByRole('button', { name: 'Sign out' }).click();
  // Going elsewhere before the answer would take the signing out back.
  await expect(visitor.getByRole('link', { name: 'Sign in' })).toBeVisible();
  await visitor.goto('/where-the-key-is');
  await visitor.getByText('Already a member?').click();
  await signIn(visitor, maren.email, maren.password);
  await expect(visitor.getByText(SECRET)).toBeVisible();

  await visitor.goto('/account');
  const held = visitor.getByRole('region', { name: 'Observer' });
  await expect(held).toContainText('Next charge: £6.00 on');
  await expect(held).toContainText('card ending');
  await held.getByText('Cancel Observer', { exact: true }).click();
  await held.getByRole('button', { name: 'Yes, cancel' }).click();
  await expect(held).toContainText('Cancelled. You have access until');
  await held.getByRole('button', { name: 'Undo cancellation' }).click();
  await expect(held).toContainText('Next charge: £6.00 on');
  await held.getByText('Cancel Observer', { exact: true }).click();
  await held.getByRole('button', { name: 'Yes, cancel' }).click();
  await expect(held).toContainText('Cancelled');
  await visitor.goto('/where-the-key-is');
  await expect(visitor.getByText(SECRET)).toBeVisible();

  const before = (await lettersTo(request, maren.email)).filter((letter) =>
    letter.subject.startsWith('Receipt'),
  ).length;
  await moveClock(desk, 31);
  await visitor.reload();
  await expect(visitor.getByText(SECRET)).toHaveCount(0);
  await expectLetter(request, maren.email, /^Observer has ended$/);
  await expectLetter(request, maren.email, /^Receipt/, before);
});
