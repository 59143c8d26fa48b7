import { expect, test, type Page } from '@playwright/test';
import { closePools } from '../../src/platform/store/db';
import { ensureLanternMoor, OWNER, signInAtDesk } from './people';

test.beforeAll(ensureLanternMoor);
test.afterAll(() => closePools());

const POST = '/desk/content/items/zodiacal-light';
const title = (page: Page) => page.getByLabel('Title', { exact: true });

test('a changed form asks before it is left: by a link, and by the Back button', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk/content?kind=post');
  await page.getByRole('link', { name: 'Finding the zodiacal light' }).first().click();
  await title(page).fill('Half a title');
  const question = page.getByRole('dialog', { name: 'Leave without saving?' }).locator('h2').locator('..');
  await page.getByRole('link', { name: 'Tiers' }).click();
  await expect(question).toBeVisible();
  await question.getByRole('button', { name: 'Stay on this page' }).click();
  await expect(title(page)).toHaveValue('Half a title');
  await page.goBack();
  await expect(question).toBeVisible();
  await question.getByRole('button', { name: 'Stay on this page' }).click();
  await expect(page).toHaveURL(new RegExp(`${POST}$`));
  await expect(title(page)).toHaveValue('Half a title');
  await page.goBack();
  await question.getByRole('button', { name: 'Leave without saving' }).click();
  await expect(page).toHaveURL(/\/desk\/content\?kind=post$/);
  // What is not changed asks nothing.
  await page.getByRole('link', { name: 'Finding the zodiacal light' }).first().click();
  await page.getByRole('link', { name: 'Tiers' }).click();
  await expect(page.getByRole('heading', { name: 'Tiers', exact: true })).toBeVisible();
});

test('where the session has ended, one signs in within the page, and what was typed is saved', async ({
  page,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/settings/mail');
  await page.locator('input[name=senderName]').fill('The Moor');
  await page.context().clearCookies();
  await page.getByRole('button', { name: 'Save the sender' }).click();
  const again = page.getByRole('dialog', { name: /You’ve been signed out/ });
  await again.getByLabel(`Password for ${OWNER.email}`).fill('not this one');
  await again.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(again.getByRole('alert')).toContainText('don’t match');
  await again.getByLabel(`Password for ${OWNER.email}`).fill(OWNER.password);
  await again.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByText('Saved. Mail is sent from this address')).toBeVisible();
  await expect(page.locator('input[name=senderName]')).toHaveValue('The Moor');
});

test('two people save the same page: both versions are shown, and the chosen one is kept', async ({
  page,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/content/items/frost-note');
  const other = await page.context().newPage();
  await other.goto('/desk/content/items/frost-note');
  await other.getByLabel('Summary').fill('Saved first.');
  await other.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(other.getByText('Saved.')).toBeVisible();
  await page.getByLabel('Summary').fill('Saved second.');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const conflict = page.getByRole('alert').filter({ hasText: 'Someone else saved this' });
  const row = conflict.getByRole('row', { name: /^Summary/ });
  await expect(row).toContainText('Saved first.');
  await expect(row).toContainText('Saved second.');
  await conflict.getByRole('button', { name: 'Save mine' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await expect(page).not.toHaveURL(/saved/);
  await other.reload();
  await expect(other.getByLabel('Summary')).toHaveValue('Saved second.');
  // Theirs, the other way round; and saving again works.
  await page.getByLabel('Summary').fill('Saved third.');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByLabel('Summary')).toHaveValue('Saved third.');
  await other.getByLabel('Summary').fill('Saved too late.');
  await other.getByRole('button', { name: 'Save', exact: true }).click();
  await other.getByRole('button', { name: 'Use theirs' }).click();
  await expect(other.getByLabel('Summary')).toHaveValue('Saved third.');
  await other.getByLabel('Summary').fill('Saved last.');
  await other.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(other.getByText('Saved.')).toBeVisible();
});

test('what is retired can be brought back from the message that says so', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk/tiers/founder');
  await page.getByRole('button', { name: 'Retire', exact: true }).click();
  await page
    .getByLabel(/^Notifications/)
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(page.getByText('Brought back.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Retire', exact: true })).toBeVisible();
});

test('a site in German is German for visitors, and English at the Desk', async ({ page, browser }) => {
  await signInAtDesk(page);
  await page.goto('/desk/settings');
  const speak = async (language: string): Promise<void> => {
    await page.getByLabel('Language').selectOption(language);
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText('Saved.')).toBeVisible();
    await page.reload();
  };
  await speak('de-DE');
  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto('/join');
  await expect(visitor.getByRole('heading', { name: 'Mitglied werden bei' })).toBeVisible();
  expect(await visitor.locator('html').getAttribute('lang')).toBe('de-DE');
  await visitor.goto('/join/eclipse-week-once');
  await visitor.getByLabel('Ihre E-Mail-Adresse').fill('nobody');
  await visitor.getByRole('button', { name: 'Weiter' }).click();
  await expect(visitor.getByText('Bitte geben Sie eine E-Mail-Adresse ein')).toBeVisible();
  await page.goto('/desk/settings/words?q=Mitglied%20werden%20bei');
  await page.locator('summary:visible').first().click();
  const form = page.getByRole('form').first();
  await form.getByLabel('Your wording').fill('Kommt zu {seite}');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByText('nothing to fill in for {seite}')).toBeVisible();
  await form.getByLabel('Your wording').fill('Kommt zu {site}');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Kommt zu {site}').first()).toBeVisible();
  await visitor.goto('/join');
  await expect(visitor.getByRole('heading', { name: /^Kommt zu/ })).toBeVisible();
  await page.goto('/desk/settings');
  await speak('en-GB');
  await visitor.reload();
  await expect(visitor.getByRole('heading', { name: /^Join / })).toBeVisible();
});
