import { expect, test } from '@playwright/test';
import { personNamed } from '../../scripts/lib/people';
import { ensureLanternMoor, lettersTo, MEMBER_PASSWORD, signInAs, signInAtDesk } from './people';

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
  await page.getByRole('button', { name: 'Create group' }).click();
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
  await page.getByRole('link', { name: 'The address /about/**', exact: true }).click();
  await page.getByRole('button', { name: 'Remove the group Chart room' }).click();
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByRole('region', { name: 'How to read on' })).toBeVisible();
  await page.goto('/desk/access?view=rulebook');
  await page.getByRole('link', { name: 'The address /about/**', exact: true }).click();
  await page.getByText(/^History/).click();
  await page.getByRole('button', { name: 'Undo this change' }).click();
  await expect(page.getByText('The rule is as it was.')).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByRole('region', { name: 'How to read on' })).toHaveCount(0);

  // Archived, it is restored.
  await page.getByRole('button', { name: 'Archive the rule' }).click();
  await page.getByRole('button', { name: 'Yes, archive' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
  await stranger.reload();
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toHaveCount(0);
  await page.goto('/desk/access?view=rulebook');
  await page.getByText(/^Archived rules/).click();
  await page.getByRole('listitem').filter({ hasText: '/about/**' }).getByRole('button').click();
  await expect(page.getByText('The rule is as it was.')).toBeVisible();
  await stranger.reload();
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toBeVisible();
  await page.getByRole('button', { name: 'Archive the rule' }).click();
  await page.getByRole('button', { name: 'Yes, archive' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
});

test('the map says why, and the site is seen as one member on another day', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk/access?open=category:guides');
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
  await page.getByRole('link', { name: 'Why?' }).click();
  await expect(page.getByRole('complementary', { name: /^Why\?/ })).toContainText('Orla Vane');
  await page.goto('/visit');
  await page.getByRole('button', { name: 'Back to the Desk' }).click();
});

test('cells are painted, reviewed as a draft, applied and undone', async ({ page, browser }) => {
  const stranger = await (await browser.newContext()).newPage();
  await signInAtDesk(page);
  await page.goto('/desk/access?open=category:guides');
  const cell = page.getByRole('gridcell').getByLabel(/Finding the zodiacal light.*, Visitor$/);
  await expect(cell).toContainText('Closed');
  const draft = page.getByRole('region', { name: 'Draft' });
  await expect(async () => {
    await cell.focus();
    await page.keyboard.press('o');
    await expect(draft).toBeVisible({ timeout: 2_000 });
  }).toPass();
  await expect(cell).toContainText('Open');
  await expect(draft).toContainText('1 cell painted');
  await expect(draft).toContainText('1 item');
  await draft.getByRole('button', { name: 'Review' }).click();
  await expect(draft).toContainText('New rule “Finding the zodiacal light');
  // Nothing has changed yet, and what was painted stays when the page is left.
  await stranger.goto('/posts/zodiacal-light');
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toBeVisible();
  await page.reload();
  await expect(draft).toContainText('1 cell painted');
  await draft.getByRole('button', { name: 'Apply' }).click();
  await expect(page.getByText('The draft is applied.')).toBeVisible();
  await stranger.reload();
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('The draft is undone.')).toBeVisible();
  await expect(cell).toContainText('Closed');
  await stranger.reload();
  await expect(stranger.getByRole('region', { name: 'How to read on' })).toBeVisible();

  // The keyboard moves and asks why; on a phone one viewpoint is shown at a time.
  await cell.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: /^Why\?/ })).toContainText('A member without a tier');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/desk/access?open=category:guides');
  await page.getByLabel('Seen by').selectOption({ label: 'Observer' });
  await expect(
    page.getByRole('gridcell').getByLabel(/Finding the zodiacal light.*, Observer$/),
  ).toContainText('Open');
  await expect(page.getByRole('gridcell').getByLabel(/Finding the zodiacal light.*, Visitor$/)).toBeHidden();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('free reads are counted for a visitor, and the doorstep says what comes next', async ({
  page,
  browser,
}) => {
  await signInAtDesk(page);
  await page.goto('/desk/access/meters/new');
  await page.getByLabel('Name').fill('One a month');
  await page.getByLabel('Counted in').selectOption({ label: 'each calendar month' });
  await page.getByLabel('Reads').fill('1');
  await page.getByRole('button', { name: 'Save the meter' }).click();
  await expect(page.getByText('1 for everyone, in a calendar month.')).toBeVisible();
  await page.goto('/desk/access/clinic');
  await page.getByLabel('Free reads').selectOption({ label: 'One a month' });
  await page.getByRole('button', { name: 'Members whose tier has ended' }).click();
  await page.getByRole('button', { name: 'Visitors', exact: true }).click();
  await page.getByLabel('Notice for: Visitors').fill('“{item}” is for makers. {join}');
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
  const second = 'A clinic for the second time';
  await page.goto('/desk/content/items/new?kind=post');
  await page.getByLabel('Title').fill(second);
  await page.locator('.ProseMirror').click();
  await page.keyboard.type('Grind on.');
  await page.getByLabel('Mirror clinic').check();
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();

  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto('/posts/mirror-1');
  await expect(visitor.getByText('This is your free read')).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByText('This is your free read')).toBeVisible();
  await visitor.goto('/posts/a-clinic-for-the-second-time');
  const doorstep = visitor.getByRole('region', { name: 'How to read on' });
  await expect(doorstep).toContainText('You’ve used your free read');
  await expect(doorstep).toContainText(`“${second}” is for makers.`);
  await expect(doorstep.getByRole('link', { name: 'Join', exact: true })).toHaveAttribute('href', /join/);
  await page.goto('/desk/access/meters');
  await expect(page.getByText('Used all, last 30 days').first()).toBeVisible();
  // Other tests read what this rule closes.
  await page.goto('/desk/access/clinic');
  await page.getByLabel('Free reads').selectOption({ index: 0 });
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
});

test('a pass is got by a shared password and by an address, and is ended by staff', async ({
  page,
  browser,
  request,
}) => {
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto('/posts/mirror-1');
  await expect(phone.getByRole('region', { name: 'How to read on' })).toBeVisible();
  await phone.getByText('Have a password for this?').click();
  await phone.getByLabel('Password for Clinic guests').fill('bring a hard cloth');
  await phone.getByRole('button', { name: 'Continue' }).click();
  await expect(phone.getByText('That isn’t the password.')).toBeVisible();
  await phone.getByLabel('Password for Clinic guests').fill('bring a soft cloth');
  await phone.getByRole('button', { name: 'Continue' }).click();
  await expect(phone.getByText('walk round the barrel')).toBeVisible();

  const reader = await (await browser.newContext()).newPage();
  await reader.goto('/posts/mirror-1');
  await reader
    .getByRole('textbox', { name: 'Leave your email address to read on' })
    .fill('guest@moor.example');
  await reader.getByRole('button', { name: 'Email me the link' }).click();
  await expect(reader.getByText('We’ve emailed a link to guest@moor.example.')).toBeVisible();
  await expect(async () => {
    const [letter] = await lettersTo(request, 'guest@moor.example');
    const link = /\/pass\/[\w-]+/.exec(letter?.text ?? '')?.[0] ?? '';
    expect(link).not.toBe('');
    await reader.goto(link);
  }).toPass({ timeout: 20_000 });
  await reader.getByRole('button', { name: 'Continue' }).click();
  await expect(reader.getByText('walk round the barrel')).toBeVisible();

  await signInAtDesk(page);
  await page.goto('/desk/access/passes/clinic-guests');
  const holder = page.getByRole('row').filter({ hasText: 'guest@moor.example' });
  await holder.getByText('End it', { exact: true }).click();
  await holder.getByRole('button', { name: 'Yes, end it' }).click();
  await expect(holder).toHaveCount(0);
  await reader.reload();
  await expect(reader.getByRole('region', { name: 'How to read on' })).toBeVisible();
  await page.getByLabel('New password').fill('bring a new cloth');
  await page.getByRole('button', { name: 'Change the password' }).click();
  await expect(page.getByText('Password set.')).toBeVisible();
  await phone.reload();
  await expect(phone.getByRole('region', { name: 'How to read on' })).toBeVisible();
});

test('a rule opens pages one by one, and to a group that is begun while it is written', async ({ page }) => {
  await signInAtDesk(page);
  await page.goto('/desk/access/library');
  await page.getByLabel('Open the pages below it one by one').check();
  await page.getByLabel('Add a tier, a group or others').fill('Readers');
  await page.getByRole('option', { name: 'New group “Readers”' }).click();
  await expect(page.getByText('the group Readers', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
  await page.goto('/desk/access?view=rulebook');
  const rule = page.getByRole('listitem').filter({ hasText: 'Library and charts' });
  await expect(rule).toContainText('The pages open one by one: one a week, the first at once.');
  await expect(rule).toContainText('the group Readers');
  // Other tests read the library.
  await page.goto('/desk/access/library');
  await page.getByLabel('Open the pages below it one by one').uncheck();
  await page.getByRole('button', { name: 'Remove the group Readers' }).click();
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect(page.getByRole('heading', { name: 'Who sees what' })).toBeVisible();
});

test('the leak check finds none, and then what was planted', async ({ page }) => {
  test.setTimeout(300_000);
  await signInAtDesk(page);
  const check = async (): Promise<void> => {
    await page.goto('/desk/access/check');
    await page.getByRole('button', { name: 'Check now' }).click();
    await expect(page.getByRole('progressbar')).toBeVisible();
  };
  await check();
  await expect(page.getByRole('heading', { name: 'No leak found' })).toBeVisible({ timeout: 240_000 });
  // A closed sentence becomes a name that every page shows.
  const named = async (name: string): Promise<void> => {
    await page.goto('/desk/settings');
    await page.getByLabel('Site name').fill(name);
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('button', { name: new RegExp(name.slice(0, 12)) }).first()).toBeVisible();
  };
  await named('The best cone of last year came after an hour of nothing, at ten past eight');
  await check();
  // It is shown as soon as it is found.
  const row = page.getByRole('row').filter({ hasText: '/join' }).first();
  await expect(row).toContainText('the best cone of last year');
  await expect(row).toContainText('Finding the zodiacal light');
  await named('Lantern Moor');
});
