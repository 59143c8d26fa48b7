import { expect, test, type Page } from '@playwright/test';
import { readKeys } from '../../scripts/lib/stand-ins';
import {
  confirmIn,
  ensureLanternMoor,
  fillPerson,
  GATEWAY_URL,
  lettersTo,
  MEMBER_PASSWORD,
  OWNER,
  pickCard,
  signInAtDesk,
} from './people';

test.describe.configure({ mode: 'serial' });
test.beforeAll(() => ensureLanternMoor());

const EMAIL = 'ida.taxed@moor.example';
let desk: Page;
let member: Page;

test.beforeAll(async ({ browser }) => {
  desk = await (await browser.newContext()).newPage();
  member = await (await browser.newContext()).newPage();
  await signInAtDesk(desk);
  await desk.goto('/desk');
});
test.afterAll(async () => {
  await desk.context().close();
  await member.context().close();
});

test('the owner says how prices are taxed; what cannot be is said beside its field, and what was typed stays', async () => {
  await desk.getByRole('button', { name: 'Lantern Moor' }).click();
  await desk.getByRole('menuitem', { name: 'Settings' }).click();
  await expect(desk.getByLabel('Site name')).toHaveValue('Lantern Moor');
  await desk.getByRole('link', { name: 'Tax and invoices' }).click();
  await expect(desk.getByRole('heading', { name: 'Tax', exact: true })).toBeVisible();
  await desk.getByLabel('The tax is').selectOption('added');
  const rate = desk.getByLabel('Per cent').first();
  await rate.fill('a fifth');
  await desk.getByRole('button', { name: 'Save tax and invoices' }).click();
  await expect(desk.getByText('A rate is a number from 0 to 100, like 20 or 8.875.')).toBeVisible();
  await expect(rate).toHaveValue('a fifth');
  await rate.fill('20');
  await desk.getByRole('button', { name: 'Save tax and invoices' }).click();
  await expect(desk.getByText('Saved. It applies from the next charge.')).toBeVisible();
  await desk.reload();
  await expect(desk.getByLabel('The tax is')).toHaveValue('added');
});

test('checkout quotes the tax of the country that is chosen, keeps what was typed, and charges what it quoted', async () => {
  await member.goto('/join');
  await expect(member.getByText('VAT is added to these prices')).toBeVisible();
  await member.goto('/join/eclipse-week-once');
  await fillPerson(member, { name: 'Ida Taxed', email: EMAIL, password: MEMBER_PASSWORD });
  const summary = member.getByRole('complementary', { name: 'What you pay' });
  await expect(summary).toContainText('£30.00');
  await expect(summary).toContainText('VAT 20% in £30.00');
  await summary.getByLabel('Country, for the tax').selectOption('IE');
  await expect(summary).toContainText('£30.75');
  await expect(member.getByLabel('Name', { exact: true })).toHaveValue('Ida Taxed');
  // Where the file runs alone, the card is the only gateway, and there is nothing to choose.
  const card = member.getByLabel('Card', { exact: true });
  if (await card.count()) await card.check();
  await pickCard(member, 'Works');
  await member.getByRole('button', { name: 'Pay £30.75 and join' }).click();
  await expect(member.getByRole('heading', { name: 'You now have Eclipse Week' })).toBeVisible();
});

test('the member finds the invoice in the account, prints it or keeps it as a PDF; nobody else does', async ({
  browser,
}) => {
  await member.goto('/account');
  await member.getByRole('link', { name: /^Invoice TEST-/ }).click();
  await expect(member.getByRole('heading', { name: 'Invoice' })).toBeVisible();
  const sheet = member.getByRole('article');
  await expect(sheet).toContainText('VAT 23%');
  await expect(sheet).toContainText('£5.75');
  await expect(sheet).toContainText('£30.75');
  await member.emulateMedia({ media: 'print' });
  await expect(member.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(sheet).toBeVisible();
  await member.emulateMedia({ media: 'screen' });
  const pdf = await member.request.get(`${member.url()}/pdf`);
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  const stranger = await (await browser.newContext()).newPage();
  expect((await stranger.request.get(`${member.url()}/pdf`)).status()).toBe(401);
  await stranger.goto(member.url());
  await expect(stranger).toHaveURL(/sign-in/);
  await stranger.context().close();
  await desk.goto('/desk/money/books');
  await desk.getByLabel('Name, email or number').fill('Ida Taxed');
  await desk.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(desk.getByRole('row', { name: /Ida Taxed.*£5\.75.*£30\.75/ })).toBeVisible();
});

test('a mail in the owner’s words is seen as a member would get it, while it is written', async ({
  request,
}) => {
  await desk.goto('/desk/settings/mail/receipt');
  const preview = desk.getByRole('region', { name: 'Preview' });
  await preview.getByLabel('Preview for').selectOption({ label: 'Ida Taxed' });
  await expect(preview).toContainText('Hello Ida,');
  await desk.getByLabel('Subject').fill('Thank you, {first name}');
  await desk.getByLabel('Your text').fill('The dome thanks you for {tier}. {nonsense}');
  await expect(preview).toContainText('The dome thanks you for Eclipse Week.');
  await desk.getByRole('button', { name: 'Save this mail' }).click();
  await expect(desk.getByText('This mail has nothing to put in for {nonsense}.')).toBeVisible();
  await desk.getByLabel('Your text').fill('The dome thanks you for {tier}.');
  await desk.getByRole('button', { name: 'Save this mail' }).click();
  await expect(desk.getByText('Saved. It is used from the next mail.')).toBeVisible();
  await desk.getByRole('button', { name: 'Send this to me' }).click();
  await expect(desk.getByText(`Sent to ${OWNER.email}.`, { exact: false })).toBeVisible();
  await expect
    .poll(async () => (await lettersTo(request, OWNER.email)).map((letter) => letter.subject))
    .toContain('Thank you, Ida');
  await desk.goto(`/desk/settings/mail/log?q=${EMAIL}`);
  await desk.getByRole('link', { name: EMAIL }).first().click();
  await expect(desk.getByRole('complementary', { name: /Welcome|Receipt/ })).toContainText('Hello Ida,');
});

test('the account shows the sections that the owner left on, and the notes that staff left', async () => {
  await desk.goto('/desk/settings/account');
  await desk.getByRole('checkbox', { name: 'Payments, including declined' }).uncheck();
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(desk.getByText('Saved.')).toBeVisible();
  await desk.goto('/desk/members?q=Ida');
  await desk.getByRole('link', { name: 'Ida Taxed' }).first().click();
  await desk.getByLabel('A new note').fill('Bring a chair to the dome.');
  await desk.getByLabel('The member reads it in their account').check();
  await desk.getByRole('button', { name: 'Add note' }).click();
  await expect(desk.getByText('the member reads it', { exact: true })).toBeVisible();
  await member.goto('/account');
  await expect(member.getByText('Bring a chair to the dome.')).toBeVisible();
  await expect(member.getByRole('heading', { name: 'Receipts' })).toBeVisible();
  await expect(member.getByRole('heading', { name: 'Payments' })).toHaveCount(0);
});

test('going live is refused until members could pay, says what changes, and happens once', async () => {
  await desk.goto('/desk/settings/live');
  await expect(desk.getByText('No gateway is connected in live mode: nobody could pay.')).toBeVisible();
  await expect(desk.getByRole('button', { name: 'Go live' })).toHaveCount(0);
  await desk.getByRole('link', { name: 'Connect one in live mode' }).click();
  const { siteKey, secretKey } = await readKeys(GATEWAY_URL, 'live');
  const form = desk.getByRole('form', { name: 'Connect Curlew Cards' });
  await form.getByLabel('Site key').fill(siteKey);
  await form.getByLabel('Secret key').fill(secretKey);
  await confirmIn(form);
  await form.getByRole('button', { name: 'Check and connect' }).click();
  await expect(form.getByText('Connected. The keys are right.')).toBeVisible();
  // Members still pay with no real money.
  await expect(desk.getByText('No real money')).toBeVisible();
  await desk.goto('/desk/settings/live');
  await expect(desk.getByText('Members will pay by Card.')).toBeVisible();
  await expect(desk.getByText(/test subscriptions? stop:/)).toBeVisible();
  const live = desk.getByRole('form', { name: 'Go live' });
  await desk.getByRole('button', { name: 'Go live' }).click();
  await expect(live.getByText('Type your password to confirm this.')).toBeVisible();
  await confirmIn(live);
  await desk.getByRole('button', { name: 'Go live' }).click();
  await expect(desk.getByText('Type the name of the site as it is: Lantern Moor.')).toBeVisible();
  await desk.getByLabel('To confirm, type the name of the site: Lantern Moor').fill('lantern moor');
  await confirmIn(live);
  await desk.getByRole('button', { name: 'Go live' }).dblclick();
  await expect(desk.getByText('The site has been live since')).toBeVisible();
  await desk.goBack();
  await desk.goForward();
  await expect(desk.getByText('The site has been live since')).toBeVisible();
});

test('once live, what was held by a test opens nothing, test cards are refused, and staff can still try', async () => {
  await member.goto('/account');
  await expect(member.getByText('Your tiers appear here')).toBeVisible();
  await expect(member.getByText('No real money')).toHaveCount(0);
  await desk.goto('/desk/money');
  await desk.getByRole('link', { name: 'Look at the test data' }).click();
  await expect(desk.getByText('made before the site went live')).toBeVisible();
  await desk.getByLabel('Name or email').fill('Ida');
  await desk.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(desk.getByRole('row', { name: /Ida Taxed/ })).toBeVisible();
  await member.goto('/join/eclipse-week-once?mode=test');
  await expect(member.getByText('You’re staff.')).toHaveCount(0);
  await desk.goto('/join/eclipse-week-once');
  await desk.getByRole('link', { name: 'Try this checkout in test mode' }).click();
  await expect(desk.getByText('you’re trying this in test mode')).toBeVisible();
});

test('the test data is cleared when the owner says so twice', async () => {
  await desk.goto('/desk/settings/live');
  await desk.getByRole('button', { name: 'Clear the test data' }).click();
  await expect(desk.getByText('Type the name of the site as it is: Lantern Moor.')).toBeVisible();
  await desk.getByLabel(/To delete it for good/).fill('Lantern Moor');
  await desk.getByRole('button', { name: 'Clear the test data' }).click();
  await expect(async () => {
    await desk.reload();
    await expect(desk.getByText(/There is none; it was cleared on/)).toBeVisible({ timeout: 1_000 });
  }).toPass({ timeout: 60_000 });
});

test('the settings are found in groups, on a phone too, and the audit says in words what changed', async () => {
  await desk.setViewportSize({ width: 390, height: 844 });
  await desk.goto('/desk/settings');
  await desk.getByText('All settings').click();
  const settings = desk.getByRole('navigation', { name: 'Settings' });
  await expect(settings.getByRole('link', { name: 'General' })).toHaveAttribute('aria-current', 'page');
  await settings.getByRole('link', { name: 'Audit' }).click();
  await expect(desk.getByRole('heading', { name: 'Audit', level: 1 })).toBeVisible();
  await expect(settings).toBeHidden();
  await desk.setViewportSize({ width: 1280, height: 800 });
  await expect(settings.getByRole('link', { name: 'Audit' })).toHaveAttribute('aria-current', 'page');
  await desk.goto('/desk/settings/audit?q=tax%20changed');
  const row = desk.getByRole('row').filter({ hasText: 'tax changed' }).first();
  await expect(row).toContainText('way: added · kinds: (name Membership, rates (name VAT');
});
