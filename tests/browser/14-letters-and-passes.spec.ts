import { expect, test } from '@playwright/test';
import { ensureLanternMoor, lettersTo, MEMBER_PASSWORD, pickCard, signInAs, signInAtDesk } from './people';

test.beforeAll(ensureLanternMoor);

test('a reader without an account asks for emails; a letter is written, sent, and stopped with one click', async ({
  page,
  browser,
  request,
}) => {
  const reader = await (await browser.newContext()).newPage();
  const email = `quay.${Date.now()}@post.example`;
  await reader.goto('/posts');
  await reader.getByRole('link', { name: 'Get new posts by email' }).click();
  await reader.getByLabel('Your email').fill(email);
  await reader.getByLabel(/^Letters from/).check();
  await reader.getByRole('button', { name: 'Email me a link to confirm' }).click();
  await expect(reader.getByText(`We’ve emailed a link to ${email}.`)).toBeVisible();
  await expect(async () => {
    const [mail] = await lettersTo(request, email);
    const path = /\/by-mail\/[\w-]+/.exec(mail?.text ?? '')?.[0] ?? '';
    expect(path).not.toBe('');
    await reader.goto(path);
  }).toPass({ timeout: 20_000 });
  await reader.getByRole('button', { name: 'Confirm' }).dblclick();
  await expect(reader.getByText('Confirmed. Thank you.')).toBeVisible();

  await signInAtDesk(page);
  await page.goto('/desk/members/addresses');
  await expect(page.getByRole('row').filter({ hasText: email })).toContainText('Asked for emails');
  await page.goto('/desk/members/letters/new?q=nobody-of-this-name');
  await page.getByLabel('Subject').fill('Frost, {first name}');
  await page.locator('.ProseMirror').click();
  await page.keyboard.type('The dome is frozen, {age}.');
  await page.getByLabel('Also to people without an account who asked for letters').check();
  await page.getByRole('button', { name: 'Save draft' }).click();
  // What it has not is said beside the field, and nothing typed is lost.
  await expect(page.getByText('This mail has nothing to put in for {age}.')).toBeVisible();
  await page.locator('.ProseMirror').click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('The dome is frozen shut.');
  await page.getByRole('button', { name: 'Save draft' }).click();
  await expect(page.getByRole('heading', { name: 'Preview' })).toBeVisible();
  await page.getByText('Send…', { exact: true }).click();
  await expect(page.getByText('Send this letter to 1 person?')).toBeVisible();
  await page.getByRole('button', { name: 'Send it' }).dblclick();
  await expect(async () => {
    await page.reload();
    await expect(page.getByText('Emailed to 1 person')).toBeVisible({ timeout: 1_000 });
  }).toPass({ timeout: 20_000 });
  await expect(async () => {
    const letters = (await lettersTo(request, email)).filter(({ text }) => text.includes('frozen shut'));
    expect(letters).toHaveLength(1);
    // A mail program posts without cookies, and needs no page.
    expect((await request.post(letters[0]?.oneClickUrl ?? '')).status()).toBe(200);
  }).toPass({ timeout: 20_000 });
  await page.goto('/desk/members/addresses');
  await expect(
    page.getByRole('row').filter({ hasText: email }).getByRole('cell', { name: 'No', exact: true }),
  ).toBeVisible();
  await reader.context().close();
});

test('a pass is put on sale, bought at the doorstep, used on another device by its code, and closed by a refund', async ({
  page,
  browser,
  request,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/money/products/new');
  await page.getByLabel('What is sold').selectOption({ label: 'Clinic guests' });
  await page.getByLabel('Name').fill('One clinic');
  await page.getByLabel('Price in GBP').fill('4.50');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'One clinic' })).toBeVisible();

  const buyer = await (await browser.newContext()).newPage();
  const person = {
    name: 'Perrin Fold',
    email: `perrin.${Date.now()}@moor.example`,
    password: MEMBER_PASSWORD,
  };
  await buyer.goto('/posts/mirror-1');
  await expect(buyer.getByText('third of a turn')).toHaveCount(0);
  await buyer.getByRole('link', { name: 'Buy One clinic for £4.50' }).click();
  await expect(buyer.getByLabel('Your email')).toBeVisible();
  await signInAs(buyer, person);
  await buyer.reload();
  await pickCard(buyer, 'Fails');
  await buyer.getByRole('button', { name: 'Pay £4.50' }).click();
  await expect(buyer.getByText(/declined/)).toBeVisible();
  await pickCard(buyer, 'Works');
  await buyer.getByRole('button', { name: 'Pay £4.50' }).dblclick();
  await expect(buyer.getByText('One clinic is open to you now.')).toBeVisible({ timeout: 20_000 });
  await buyer.goto('/posts/mirror-1');
  await expect(buyer.getByText('third of a turn')).toBeVisible();

  let code = '';
  await expect(async () => {
    const [mail] = await lettersTo(request, person.email);
    code = /word=([\w-]+)/.exec(mail?.text ?? '')?.[1] ?? '';
    expect(code).not.toBe('');
  }).toPass({ timeout: 20_000 });
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto('/code?to=/posts/mirror-1');
  await phone.getByLabel('Code').fill(code);
  await phone.getByRole('button', { name: 'See what it does' }).click();
  await phone.getByRole('button', { name: 'Use it in this browser' }).click();
  await expect(phone).toHaveURL(/mirror-1$/);
  await expect(phone.getByText('third of a turn')).toBeVisible();
  await buyer.goto('/account/purchases');
  await expect(buyer.getByText('Other devices: 1 of 3')).toBeVisible();

  await page.goto(`/desk/money/payments?q=${encodeURIComponent(person.email)}&state=succeeded`);
  await page.getByRole('row').nth(1).getByRole('link').click();
  await page.getByText('Refund…').click();
  await page.getByLabel('End access now').check();
  await page.getByRole('button', { name: /^Refund/ }).click();
  await expect(page.getByText('£4.50 refunded').first()).toBeVisible();
  for (const one of [buyer, phone]) {
    await one.goto('/posts/mirror-1');
    await expect(one.getByText('third of a turn')).toHaveCount(0);
    await one.context().close();
  }
});
