import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
import { Webhook } from 'standardwebhooks';
import { SETUP } from '../../src/platform/actor';
import { makeCodes } from '../../src/tiers/services/codes';
import {
  confirmIn,
  ensureLanternMoor,
  lettersTo,
  MEMBER_PASSWORD,
  OWNER,
  fillPerson,
  pickCard,
  signInAtDesk,
} from './people';

test.beforeAll(ensureLanternMoor);

const FILE = `Email,Name,Plan,Since,Expires,Password
wren.adder@list.example,Wren Adder,Observer,2026-01-01,2031-12-31,secret
finch.moss@list.example,Finch Moss,,,,secret
not an address,Nobody,,,,
lark.heath@list.example,Lark Heath,Gold,,,
wren.adder@list.example,Wren Adder,Observer,,,
`;

test('a file of members is looked through, then imported; several are changed, and one is looked after', async ({
  page,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/members/import');
  await page.setInputFiles('input[type=file]', {
    name: 'old list.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(FILE),
  });
  await expect(page.getByLabel('What the column “Plan” is')).toHaveValue('tier');
  await expect(page.getByLabel('What the column “Password” is')).toHaveValue('');
  await page.getByRole('button', { name: 'Check the file' }).click();
  const report = page.getByRole('region', { name: 'Report' });
  await expect(report).toContainText('2 new');
  await expect(report).toContainText('3 problems');
  await expect(report).toContainText('No tier is called “Gold”.');
  await expect(report).toContainText('Line 2 has the same address and tier.');
  await page.getByRole('button', { name: 'Import 2 members' }).click();
  await expect(page.getByRole('heading', { name: 'Imported' })).toBeVisible();

  // They are put in a group together.
  await page.goto('/desk/members?q=list.example');
  await expect(page.getByText('2 members match this filter').first()).toBeVisible();
  await page.getByLabel('Choose Finch Moss').check();
  await page.getByLabel('What to do').selectOption('Write a letter to them');
  await page.getByRole('link', { name: 'Write a letter', exact: true }).click();
  await expect(page.getByRole('link', { name: '1 member in the list' })).toBeVisible();
  await page.goBack();
  await page.getByLabel('Choose Finch Moss').check();
  await page.getByLabel('All 2 members match this filter').check();
  await page.getByLabel('What to do').selectOption('Put in a group');
  await page.getByLabel('Group', { exact: true }).last().selectOption('Committee');
  await page.getByRole('button', { name: 'Continue' }).click();
  await page.getByRole('button', { name: 'Do it' }).click();
  await expect(page.getByText('2 members were changed.')).toBeVisible();

  await page.getByRole('link', { name: 'Finch Moss' }).click();
  await expect(page.getByRole('link', { name: 'Committee' })).toBeVisible();
  await page.getByText('Give a tier or a pass').click();
  await page.getByLabel('What', { exact: true }).selectOption({ label: 'Star Warden' });
  await page.getByLabel('For how long').first().selectOption('For good');
  await page.getByRole('button', { name: 'Give it' }).click();
  await expect(page.getByText('Given: Finch Moss has it now.')).toBeVisible();
  await expect(page.getByText(/given by staff, since/)).toBeVisible();
  await page.getByRole('button', { name: 'Send a sign-in link' }).click();
  await expect(page.getByText('A link is on its way to finch.moss@list.example.')).toBeVisible();
  await page.getByText('Block', { exact: true }).click();
  await page.getByRole('button', { name: 'Block the account' }).click();
  await expect(page.getByText(/Blocked since/)).toBeVisible();
});

test('a code is used at checkout at the price that it shows, and another gives a tier by its link', async ({
  page,
  browser,
}) => {
  const terms = {
    admits: [],
    discount: { share: 50, charges: 1 },
    currency: null,
    tierIds: ['founder'],
    gives: null,
    mostUses: 1,
    mostPerPerson: null,
    firstDay: null,
    lastDay: null,
    newMembersOnly: false,
    isOn: true,
  };
  const gives = { kind: 'tier', id: 'warden', lasts: { n: 1, unit: 'month' } };
  for (const [word, part] of [
    ['half-founder', { admits: ['founder'] }],
    ['month-of-stars', { discount: null, tierIds: [], gives }],
  ] as const) {
    const made = await makeCodes(SETUP, { terms: { ...terms, ...part }, words: { word } });
    expect(made.ok).toBe(true);
  }
  const person = { name: 'Linnet Dale', email: 'linnet.dale@list.example', password: MEMBER_PASSWORD };
  await page.goto('/join/founder-once');
  await expect(page.getByText('You need a code to join.')).toBeVisible();
  await page.getByLabel('Code').fill('guesswork');
  await page.getByRole('button', { name: 'Use the code' }).click();
  await expect(page.getByText('This code isn’t valid')).toBeVisible();
  await page.getByLabel('Code').fill('HALF-FOUNDER');
  await page.getByRole('button', { name: 'Use the code' }).click();
  await expect(page.getByText('50% off the first payment.')).toBeVisible();
  const due = await page.getByRole('complementary').locator('dd').first().textContent();
  await fillPerson(page, person);
  await pickCard(page, 'Works');
  await page.getByRole('button', { name: `Pay ${due ?? ''} and join` }).click();
  await expect(page).toHaveURL(/\/join\/done\//);
  await page.goto('/account');
  await expect(page.getByText(due ?? 'no price').first()).toBeVisible();

  // It was good once.
  const other = await (await browser.newContext()).newPage();
  await other.goto('/code?word=half-founder');
  await expect(other.getByText('This code has been used up.')).toBeVisible();
  await page.goto('/code?word=month-of-stars');
  await page.getByRole('button', { name: 'Use it now' }).click();
  await expect(page.getByText('Done: you now have Star Warden.')).toBeVisible();
  await page.reload();
  await expect(page.getByText('This code has been used up.')).toBeVisible();
});

test('someone is invited to the staff by mail, and is let in as far as their role goes', async ({
  page,
  browser,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/settings/staff');
  const form = page.getByRole('form', { name: 'Invite someone' });
  await form.getByLabel('Their email address').fill('teal.marsh@staff.example');
  await form.getByLabel('Role').selectOption('helper');
  await confirmIn(form);
  await form.getByRole('button', { name: 'Send the invitation' }).click();
  await expect(page.getByText('The invitation is on its way.')).toBeVisible();

  const invited = await (await browser.newContext()).newPage();
  const linkOf = async (): Promise<string> =>
    /http\S+\/desk\/invite\/\S+/.exec(
      (await lettersTo(page.request, 'teal.marsh@staff.example'))[0]?.text ?? '',
    )?.[0] ?? '';
  await expect.poll(linkOf, { timeout: 20_000 }).not.toBe('');
  const link = await linkOf();
  await invited.goto(link);
  await expect(invited.getByText('as a helper')).toBeVisible();
  await invited.getByRole('button', { name: 'Continue' }).click();
  await expect(invited).toHaveURL(/\/account\/settings/);
  await invited.goto('/desk/members');
  await expect(invited.getByRole('heading', { name: 'Members', exact: true })).toBeVisible();
  await invited.goto('/desk/settings/staff');
  await expect(invited).toHaveURL(/\/desk\/refused/);
  await invited.goto(link);
  await expect(invited.getByText('This invitation has been used')).toBeVisible();

  // Members are shut to helpers: with their next page, and in their menu.
  await page.goto('/desk/settings/staff/helper');
  const role = page.getByRole('form', { name: 'What each role may do' });
  await role.getByLabel('See members').uncheck();
  await confirmIn(role);
  await role.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await invited.goto('/desk/members');
  await expect(invited).toHaveURL(/\/desk\/refused/);
  await expect(
    invited.getByRole('navigation', { name: 'Desk' }).getByRole('link', { name: 'Members' }),
  ).toHaveCount(0);

  // One-time codes by an app: with them, a password is not enough.
  await invited.goto('/account/settings');
  await invited.getByLabel('New password').fill('a marsh of teal birds');
  await invited.getByRole('button', { name: 'Set password' }).click();
  await expect(invited.getByLabel('Current password')).toBeVisible();
  await invited.goto('/account/settings');
  await invited.getByRole('button', { name: 'Set up one-time codes' }).click();
  const typed = await invited.getByText(/^([A-Z2-7]{4} ){7}[A-Z2-7]{4}$/).innerText();
  const app = new TOTP({ secret: Secret.fromBase32(typed.replaceAll(' ', '')), digits: 6, period: 30 });
  const setUp = invited.getByRole('form', { name: 'One-time codes' });
  await setUp.getByLabel('The six digits').fill(app.generate());
  await setUp.getByLabel('Password').fill('a marsh of teal birds');
  await setUp.getByRole('button', { name: 'Turn on' }).click();
  const codes =
    /(?:[0-9a-f]{5}-){3}[0-9a-f]{5}/.exec(
      await setUp.getByText('Keep these recovery codes').innerText(),
    )?.[0] ?? '';
  const again = await (await browser.newContext()).newPage();
  await again.goto('/desk/sign-in');
  await again.getByLabel('Email').first().fill('teal.marsh@staff.example');
  await again.getByLabel('Password', { exact: true }).fill('a marsh of teal birds');
  await again.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(again.getByRole('heading', { name: 'One-time code' })).toBeVisible();
  await again.goto('/desk');
  await expect(again).toHaveURL(/sign-in/);
  await again.goto('/sign-in/one-time?to=/desk');
  await again.getByRole('textbox', { name: 'One-time code' }).fill('000 000');
  await again.getByRole('button', { name: 'Continue' }).click();
  await expect(again.getByText('That code is wrong')).toBeVisible();
  await again.getByRole('textbox', { name: 'One-time code' }).fill(codes);
  await again.getByRole('button', { name: 'Continue' }).click();
  await expect(again.getByRole('heading', { name: 'Today' })).toBeVisible();

  await page.goto('/desk/settings/audit?q=joined%20the%20staff');
  await expect(page.getByRole('cell', { name: 'joined the staff' })).toBeVisible();
});

test('a passkey signs a member and an owner in without a password, and can be asked of all staff', async ({
  page,
  browser,
}) => {
  // Browsers give no passkeys to a number: the same site by its name.
  const site = (process.env.SITE_URL ?? '').replace('127.0.0.1', 'localhost');
  const context = await browser.newContext({ baseURL: site });
  const owner = await context.newPage();
  const cdp = await context.newCDPSession(owner);
  await cdp.send('WebAuthn.enable');
  const { authenticatorId } = await cdp.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  const withPassword = async () => {
    await owner.getByLabel('Email', { exact: true }).fill(OWNER.email);
    await owner.getByLabel('Password', { exact: true }).fill(OWNER.password);
    await owner.getByRole('button', { name: 'Sign in', exact: true }).click();
  };
  await owner.goto('/desk/sign-in');
  await withPassword();
  await expect(owner.getByRole('heading', { name: 'Today' })).toBeVisible();
  await owner.goto('/account/settings');
  await owner.getByText('Add a passkey').first().click();
  const form = owner.getByRole('form', { name: 'Add a passkey' });
  await form.getByLabel('What to call it').fill('Laptop');
  await form.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(form.getByText('Type your password to confirm this.')).toBeVisible();
  await form.getByLabel('Password').fill(OWNER.password);
  await form.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(owner.getByRole('paragraph').filter({ hasText: 'Laptop' })).toBeVisible();
  await expect(owner.getByText('never used')).toBeVisible();
  const signOut = async () => {
    await owner.context().clearCookies();
    await owner.goto('/desk/sign-in');
  };
  const byPasskey = owner.getByRole('button', { name: 'Sign in with a passkey' });
  await signOut();
  await byPasskey.click();
  await expect(owner.getByRole('heading', { name: 'Today' })).toBeVisible();

  // Asked of all staff: a password alone no longer opens the Desk.
  await owner.goto('/desk/settings/staff');
  const proof = owner.getByRole('form', { name: 'More than a password' });
  await confirmIn(proof);
  await proof.getByRole('button', { name: 'Ask all staff' }).click();
  await expect(owner.getByText('Staff need a one-time code or a passkey')).toBeVisible();
  await signOut();
  await withPassword();
  await expect(owner.getByText('This site asks its staff for more than a password.')).toBeVisible();
  await owner.goto('/desk/members');
  await expect(owner).toHaveURL(/desk\/sign-in/);
  await byPasskey.click();
  await expect(owner.getByRole('heading', { name: 'Members', exact: true })).toBeVisible();
  await owner.goto('/desk/settings/staff');
  await confirmIn(proof);
  await proof.getByRole('button', { name: 'Let a password be enough' }).click();
  await expect(owner.getByText('Staff can sign in with a password')).toBeVisible();

  // A device that gives none; a page that is open at a number; a passkey that was removed.
  await owner.goto('/account/settings');
  await owner.locator('summary').filter({ hasText: 'Remove' }).click();
  const remove = owner.getByRole('form', { name: 'Remove the passkey “Laptop”' });
  await remove.getByLabel('Password').fill(OWNER.password);
  await remove.getByRole('button', { name: 'Remove' }).click();
  await expect(owner.getByRole('paragraph').filter({ hasText: 'Laptop' })).toHaveCount(0);
  await signOut();
  await byPasskey.click();
  await expect(owner.getByText('This passkey doesn’t sign in here')).toBeVisible();
  await cdp.send('WebAuthn.removeVirtualAuthenticator', { authenticatorId });
  await page.goto('/sign-in');
  await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
  await expect(page.getByText(`Passkeys only work at ${site}`)).toBeVisible();
});

test('another program gives a tier by the API, and is told by a webhook who joined', async ({ page }) => {
  const heard: { body: string; headers: Record<string, string> }[] = [];
  const receiver = createServer((request, response) => {
    let body = '';
    request.on('data', (piece: Buffer) => (body += piece.toString()));
    request.on('end', () => {
      heard.push({ body, headers: request.headers as Record<string, string> });
      response.writeHead(204).end();
    });
  });
  await new Promise<void>((resolve) => receiver.listen(0, '127.0.0.1', resolve));
  await signInAtDesk(page);
  await page.goto('/desk/settings/webhooks');
  const form = page.getByRole('form', { name: 'New address' });
  await form
    .getByRole('textbox', { name: 'Address' })
    .fill(`http://127.0.0.1:${(receiver.address() as AddressInfo).port}/hook`);
  await form.getByRole('button', { name: 'Add the address' }).click();
  const secret = /whsec_\S+/.exec(await form.getByText('Copy its secret now').innerText())?.[0] ?? '';

  await page.goto('/desk/settings/api');
  const keys = page.getByRole('form', { name: 'New key' });
  await keys.getByLabel('Name').fill('The shop');
  for (const scope of ['members:read', 'members:write']) await keys.getByText(scope).click();
  await keys.getByRole('button', { name: 'Create the key' }).click();
  const key = /nest_test_\S+/.exec(await keys.getByText(/nest_test_/).innerText())?.[0] ?? '';
  const headers = { authorization: `Bearer ${key}`, 'content-type': 'application/json' };
  const order = (method: 'put' | 'delete' | 'get', data?: object) =>
    page.request[method]('/api/v1/orders/SHOP-1', { headers, ...(data && { data }) });
  const given = await order('put', { email: 'dabchick@shop.example', tier: 'observer' });
  expect(given.status()).toBe(200);
  const { member } = (await given.json()) as { member: string };
  expect(await (await order('put', { email: 'dabchick@shop.example', tier: 'observer' })).json()).toEqual(
    await given.json(),
  );
  expect((await order('put', { email: 'another@shop.example', tier: 'observer' })).status()).toBe(400);
  const file = (await (await page.request.get(`/api/v1/members/${member}`, { headers })).json()) as object;
  expect(file).toMatchObject({ holdings: [{ item: 'observer', by: 'order', order: 'SHOP-1' }] });
  expect((await page.request.get('/api/v1/members', {})).status()).toBe(401);
  await page.goto(`/desk/access?why=zodiacal-light&as=member:${member}`);
  await expect(page.getByText('Observer, by order SHOP-1')).toBeVisible();
  expect(await (await order('delete')).json()).toMatchObject({ isHeld: false });

  await page.context().clearCookies();
  await page.goto('/join/gazer-free');
  await fillPerson(page, { name: 'Smew Lake', email: 'smew.lake@shop.example', password: MEMBER_PASSWORD });
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect.poll(() => heard.length, { timeout: 20_000 }).toBeGreaterThan(0);
  const [message] = heard;
  expect(new Webhook(secret).verify(message?.body ?? '', message?.headers ?? {})).toMatchObject({
    type: 'subscription.joined',
    data: { member: { email: 'smew.lake@shop.example' }, subscription: { tier: 'gazer' } },
  });
  receiver.close();
});
