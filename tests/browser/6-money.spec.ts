import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  confirmIn,
  mailedCode,
  ensureLanternMoor,
  fillPerson,
  MEMBER_PASSWORD,
  signInAtDesk,
  WALLET_URL,
} from './people';

test.describe.configure({ mode: 'serial' });
test.beforeAll(() => ensureLanternMoor());

const EMAIL = {
  wallet: 'oona.wallet@moor.example',
  transfer: 'tam.transfer@moor.example',
  card: 'cass.card@moor.example',
};
const person = (email: string) => ({ name: 'Someone New', email, password: MEMBER_PASSWORD });
let desk: Page;

test.beforeAll(async ({ browser }) => {
  desk = await (await browser.newContext()).newPage();
  await signInAtDesk(desk);
  await desk.goto('/desk');
});
test.afterAll(() => desk.context().close());

async function visitor(browser: Browser): Promise<Page> {
  return (await browser.newContext()).newPage();
}

test('the owner connects the wallet by consent, and is told when they did not give it', async () => {
  await desk.goto('/desk/money/gateways');
  const form = desk.getByRole('form', { name: 'Connect Dunlin Wallet' });
  await confirmIn(form);
  await desk.getByRole('button', { name: 'Go to Dunlin Wallet' }).click();
  await desk.getByRole('button', { name: 'Refuse' }).click();
  await expect(desk.getByText('You did not give consent.')).toBeVisible();
  await confirmIn(form);
  await desk.getByRole('button', { name: 'Go to Dunlin Wallet' }).click();
  await expect(desk.getByRole('heading', { name: 'Lantern Moor' })).toBeVisible();
  await desk.getByRole('button', { name: 'Allow' }).click();
  const card = desk.getByRole('region', { name: 'Dunlin Wallet: Dunlin Wallet' });
  await expect(card.getByText(/heard on/)).toBeVisible();
  // The answer of the consent page is good once.
  await desk.goto('/desk/money/gateways/consent?state=made-up&code=code_x');
  await expect(desk.getByText(/This consent has expired/)).toBeVisible();
});

test('where registering the webhook fails, it is registered by hand', async ({ page }) => {
  await page.goto(WALLET_URL);
  await page.getByLabel('Addresses for messages').selectOption('only by hand');
  await page.getByRole('button', { name: 'Set' }).click();
  await desk.goto('/desk/money/gateways');
  const card = desk.getByRole('region', { name: 'Dunlin Wallet: Dunlin Wallet' });
  await card.getByRole('button', { name: 'Register the webhook again' }).click();
  await expect(card.getByText(/could not be registered: Dunlin Wallet answered 403/).first()).toBeVisible();
  await card.getByText('Register the webhook by hand').click();
  const address = await card.getByText(/\/api\/gateways\//).textContent();
  await page.goto(WALLET_URL);
  await page.getByLabel('Address', { exact: true }).fill(address ?? '');
  await page.getByRole('button', { name: 'Add' }).click();
  const secret = await page.locator('[data-secret]').last().textContent();
  await card.getByLabel('Signing secret').fill('whsec_no');
  await card.getByRole('button', { name: /^Save and send/ }).click();
  await expect(card.getByText(/begins with whsec_ and is copied whole/)).toBeVisible();
  await card.getByLabel('Signing secret').fill(secret ?? '');
  await confirmIn(card.locator('form').filter({ has: desk.locator('input[name=secret]') }));
  await card.getByRole('button', { name: /^Save and send/ }).click();
  await expect(card.getByText(/heard on/)).toBeVisible();
  await page.goto(WALLET_URL);
  await page.getByRole('button', { name: 'Set' }).click();
});

test('the owner accepts transfers, and orders the gateways', async () => {
  await desk.goto('/desk/money/gateways');
  await desk.getByText('Accept transfers').first().click();
  const form = desk.getByRole('form', { name: 'Accept transfers' });
  await form.getByLabel('Days to pay').fill('soon');
  await form.getByRole('button', { name: 'Accept transfers' }).click();
  await expect(form.getByText('Type the name on the account.')).toBeVisible();
  await expect(form.getByText('Type a number of days.')).toBeVisible();
  await form.getByLabel('Name on the account').fill('Lantern Moor Society');
  await form.getByLabel('Account', { exact: true }).fill('40-17-92 00481516');
  await form.getByLabel('Days to pay').fill('14');
  await confirmIn(form);
  await form.getByRole('button', { name: 'Accept transfers' }).click();
  const card = desk.getByRole('region', { name: 'Bank transfer: Bank transfer' });
  await card.getByLabel('Name at checkout').fill('By your bank');
  await card.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(desk.getByRole('region', { name: 'Bank transfer: By your bank' })).toBeVisible();
});

test('a visitor joins by wallet: approves there, comes back signed in, and holds the tier', async ({
  browser,
}) => {
  const page = await visitor(browser);
  await page.goto('/join/observer-monthly');
  await fillPerson(page, person(EMAIL.wallet));
  await page.getByLabel('Dunlin Wallet').check();
  await page.getByRole('button', { name: 'Continue to Dunlin Wallet' }).click();
  await expect(page).toHaveURL(/approve/);
  await page.getByRole('button', { name: 'Refuse' }).click();
  await expect(page.getByRole('heading', { name: 'You haven’t joined' })).toBeVisible();
  await page.getByRole('link', { name: 'Try again' }).click();
  await fillPerson(page, person(EMAIL.wallet));
  await page.getByLabel('Dunlin Wallet').check();
  await page.getByRole('button', { name: 'Continue to Dunlin Wallet' }).click();
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByRole('heading', { name: 'You now have Observer' })).toBeVisible();
  await page.goto('/account');
  await expect(page.getByText('Paid by Dunlin Wallet')).toBeVisible();
  await page.context().close();
});

test('a visitor joins by transfer; the statement that brings it opens the tier', async ({ browser }) => {
  const page = await visitor(browser);
  await page.goto('/join/eclipse-week-once');
  await fillPerson(page, person(EMAIL.transfer));
  await page.getByLabel('By your bank').check();
  await page.getByRole('button', { name: 'Continue to the bank details' }).click();
  await expect(page.getByRole('heading', { name: 'Now send the transfer' })).toBeVisible();
  const reference = (await page.getByText(/^[2-9A-Z]{4}-[2-9A-Z]{4}$/).textContent()) ?? '';
  await desk.goto('/desk/money/transfers');
  await expect(desk.getByRole('row', { name: new RegExp(reference) })).toBeVisible();
  const statement = `date,amount,payer,words\n2026-11-25,25.00,Tam,${reference}\n2026-11-25,3.00,Nobody,hello`;
  await desk.getByLabel('Or paste it').fill(statement);
  await desk.getByRole('button', { name: 'Try it first' }).click();
  await expect(desk.getByText('This is what would be done')).toBeVisible();
  await expect(desk.getByRole('row', { name: new RegExp(reference) })).toBeVisible();
  await desk.getByRole('button', { name: 'Import' }).click();
  await expect(desk.getByText('This is what was done')).toBeVisible();
  await expect(desk.getByText('No transfers are due.')).toBeVisible();
  await desk.getByLabel('Or ignore it').fill('sent back');
  await desk.getByRole('button', { name: 'Ignore' }).click();
  await expect(desk.getByRole('heading', { name: 'Unmatched' })).toHaveCount(0);
  await page.goto('/account');
  await expect(page.getByRole('region', { name: 'Eclipse Week' })).toContainText('You have access until');
  await page.context().close();
});

test('staff see the history of a payment in a drawer, and refund part of it, once', async () => {
  await desk.goto('/desk/money/payments?q=tam.transfer');
  await desk.getByRole('link', { name: 'Someone New' }).or(desk.locator('tbody a').first()).first().click();
  const drawer = desk.getByRole('complementary', { name: /Subscription of/ });
  await expect(drawer.getByRole('heading', { name: 'History' })).toBeVisible();
  await drawer.getByText('Refund…').click();
  const form = drawer.getByRole('form', { name: 'Refund' });
  await form.getByLabel('Amount').fill('30');
  await form.getByRole('button', { name: 'Refund', exact: true }).click();
  await expect(form.getByText(/£25.00: that is what is left/)).toBeVisible();
  await form.getByLabel('Amount').fill('5.00');
  await form.getByRole('button', { name: 'Refund', exact: true }).dblclick();
  await expect(drawer.getByText('£5.00 refunded')).toBeVisible();
  await desk.keyboard.press('Escape');
  await expect(drawer).toHaveCount(0);
  const [download] = await Promise.all([
    desk.waitForEvent('download'),
    desk.getByRole('link', { name: 'Ledger as CSV' }).click(),
  ]);
  const csv = await (await import('node:fs/promises')).readFile(await download.path(), 'utf8');
  expect(csv).toContain(',refund,');
  expect(csv).toContain('-5.00,GBP');
});

test('a card that asks is confirmed in its frame; the member pauses, takes it back, and changes the card', async ({
  browser,
}) => {
  const page = await visitor(browser);
  await page.goto('/join/warden-monthly');
  await fillPerson(page, person(EMAIL.card));
  const frame = page.frameLocator('iframe');
  await frame.getByRole('button', { name: 'Asks' }).click();
  await page.getByRole('button', { name: 'Join' }).click();
  await frame.getByRole('button', { name: 'No', exact: true }).click();
  await expect(page.getByText(/You did not confirm/)).toBeVisible();
  await page.getByRole('button', { name: 'Join' }).click();
  await frame.getByRole('button', { name: 'Yes, it is me' }).click();
  await expect(page.getByRole('heading', { name: 'You now have Star Warden' })).toBeVisible();
  await page.goto('/account');
  await page.getByText('Pause Star Warden').click();
  await page.getByRole('button', { name: /^Pause on/ }).click();
  await expect(page.getByText(/Pauses on/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo the pause' }).click();
  await expect(page.getByText(/Next charge: £\d+/)).toBeVisible();
  await page.getByRole('link', { name: 'Change payment method' }).click();
  await page.frameLocator('iframe').getByRole('button', { name: 'Works' }).click();
  await page.getByRole('button', { name: 'Use this payment method' }).click();
  await expect(page).toHaveURL(/\/account$/);
  await page.context().close();
});

test('staff pause, resume and end a subscription; each is confirmed first', async () => {
  await desk.goto('/desk/money?q=cass.card');
  await desk.locator('tbody a').first().click();
  const drawer = desk.getByRole('complementary', { name: /Subscription of/ });
  await drawer.getByRole('button', { name: 'Pause' }).click();
  await drawer.getByRole('button', { name: 'Yes, pause it' }).click();
  await expect(drawer.getByText('will pause')).toBeVisible();
  await drawer.getByRole('button', { name: 'Undo the pause' }).click();
  await drawer.getByRole('button', { name: 'Yes, undo it' }).click();
  await drawer.getByRole('button', { name: 'End now' }).click();
  await drawer.getByRole('button', { name: 'Yes, end it now' }).click();
  await expect(drawer.getByText('ended', { exact: true }).first()).toBeVisible();
});

test('messages of gateways are listed with their payload, and can be processed again', async () => {
  await desk.goto('/desk/money/messages');
  const row = desk.getByRole('row').filter({ hasText: 'heard' }).first();
  await row.getByText('ping', { exact: true }).click();
  await expect(row.getByText('"type": "ping"')).toBeVisible();
  await row.getByRole('button', { name: 'Process again' }).click();
  await expect(row.getByText('It will be processed again in a moment.')).toBeVisible();
});

test('a member signs in by a mailed code, takes their data, and deletes their account', async ({
  browser,
  request,
}) => {
  const page = await visitor(browser);
  await page.goto('/sign-in');
  await page.getByText('Email me a code instead').click();
  const form = page.getByRole('form', { name: 'Email me a code instead' });
  await form.getByLabel('Email for the code').fill(EMAIL.transfer);
  await form.getByRole('button', { name: 'Send code' }).click();
  await page.getByRole('textbox', { name: 'Code' }).fill(await mailedCode(request, EMAIL.transfer));
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByRole('heading', { name: 'Your tiers' })).toBeVisible();
  await page.goto('/account/settings');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download my data' }).click(),
  ]);
  const data = JSON.parse(
    await (await import('node:fs/promises')).readFile(await download.path(), 'utf8'),
  ) as object;
  expect(data).toMatchObject({
    you: { email: EMAIL.transfer },
    payments: [{ amount: 2500 }],
    refunds: [{ amount: 500 }],
  });
  await page.getByText('Delete my account…', { exact: true }).click();
  const erase = page.getByRole('form', { name: 'Delete my account' });
  await erase.getByRole('button', { name: 'Delete my account' }).click();
  await expect(erase.getByText('Tick this to say that you are sure.')).toBeVisible();
  await erase.getByLabel('Password').fill(MEMBER_PASSWORD);
  await erase.getByLabel(/Yes, end what I have/).check();
  await erase.getByRole('button', { name: 'Delete my account' }).click();
  await expect(page).toHaveURL(/\/$/);
  await page.goto('/account');
  await expect(page).toHaveURL(/sign-in/);
  await page.context().close();
});
