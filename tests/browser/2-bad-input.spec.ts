import { expect, test } from '@playwright/test';
import {
  ensureLanternMoor,
  fillPerson,
  MEMBER_PASSWORD,
  pickCard,
  SECOND_SITE_URL,
  signInAs,
  signInAtDesk,
} from './people';
import { closePools } from '../../src/platform/store/db';

test.beforeAll(ensureLanternMoor);
test.afterAll(() => closePools());

const person = (name: string) => ({
  name,
  email: `${name.toLowerCase().replace(/\W+/g, '.')}@moor.example`,
  password: MEMBER_PASSWORD,
});

for (const [title, sentence] of [
  ['Declined', /card was declined/],
  ['Expired', /has expired/],
  ['No funds', /isn’t enough money/],
] as const) {
  test(`a card that is refused (${title}): a sentence beside it, the same form filled in, and nothing half-made`, async ({
    page,
    request,
  }) => {
    const who = person(`Refused ${title}`);
    await page.goto('/join/eclipse-week-once?to=/posts');
    await fillPerson(page, who);
    await pickCard(page, title);
    await page.getByRole('button', { name: 'Pay £25.00 and join' }).click();
    await expect(page.getByRole('alert').filter({ hasText: sentence })).toBeVisible({ timeout: 20_000 });
    await expect(page.getByLabel('Name')).toHaveValue(who.name);
    // Nothing is held: the account is empty.
    const other = await page.context().newPage();
    await other.goto('/account');
    await expect(other.getByText('Your tiers appear here')).toBeVisible();
    await other.close();
    // The form that was left open still works, with another card.
    await pickCard(page, 'Works');
    await page.getByRole('button', { name: 'Pay £25.00 and join' }).click();
    await expect(page.getByRole('heading', { name: 'You now have Eclipse Week' })).toBeVisible({
      timeout: 20_000,
    });
    await page.getByRole('link', { name: 'Continue to the page you came from' }).click();
    await expect(page).toHaveURL(/\/posts$/);
    expect((await request.get('/posts')).ok()).toBe(true);
  });
}

test('a double click on Join is one subscription and one charge', async ({ page }) => {
  await page.goto('/join/eclipse-week-once?to=/account');
  await fillPerson(page, person('Double Click'));
  await pickCard(page, 'Works');
  await page.getByRole('button', { name: 'Pay £25.00 and join' }).dblclick();
  await expect(page.getByRole('complementary', { name: 'Receipt' })).toContainText('£25.00', {
    timeout: 20_000,
  });
  await page.goBack();
  await expect(page.getByText('You have Eclipse Week already.')).toBeVisible();
  await page.getByRole('link', { name: 'See your account' }).click();
  await expect(page.getByRole('region', { name: 'Eclipse Week' })).toHaveCount(1);
  await expect(page.getByRole('row').filter({ hasText: /received\s*£25\.00/ })).toHaveCount(1);
  await expect(page.getByRole('link', { name: /^Invoice/ })).toHaveCount(1);
});

test('two tabs cannot pay twice', async ({ page, context }) => {
  const who = person('Two Tabs');
  const other = await context.newPage();
  for (const tab of [page, other]) {
    await tab.goto('/join/eclipse-week-once?to=/account');
    await fillPerson(tab, who);
    await pickCard(tab, 'Works');
  }
  await page.getByRole('button', { name: /^Pay/ }).click();
  await expect(page.getByRole('complementary', { name: 'Receipt' })).toBeVisible({ timeout: 20_000 });
  await other.getByRole('button', { name: /^Pay/ }).click();
  await expect(other.getByRole('alert').filter({ hasText: 'already' })).toBeVisible({ timeout: 20_000 });
  await page.goto('/account');
  await expect(page.getByRole('row').filter({ hasText: /received\s*£25\.00/ })).toHaveCount(1);
  await expect(page.getByRole('link', { name: /^Invoice/ })).toHaveCount(1);
});

test('what is left out or wrong is said beside its field, and a card number’s slip beside the number', async ({
  page,
}) => {
  await page.goto('/join/observer-monthly');
  await page.getByLabel('Your email').fill('nobody');
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByText('Type an email address')).toBeVisible();
  await expect(page.getByLabel('Your email')).toBeFocused();
  await signInAs(page, person('Left Out'));
  await page.reload();
  const frame = page.frameLocator('iframe[title^="Card details"]');
  const press = () => page.getByRole('button', { name: 'Join', exact: true }).click();
  // In the order of the page: what is asked first, then the card.
  await press();
  await expect(page.getByText('Type your name.')).toBeVisible();
  await expect(page.getByText('You need to agree to this to join.')).toBeVisible();
  await expect(page.getByLabel('Name')).toBeFocused();
  await expect(frame.getByText('Type the number on the card.')).toHaveCount(0);
  await page.getByLabel('Name').fill('Left Out');
  await page.getByLabel(/I keep the rules/).check();
  await press();
  await expect(frame.getByText('Type the number on the card.')).toBeVisible();
  await pickCard(page, 'Works');
  await frame.getByLabel('Card number').press('End');
  await frame.getByLabel('Card number').press('Backspace');
  await press();
  await expect(frame.getByText('A card number has 12 digits; this one has 11.')).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('Left Out');
});

test('two webs on one database behave as one: a session and a rule made at one hold at the other', async ({
  page,
}) => {
  await signInAtDesk(page);
  await page.goto(`${SECOND_SITE_URL}/desk/access/library`);
  await expect(page.getByRole('heading', { name: 'Library and charts' })).toBeVisible();
  await page.getByLabel('The rule is on').uncheck();
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page).toHaveURL(/\/desk\/access$/);
  const visitor = await page.context().browser()!.newPage();
  await visitor.goto(`${process.env.SITE_URL}/library`);
  await expect(visitor.getByText('Everything that the society has drawn')).toBeVisible();
  await page.goto('/desk/access/library');
  await page.getByLabel('The rule is on').check();
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page).toHaveURL(/\/desk\/access$/);
  await visitor.goto(`${SECOND_SITE_URL}/library`);
  await expect(visitor.getByRole('heading', { name: /^This page is for/ })).toBeVisible();
  await visitor.close();
});

test('staff see the site as a visitor, and come back to the Desk', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk');
  await page.keyboard.press('v');
  await page.getByRole('button', { name: 'A visitor', exact: true }).click();
  await expect(page.getByText('You’re looking at the site as a visitor')).toBeVisible();
  await page.goto('/posts/zodiacal-light');
  await expect(page.getByText('This post is for')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the Desk' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.goto('/posts/zodiacal-light');
  await expect(page.getByText('third gatepost')).toBeVisible();
});
