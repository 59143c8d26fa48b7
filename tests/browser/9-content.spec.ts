import { expect, test, type Page } from '@playwright/test';
import { ensureLanternMoor, fillPerson, lettersTo, MEMBER_PASSWORD, signInAtDesk } from './people';

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

const pdf = {
  name: 'Mirror notes.pdf',
  mimeType: 'application/pdf',
  buffer: Buffer.from(`%PDF-1.7\n${'x'.repeat(1_500_000)}`),
};

test('a file is uploaded in pieces, offered in a closed part, and fetched by its readers alone', async ({
  page,
  browser,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/content?kind=file');
  await page.getByLabel('Add files').setInputFiles(pdf);
  await expect(page.getByText('Added', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Mirror notes' }).click();
  const address = await page.getByRole('link', { name: 'Mirror notes.pdf' }).getAttribute('href');

  await page.goto('/desk/content/items/new?kind=post');
  await page.getByLabel('Title').fill('Notes on mirrors');
  await page.locator('.ProseMirror').click();
  await page.keyboard.type('Open words.');
  await page.getByRole('button', { name: 'Insert', exact: true }).click();
  await page.getByRole('button', { name: 'File', exact: true }).click();
  await page.getByRole('combobox', { name: 'Title or address' }).fill('Mirror no');
  await page.getByRole('option', { name: /Mirror notes/ }).click();
  await expect(page.locator('.ProseMirror')).toContainText('File: Mirror notes');
  await page.locator('.ProseMirror').getByText('File: Mirror notes').click();
  await page.keyboard.press('Control+Shift+L');
  await page.getByLabel('Observer').check();
  await page.getByRole('button', { name: 'Close this part' }).click();
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();

  const visitor = await (await browser.newContext()).newPage();
  const refused = await visitor.request.get(address ?? '');
  expect(refused.status()).toBe(404);
  expect(await refused.text()).not.toContain('%PDF');
  await visitor.goto('/posts/notes-on-mirrors');
  await expect(visitor.locator('.closed-part')).toHaveCount(1);
  expect(await visitor.content()).not.toMatch(/Mirror notes|downloads\//);

  const whole = await page.request.get(address ?? '');
  expect([whole.status(), (await whole.body()).length]).toEqual([200, pdf.buffer.length]);
  expect(whole.headers()).toMatchObject({
    'content-type': 'application/pdf',
    'x-content-type-options': 'nosniff',
    'cache-control': 'private, no-cache',
    'accept-ranges': 'bytes',
  });
  expect(whole.headers()['content-security-policy']).toMatch(/^default-src 'none';(?!.*script)/);
  const part = await page.request.get(address ?? '', { headers: { range: 'bytes=1-3' } });
  expect([part.status(), await part.text(), part.headers()['content-range']]).toEqual([
    206,
    'PDF',
    `bytes 1-3/${pdf.buffer.length}`,
  ]);
  const etag = whole.headers().etag ?? '';
  expect((await page.request.get(address ?? '', { headers: { 'if-none-match': etag } })).status()).toBe(304);
  expect((await page.request.get(address ?? '', { headers: { range: 'bytes=9999999-' } })).status()).toBe(
    416,
  );
  await visitor.context().close();
});

test('a link is picked by its title and survives a move; what was typed survives a lost window', async ({
  page,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/content/items/new?kind=page');
  await page.getByLabel('Title').fill('Where we meet');
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  const meeting = page.url().replace(/\?.*/, '');

  await page.goto('/desk/content/items/new?kind=page');
  await page.getByLabel('Title').fill('Come along');
  await page.locator('.ProseMirror').click();
  await page.keyboard.type('The place');
  await page.keyboard.press('Shift+Home');
  await expect.poll(() => page.evaluate(() => String(getSelection()))).toBe('The place');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Title or address' }).fill('where we');
  await page.getByRole('option', { name: /Where we meet/ }).click();
  await expect(page.locator('.ProseMirror a')).toHaveText('The place');
  // The window is lost before anything is saved.
  await expect(page.getByText('Draft saved at')).toBeVisible({ timeout: 10_000 });
  page.on('dialog', (dialog) => void dialog.accept());
  await page.goto('/desk/content/items/new?kind=page');
  await page.getByRole('button', { name: 'Continue with the draft' }).click();
  await expect(page.getByLabel('Title')).toHaveValue('Come along');
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();

  await page.goto(meeting);
  await page.getByLabel('Address', { exact: true }).fill('the-mill');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.goto('/come-along');
  await expect(page.getByRole('article').getByRole('link', { name: 'The place' })).toHaveAttribute(
    'href',
    '/the-mill',
  );
  await page.goto('/where-we-meet');
  await expect(page).toHaveURL(/\/the-mill$/);
});

test('a page is changed, compared, restored, thrown away and brought back', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk/content/items/new?kind=page');
  await page.getByLabel('Title').fill('Opening hours');
  await page.locator('.ProseMirror').click();
  await page.keyboard.type('We open at eight.');
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.locator('.ProseMirror').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('We open at nine.');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('link', { name: 'History: 2 versions' })).toBeVisible();
  await page.getByRole('link', { name: 'History: 2 versions' }).click();
  await page.getByRole('link', { name: /^Version 1/ }).click();
  await expect(page.locator('del')).toHaveText('eight');
  await expect(page.locator('ins')).toHaveText('nine');
  await page.getByRole('button', { name: 'Restore this version' }).click();
  await expect(page.locator('.ProseMirror')).toHaveText('We open at eight.');

  await page.getByRole('button', { name: 'Move to trash' }).click();
  await expect(page).toHaveURL(/\/desk\/content\?kind=page/);
  expect((await page.request.get('/opening-hours')).status()).toBe(404);
  await page.goto('/desk/content/trash');
  const line = page.getByRole('listitem').filter({ hasText: 'Opening hours' });
  await line.getByRole('button', { name: 'Restore' }).click();
  await expect(line).toHaveCount(0);
  await page.goto('/desk/content?kind=page&state=unpublished');
  await expect(page.getByRole('link', { name: 'Opening hours' })).toBeVisible();
});

test('what is pasted from a word processor comes in as plain structure', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk/content/items/new?kind=post');
  const text = page.locator('.ProseMirror');
  await text.click();
  await text.evaluate((target) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData(
      'text/html',
      `<html><head><style>p.MsoNormal{color:red}</style></head><body><!--[if gte mso 9]><xml>junk</xml><![endif]-->
       <h1 style="mso-x:y">Top</h1><p class="MsoNormal" style="color:red">Some <b>bold</b>&nbsp;words<o:p></o:p></p><p>&nbsp;</p>
       <p style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·<span>&nbsp;</span></span>First</p>
       <p style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·</span>Second</p>
       <img src="data:image/png;base64,AAAA"></body></html>`,
    );
    target.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  });
  await expect(text.locator('h2')).toHaveText('Top');
  await expect(text.locator('ul li')).toHaveText(['First', 'Second']);
  await expect(text.locator('strong')).toHaveText('bold');
  expect(await text.innerHTML()).not.toMatch(/Mso|style=|junk|<img|color/);
});

test('the menu is built, nested by keyboard, and shown to those it is meant for', async ({
  page,
  browser,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/content/menu');
  await page.getByRole('button', { name: 'Add an entry' }).click();
  const form = page.getByRole('form', { name: 'Add an entry' });
  await form.getByLabel('Links to').selectOption('archive');
  await form.getByLabel('Label').fill('Old nights');
  await form.getByLabel('Shown to').selectOption('signed-out');
  await form.getByRole('button', { name: 'Add an entry' }).click();
  await expect(page.getByText('Old nights')).toBeVisible();
  await page.getByRole('button', { name: 'Move Old nights one level in' }).click();
  await expect(page.getByRole('button', { name: 'Move Old nights one level out' })).toBeEnabled();

  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto('/');
  const nav = visitor.getByRole('navigation', { name: 'Site' }).first();
  await nav.locator('summary').last().click();
  await nav.getByRole('link', { name: 'Old nights' }).click();
  await expect(visitor).toHaveURL(/\/archive$/);
  await page.goto('/');
  await expect(page.getByText('Old nights')).toHaveCount(0);

  // What people look for first opens in place.
  await page.goto('/desk/content/menu');
  await page.getByRole('button', { name: 'Add an entry' }).click();
  await form.getByLabel('Links to').selectOption('sign-in');
  await form.getByLabel('Show as').selectOption('panel');
  await form.getByRole('button', { name: 'Add an entry' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Panel that opens' })).toBeVisible();
  await visitor.goto('/posts/first-clear-night');
  await nav.locator('summary', { hasText: 'Sign in' }).click();
  await expect(nav.getByRole('textbox', { name: /email/i })).toBeVisible();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Sign in or out' })
    .getByRole('button', { name: 'Change' })
    .click();
  await page.getByRole('button', { name: 'Remove from the menu' }).click();
  await visitor.context().close();
});

test('a member comments on a post, staff approve it, and the reply is mailed with one click to stop', async ({
  page,
  browser,
  request,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/content/kinds');
  await page.locator('summary', { hasText: 'Posts' }).click();
  await page.getByRole('form', { name: 'Posts' }).getByLabel('Allow comments').check();
  await page.getByRole('form', { name: 'Posts' }).getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();

  const member = await (await browser.newContext()).newPage();
  const person = {
    name: 'Odile Brand',
    email: `odile.${Date.now()}@moor.example`,
    password: MEMBER_PASSWORD,
  };
  await member.goto('/join/gazer-free?to=/posts/first-clear-night');
  await fillPerson(member, person);
  await member.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(member.getByRole('heading', { name: 'You now have Gazer' })).toBeVisible({ timeout: 20_000 });
  await member.goto('/posts/first-clear-night');
  await member.getByRole('textbox', { name: 'Your comment' }).fill('The ford was frozen too. <b>Bold</b>');
  await member.getByRole('button', { name: 'Post comment' }).dblclick();
  await expect(member.getByText('Waiting for approval')).toHaveCount(1);

  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto('/posts/first-clear-night');
  await expect(visitor.getByRole('heading', { name: 'Comments' })).toBeVisible();
  expect(await visitor.content()).not.toContain('The ford was frozen');
  await page.goto('/desk/content/comments');
  await page
    .getByRole('listitem')
    .filter({ hasText: 'The ford was frozen' })
    .getByRole('button', { name: 'Approve' })
    .click();
  await expect(page.getByText('The ford was frozen')).toHaveCount(0);
  // A page with comments may be a second old, see docs/behind-a-cache.md.
  await expect(async () => {
    await visitor.reload();
    await expect(visitor.getByText('The ford was frozen too. <b>Bold</b>')).toBeVisible({ timeout: 500 });
  }).toPass({ timeout: 20_000 });
  await expect(visitor.getByRole('link', { name: 'Sign in' }).last()).toHaveAttribute('href', /sign-in\?to=/);

  await page.goto('/posts/first-clear-night');
  await page.locator('summary', { hasText: 'Reply' }).click();
  await page.getByRole('textbox', { name: 'Your reply to Odile Brand' }).fill('So was the pump.');
  await page.getByRole('button', { name: 'Reply', exact: true }).click();
  await expect(page.getByText('So was the pump.')).toBeVisible();
  await expect(async () => {
    const reply = (await lettersTo(request, person.email)).find(({ subject }) =>
      subject.startsWith('New reply'),
    );
    expect(reply?.text).not.toContain('pump');
    // A mail program posts without cookies, and needs no page.
    expect((await request.post(reply?.oneClickUrl ?? '')).status()).toBe(200);
  }).toPass({ timeout: 20_000 });
  await member.goto('/account/settings');
  await expect(member.getByText('You don’t get emails about replies to your comments.')).toBeVisible();
  for (const one of [member, visitor]) await one.context().close();
});
