import { expect, test, type Page } from '@playwright/test';
import { ensureLanternMoor, signInAtDesk } from './people';

test.beforeAll(ensureLanternMoor);

/** Puts the cursor at the end of a line of the text, or selects all of it. */
async function atLine(page: Page, words: string, isSelected = false): Promise<void> {
  await page.locator('.ProseMirror').getByText(words).click();
  await page.keyboard.press('End');
  if (isSelected) await page.keyboard.press('Shift+Home');
}

test('a part of a text is closed in place, seen at a glance, and opened again', async ({ page, browser }) => {
  await signInAtDesk(page);
  await page.goto('/desk/content/items/new?kind=post');
  await page.getByLabel('Title').fill('A walk to the cairn');
  await page.locator('.ProseMirror').click();
  await page.keyboard.type('The walk begins at the ford.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('The cairn hides a tin with the log.');
  await atLine(page, 'The cairn hides', true);
  await page.getByRole('button', { name: 'Section…' }).click();
  await page.getByLabel('Observer').check();
  await page.getByLabel('What others read instead').fill('Members read where the log is.');
  await page.getByRole('button', { name: 'Close this part' }).click();
  await expect(page.locator('.ProseMirror section')).toContainText(
    'Only Observer · others read “Members read where the log is.”',
  );
  // A word of the open part, too.
  await page.locator('.ProseMirror').getByText('begins at the ford').click();
  await page.keyboard.press('End');
  for (let n = 0; n < 'the ford.'.length; n++) await page.keyboard.press('Shift+ArrowLeft');
  await page.getByRole('button', { name: 'Section…' }).click();
  await page.getByLabel('everyone who pays').check();
  await page.getByRole('button', { name: 'Close this part' }).click();
  await expect(page.locator('.ProseMirror span[data-gate]')).toHaveText('the ford.');
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.reload();
  await expect(page.locator('.ProseMirror section')).toContainText('The cairn hides a tin');

  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto('/posts/a-walk-to-the-cairn');
  await expect(visitor.getByText('Members read where the log is.')).toBeVisible();
  await expect(visitor.getByRole('article')).toContainText('The walk begins at');
  expect(await visitor.content()).not.toMatch(/ford|tin with the log|data-gate/);

  // Search engines and readers of feeds are told that it exists, and that a part is closed.
  const about = async (): Promise<Record<string, unknown>> =>
    JSON.parse(await visitor.locator('script[type="application/ld+json"]').innerText()) as Record<
      string,
      unknown
    >;
  expect(await about()).toMatchObject({
    headline: 'A walk to the cairn',
    isAccessibleForFree: false,
    hasPart: { cssSelector: '.closed-part' },
  });
  await expect(visitor.locator('.closed-part')).toHaveCount(1);
  const address = visitor.url();
  await expect(visitor.locator('link[rel=canonical]')).toHaveAttribute('href', address);
  for (const path of ['/feed.xml', '/feed.atom', '/feed.json', '/sitemap.xml']) {
    const answer = await visitor.request.get(path);
    expect(answer.status(), path).toBe(200);
    expect(await answer.text(), path).toContain(address);
  }
  expect(await (await visitor.request.get('/robots.txt')).text()).toContain('Disallow: /desk');

  // Copied into another text it stays closed; where there are no sections, it is left out.
  const copied = await page.locator('.ProseMirror').innerHTML();
  const pasteInto = async (path: string): Promise<string> => {
    const other = await page.context().newPage();
    await other.goto(path);
    const text = other.locator('.ProseMirror').first();
    await text.click();
    await text.evaluate((target, html) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/html', html);
      target.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    }, copied);
    await expect(text).toContainText('The walk begins at');
    const pasted = await text.innerHTML();
    await other.close();
    return pasted;
  };
  expect(await pasteInto('/desk/content/items/new?kind=post')).toMatch(
    /<section data-gate=.*observer.*tin with the log/,
  );
  expect(await pasteInto('/desk/tiers/new')).not.toMatch(/ford|tin with the log/);

  await atLine(page, 'The cairn hides');
  await page.getByRole('button', { name: 'Section…' }).click();
  await page.getByRole('button', { name: 'Remove the section' }).click();
  await expect(page.locator('.ProseMirror section')).toHaveCount(0);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByText('The cairn hides a tin with the log.')).toBeVisible();
  expect(await visitor.content()).not.toContain('ford');
  expect(await about()).toMatchObject({ isAccessibleForFree: true });
  await visitor.context().close();
});
