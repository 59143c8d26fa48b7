import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { SETUP } from '../../src/platform/actor';
import { saveMenuEntry } from '../../src/content/services/menu';
import { saveTier } from '../../src/billing/services/save-tier';
import { closePools, pool } from '../../src/platform/store/db';
import { findTier } from '../../src/tiers/store/tiers';
import {
  ensureLanternMoor,
  expectLetter,
  fillPerson,
  lettersTo,
  mailedCode,
  MEMBER_PASSWORD,
  moveClock,
  pickCard,
  signInAtDesk,
} from './people';

let owners: BrowserContext;
let desk: Page;
test.beforeAll(async ({ browser }) => {
  await ensureLanternMoor();
  owners = await browser.newContext();
  desk = await owners.newPage();
  await signInAtDesk(desk);
  await desk.goto('/desk');
});
test.afterAll(async () => {
  await owners.close();
  await closePools();
});

const person = (name: string) => ({
  name,
  email: `${name.toLowerCase().replace(/\W+/g, '.')}.${Date.now()}@moor.example`,
  password: MEMBER_PASSWORD,
});
const settings = async (id: string, part: object): Promise<void> => {
  const tier = await findTier(pool(), id);
  if (!tier) throw new Error(`no tier ${id}`);
  const saved = await saveTier(SETUP, { ...tier, ladder: tier.ladderId ?? '', isNew: false, ...part });
  if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
};

test('rungs are dragged into order by mouse and by keyboard, and stay there', async () => {
  await desk.goto('/desk/tiers');
  const rungs = desk.getByRole('list', { name: 'Rungs of Observing, highest first' });
  const names = rungs.getByRole('link');
  const before = await names.allTextContents();
  expect(before.slice(0, 2)).toEqual(['Star Warden', 'Observer']);

  const handle = rungs.getByRole('button', { name: 'Move Star Warden' });
  const [from, to] = [
    await handle.boundingBox(),
    await rungs.getByRole('button', { name: 'Move Observer' }).boundingBox(),
  ];
  if (!from || !to) throw new Error('nothing to drag');
  await desk.mouse.move(from.x + 10, from.y + 10);
  await desk.mouse.down();
  await desk.mouse.move(to.x + 10, to.y + 20, { steps: 12 });
  await desk.mouse.up();
  await expect(names.first()).toHaveText('Observer');
  const above = async (): Promise<number> =>
    ((await findTier(pool(), 'warden'))?.rung ?? 0) - ((await findTier(pool(), 'observer'))?.rung ?? 0);
  await expect.poll(above).toBe(-1);

  await rungs.getByRole('button', { name: 'Move Star Warden' }).focus();
  await desk.keyboard.press('Space');
  await expect(desk.getByText(/Star Warden is (picked up,|at )place 2/)).toBeAttached();
  // On a busy machine the list begins to listen to arrows a moment after it has said that it was picked up.
  await expect(async () => {
    await desk.keyboard.press('ArrowUp');
    await expect(desk.getByText('Star Warden is at place 1')).toBeAttached({ timeout: 2_000 });
  }).toPass();
  await desk.keyboard.press('Space');
  await expect(names.first()).toHaveText('Star Warden');
  await expect.poll(above).toBe(1);
  await desk.reload();
  expect(await names.allTextContents()).toEqual(before);
});

test('a tier gets a key, a picture, words and limits; wrong ones are refused beside the field, and nothing typed is lost', async () => {
  await desk.goto('/desk/tiers/new');
  const name = desk.getByLabel('Name', { exact: true });
  await name.fill('Night Watch');
  await desk.getByRole('button', { name: 'One notch more' }).click();
  await desk.getByRole('button', { name: /^Notch 1/ }).click();
  // A new tier needs its name alone; the rest is folded.
  await expect(desk.getByLabel('Places', { exact: true })).toBeHidden();
  await desk.getByRole('heading', { name: 'Who can join, and when' }).click();
  await desk.getByRole('heading', { name: 'What members read' }).click();
  await desk.getByLabel('Places', { exact: true }).fill('none');
  await desk.getByLabel('On sale until').fill('2099-12-31');
  await desk.getByRole('textbox', { name: 'Text after joining' }).fill('Bring a chair.');
  await desk.setInputFiles('#picture-file', {
    name: 'notes.png',
    mimeType: 'image/png',
    buffer: Buffer.from('not a picture'),
  });
  await expect(desk.getByText('This cannot be read as a picture.')).toBeVisible();
  await desk.setInputFiles('#picture-file', 'docs/screenshots/join.png');
  await expect(desk.locator('img[src^="/pictures/"]').first()).toBeVisible();
  await desk.getByRole('button', { name: 'Create the tier' }).click();
  await expect(desk.getByText('Type a whole number, or leave it empty.')).toBeVisible();
  await expect(name).toHaveValue('Night Watch');
  await expect(desk.getByRole('textbox', { name: 'Text after joining' })).toHaveText('Bring a chair.');
  await desk.getByLabel('Places', { exact: true }).fill('2');
  await desk.getByRole('button', { name: 'Create the tier' }).click();
  await expect(desk.getByRole('heading', { name: 'Night Watch', exact: true })).toBeVisible();
  await expect(desk.getByLabel('Places')).toHaveValue('2');
  await expect(desk.getByText('Nothing yet:')).toBeVisible();
  await desk.getByLabel('Reference').fill('LM-20');
  await desk.getByRole('button', { name: 'Save the tier' }).click();
  await expect(desk.getByText('Another tier has this reference.')).toBeVisible();
  await desk.getByRole('button', { name: 'Copy tier' }).click();
  await expect(desk.getByRole('heading', { name: 'Night Watch copy' })).toBeVisible();
  await desk.getByText('Delete…', { exact: true }).click();
  await desk.getByRole('button', { name: 'Delete Night Watch copy' }).click();
  await expect(desk).toHaveURL(/\/desk\/tiers$/);
});

test('the join page switches between month and year, and says what is left, sold out and closed', async ({
  page,
}) => {
  await settings('eclipse-week', { places: 500 });
  await settings('mirror-makers', { joining: 'closed' });
  await page.goto('/join');
  const card = (name: string) =>
    page.getByRole('listitem').filter({ has: page.getByRole('heading', { name, exact: true }) });
  await expect(card('Observer')).toContainText('£6 a month');
  await page.getByRole('link', { name: 'Yearly' }).click();
  await expect(card('Observer')).toContainText('£60 a year');
  await expect(card('Observer')).toContainText('£12 less a year');
  await expect(card('Observer')).not.toContainText('£6 a month');
  await expect(card('Eclipse Week')).toContainText('of 500 left');
  await expect(card('Mirror Makers')).toContainText('Joining is closed for now');
  await expect(card('Mirror Makers').getByRole('link')).toHaveCount(0);
  await expect(page.getByRole('table')).toContainText('Observing guides');
  // Someone takes the only place there is.
  await page.goto('/join/gazer-free');
  await fillPerson(page, person('Last One'));
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'You now have Gazer' })).toBeVisible();
  await page.context().clearCookies();
  await settings('gazer', { places: 1 });
  await page.goto('/join');
  await expect(card('Gazer')).toContainText('Every place is taken');
  await page.goto('/join/gazer-free');
  await expect(page.getByText('Every place of Gazer is taken.')).toBeVisible();
  await settings('gazer', { places: null });
  await settings('eclipse-week', { places: null });
  await settings('mirror-makers', { joining: 'open' });
});

test('join questions are set in the Desk, and the answers are on the member’s file', async ({ page }) => {
  await desk.goto('/desk/tiers/questions');
  await desk.getByRole('button', { name: 'a date', exact: true }).click();
  await desk.getByRole('button', { name: 'Save the questions' }).click();
  await expect(desk.getByText('Say what is asked for.')).toBeVisible();
  const added = desk.getByRole('list', { name: 'Questions in order' }).getByRole('listitem').last();
  await added.getByRole('textbox', { name: 'Question' }).fill('First eclipse you saw');
  await added.getByLabel('required').check();
  await added.getByLabel('every tier').uncheck();
  await added.getByLabel('Gazer').check();
  await added.getByLabel('Star Warden').uncheck();
  await expect(added.getByLabel('Gazer')).toBeDisabled();
  await desk.getByRole('button', { name: 'Save the questions' }).click();
  await expect(desk.getByText('Saved.')).toBeVisible();

  const who = person('Una Answers');
  await page.goto('/join/gazer-free');
  await fillPerson(page, who);
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByText('This is needed.').or(page.getByText('Choose a date.'))).toBeVisible();
  await page.getByLabel('First eclipse you saw').fill('1999-08-11');
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'You now have Gazer' })).toBeVisible();
  await desk.goto('/desk/members');
  await desk.getByRole('link', { name: 'Una Answers' }).click();
  await expect(desk.getByRole('region', { name: 'Answers when joining' })).toContainText('1999-08-11');

  await desk.goto('/desk/tiers/questions');
  await desk.getByRole('heading', { name: 'First eclipse you saw' }).click();
  await desk.getByRole('button', { name: 'Remove' }).last().click();
  await desk.getByRole('button', { name: 'Save the questions' }).click();
  await expect(desk.getByText('Saved.')).toBeVisible();
});

test('whatever the address, the next page asks for the code; a wrong one is counted, the link works in this browser alone', async ({
  page,
  request,
  browser,
}) => {
  const who = person('Petra Proof');
  await page.goto('/join/gazer-free?to=/members-room');
  await page.getByLabel('Your email').fill(who.email);
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByRole('heading', { name: 'Check your email' })).toBeVisible();
  const code = await mailedCode(request, who.email);
  await page.getByRole('textbox', { name: 'Code' }).fill('12345');
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByText('The code has six digits.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Code' }).fill(code === '000000' ? '000001' : '000000');
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByText('You have 4 tries left.')).toBeVisible();
  await page.getByRole('button', { name: 'Send a new code' }).click();
  await expect(page.getByText('The old one no longer works.')).toBeVisible();
  await mailedCode(request, who.email, 2);
  const link =
    /https?:\/\/\S+\/sign-in\/code\/\S+/.exec((await lettersTo(request, who.email))[0]?.text ?? '')?.[0] ??
    '';
  const other = await (await browser.newContext()).newPage();
  await other.goto(link);
  await expect(other.getByRole('heading', { name: 'This link can’t be used here' })).toBeVisible();
  await other.goto('/account');
  await expect(other).toHaveURL(/sign-in/);
  await other.context().close();
  await page.goto(link);
  await expect(page.getByText(`Signed in as ${who.email}`)).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill(who.name);
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await page.getByRole('link', { name: 'Continue to the page you came from' }).click();
  await expect(page).toHaveURL(/members-room$/);
  await page.goto(link);
  await expect(page.getByRole('heading', { name: 'This link can’t be used here' })).toBeVisible();
});

test('a checkout left unfinished is listed, and resumed by a mailed link with what was answered', async ({
  page,
  request,
  browser,
}) => {
  const who = person('Ulla Unfinished');
  await page.goto('/join/observer-monthly?to=/posts/zodiacal-light');
  await fillPerson(page, who);
  await page.getByLabel('How dark is your own sky?').selectOption('Village');
  await pickCard(page, 'Declined');
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByText(/card was declined/)).toBeVisible({ timeout: 20_000 });
  await desk.goto('/desk/tiers/unfinished');
  await expect(desk.getByRole('row').filter({ hasText: who.email })).toContainText('declined');
  await moveClock(desk, 1);
  await expectLetter(request, who.email, /^Finish joining Observer$/);
  const link =
    /https?:\/\/\S+\/sign-in\/link\/\S+/.exec((await lettersTo(request, who.email))[0]?.text ?? '')?.[0] ??
    '';
  const other = await (await browser.newContext()).newPage();
  await other.goto(link);
  await other.getByRole('button', { name: 'Continue' }).click();
  await expect(other.getByText(`Signed in as`)).toContainText(who.email);
  await expect(other.getByLabel('How dark is your own sky?')).toHaveValue('Village');
  await other.getByLabel(/I keep the rules/).check();
  await pickCard(other, 'Works');
  await other.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(other.getByRole('heading', { name: 'You now have Observer' })).toBeVisible({
    timeout: 20_000,
  });
  await other.goto(link);
  await expect(other.getByRole('heading', { name: 'This link has expired' })).toBeVisible();
  await other.context().close();
});

test('a member who holds a tier is told, and switches up with the quote, down later, and back', async ({
  page,
}) => {
  const who = person('Sven Switch');
  await page.goto('/join/observer-yearly');
  await fillPerson(page, who);
  await pickCard(page, 'Works');
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'You now have Observer' })).toBeVisible({
    timeout: 20_000,
  });
  await moveClock(desk, 15);
  await page.goto('/join/observer-yearly');
  await expect(page.getByText('You have Observer already.')).toBeVisible();

  await page.goto('/account');
  const held = page.getByRole('region', { name: 'Observer', exact: true });
  await held.getByText('Switch to another offer').click();
  await held.getByRole('link', { name: 'Star Warden, £15 a month' }).click();
  const cost = page.getByRole('complementary', { name: 'What you pay' });
  await expect(cost).toContainText(/\d+ of 36[56] days of Observer unused−£15\.00/);
  await expect(cost).toContainText('Due today£0.00');
  await expect(cost).not.toContainText('joining fee');
  await page.getByRole('button', { name: 'Switch now' }).click();
  await expect(page.getByRole('heading', { name: 'You now have Star Warden' })).toBeVisible({
    timeout: 20_000,
  });

  await page.goto('/join/observer-monthly');
  await page.getByRole('button', { name: /^Switch on / }).click();
  const warden = page.getByRole('region', { name: 'Star Warden', exact: true });
  await expect(warden).toContainText('it becomes Observer');
  await warden.getByRole('button', { name: 'Undo the switch' }).click();
  await expect(warden).not.toContainText('it becomes Observer');
});

test('a join button and a join panel in a text lead back to it; an offer is in the menu', async ({
  page,
}) => {
  await desk.goto('/desk/content/items/new?kind=page');
  await desk.getByLabel('Title').fill('Come and see');
  await desk.getByRole('textbox', { name: 'Text' }).click();
  for (const entry of ['Button: Star Warden, monthly', 'Panel with Observer']) {
    await desk.getByRole('button', { name: 'Join…' }).click();
    await desk.getByRole('menuitem', { name: entry }).click();
  }
  await desk.getByRole('button', { name: 'Publish' }).click();
  await expect(desk.getByText('Saved.')).toBeVisible();
  await saveMenuEntry(SETUP, { kind: 'offer', target: 'observer-monthly', label: 'Become an Observer' });

  await page.goto('/come-and-see');
  await expect(page.getByRole('link', { name: 'Join: Star Warden, monthly' })).toHaveAttribute(
    'href',
    '/join/warden-monthly?to=%2Fcome-and-see',
  );
  const panel = page.getByRole('complementary', { name: 'Join' });
  await expect(panel).toContainText('14 days free, then £6 a month until you cancel.');
  await panel.getByRole('link', { name: '£60 a year' }).click();
  await expect(page).toHaveURL(/\/join\/observer-yearly\?to=%2Fcome-and-see$/);
  await page
    .getByRole('navigation', { name: 'Site' })
    .getByRole('link', { name: 'Become an Observer' })
    .click();
  await expect(page).toHaveURL(/\/join\/observer-monthly$/);
});

test('a dearer version is for newcomers; the page says how many stay, and moves them', async () => {
  await desk.goto('/desk/tiers/warden/offers/warden-monthly');
  await desk
    .locator('form[aria-label="Offer"] ol > li')
    .nth(1)
    .getByLabel(/^Amount/)
    .fill('18');
  await desk.getByRole('button', { name: 'Save the offer' }).click();
  await expect(desk.getByText('Version 2, the newest')).toBeVisible();
  await desk.getByText(/^Move 1 member to version 2/).click();
  const form = desk.getByRole('form', { name: 'Move members' });
  await expect(form).toContainText('Now: £15 a month until you cancel.');
  await expect(form).toContainText('1 member: next charge £18 instead of £15');
  await form.getByRole('button', { name: 'Move 1 member' }).click();
  await expect(desk.getByText('all move at their next period')).toBeVisible();
});
