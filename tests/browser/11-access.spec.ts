import { expect, test } from '@playwright/test';
import { personNamed } from '../../scripts/lib/people';
import { ensureLanternMoor, MEMBER_PASSWORD, signInAs, signInAtDesk } from './people';

test.beforeAll(ensureLanternMoor);

const PERSON = { name: 'Orla Vane', email: 'orla.vane@moor.example', password: MEMBER_PASSWORD };

test('a group is made and opened a folder to by a rule that says what it changes; the change is undone', async ({
  page,
  browser,
}) => {
  const visitor = await (await browser.newContext()).newPage();
  await personNamed(PERSON.name, PERSON.email, PERSON.password);
  await signInAs(visitor, PERSON);

  await signInAtDesk(page);
  await page.goto('/desk/members/groups');
  await page.getByLabel('Name of the group').fill('Chart room');
  await page.getByRole('button', { name: 'Create the group' }).click();
  await page.getByLabel('Email addresses').fill(`${PERSON.email}\nnobody@moor.example`);
  await page.getByRole('button', { name: 'Add members' }).click();
  await expect(page.getByText('1 member was added.')).toContainText('nobody@moor.example');
  await expect(page.getByRole('link', { name: PERSON.name })).toBeVisible();

  await page.goto('/desk/access/new');
  await expect(page.getByText('Choose what it covers, and you see here')).toBeVisible();
  await page.getByLabel('An address', { exact: true }).fill('/about/**');
  await expect(page.getByText(/^\d+ items?: \/about/)).toBeVisible();
  await page.getByLabel('An address', { exact: true }).press('Enter');
  await page.getByLabel('Add a tier, a group or others').fill('Chart');
  await page.getByRole('option', { name: 'Chart room' }).click();
  const changes = page.getByRole('region', { name: 'What it changes' });
  await expect(changes).toContainText('It covers');
  await expect(changes.getByRole('listitem').filter({ hasText: 'Visitor' })).toContainText('loses');
  await page.getByRole('button', { name: 'Create the rule' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();

  await visitor.goto('/about');
  await expect(visitor.getByRole('heading', { name: 'About us' })).toBeVisible();
  const stranger = await (await browser.newContext()).newPage();
  await stranger.goto('/about');
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toBeVisible();

  await page.goto('/desk/access?view=rulebook');
  await page.getByRole('link', { name: 'The address /about/**' }).click();
  await page.getByRole('button', { name: 'Remove the group Chart room' }).click();
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByRole('region', { name: 'How to read on' })).toBeVisible();
  await page.goto('/desk/access?view=rulebook');
  await page.getByRole('link', { name: 'The address /about/**' }).click();
  await page.getByText(/^History/).click();
  await page.getByRole('button', { name: 'Undo this change' }).click();
  await expect(page.getByText('The rule is as it was.')).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByRole('region', { name: 'How to read on' })).toHaveCount(0);

  // Deleted, it is made again.
  await page.getByRole('button', { name: 'Delete the rule' }).click();
  await page.getByRole('button', { name: 'Yes, delete' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
  await stranger.reload();
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toHaveCount(0);
  await page.goto('/desk/access?view=rulebook');
  await page.getByText(/^Deleted rules/).click();
  await page.getByRole('listitem').filter({ hasText: '/about/**' }).getByRole('button').click();
  await expect(page.getByText('The rule is as it was.')).toBeVisible();
  await stranger.reload();
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete the rule' }).click();
  await page.getByRole('button', { name: 'Yes, delete' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
});

test('the map says why, and the site is seen as one member on another day', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk/access');
  const cell = page.getByRole('link', { name: /^Closed\. Why\? Finding the zodiacal light.*, Visitor$/ });
  await cell.click();
  const drawer = page.getByRole('complementary', { name: /^Why\? Finding the zodiacal light/ });
  await expect(drawer).toContainText('opens it to Observer and Star Warden');
  await expect(drawer).toContainText('£6 a month');
  await page.keyboard.press('Escape');
  await expect(drawer).toHaveCount(0);
  await page.goto('/desk/access?why=frames-horsehead&as=visitor&on=2031-01-01');
  await expect(drawer.or(page.getByRole('complementary')).first()).toContainText('Open');
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page).toHaveURL(/frames-horsehead/);
  await expect(page.getByText('as a visitor on Wed 1 Jan 2031')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the Desk' }).click();

  await page.goto('/desk/content/items/visit');
  await page.getByRole('button', { name: /Look as/ }).click();
  await page.getByLabel('One member').fill('orla');
  await page.getByRole('button', { name: /Orla Vane/ }).click();
  await expect(page).toHaveURL(/\/visit$/);
  await expect(page.getByText('looking at the site as Orla Vane')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the Desk' }).click();
});
