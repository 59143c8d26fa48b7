import { expect, test, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { saveTier } from '../../src/billing/services/save-tier';
import { SETUP } from '../../src/platform/actor';
import { closePools, pool } from '../../src/platform/store/db';
import { findTier } from '../../src/tiers/store/tiers';
import { signInAtDesk } from './people';

/** Every kind of offer, built by hand in the editor: what it says, and what it comes to in a year from 31 January. */
let owners: BrowserContext;
let desk: Page;
test.beforeAll(async ({ browser }) => {
  for (const name of ['Workshop', 'Workshop Guest']) {
    const id = name.toLowerCase().replace(' ', '-');
    const isNew = !(await findTier(pool(), id));
    const made = await saveTier(SETUP, { id, isNew, name, onJoinPage: false });
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
  }
  owners = await browser.newContext();
  desk = await owners.newPage();
  await signInAtDesk(desk);
  await desk.goto('/desk');
});
test.afterAll(async () => {
  await owners.close();
  await closePools();
});

type Typed = {
  amount?: string;
  n?: string;
  unit?: string;
  payments?: string;
  lasts?: string;
  until?: string;
  gives?: string;
};

const step = (index: number): Locator => desk.locator('form[aria-label="Offer"] ol > li').nth(index);

async function type(index: number, typed: Typed): Promise<void> {
  const card = step(index);
  if (typed.lasts) await card.getByLabel('Lasts').selectOption({ label: typed.lasts });
  if (typed.amount) await card.getByLabel(/^Amount/).fill(typed.amount);
  if (typed.n) await card.getByLabel(/^(Every|For)$/).fill(typed.n);
  if (typed.unit) await card.getByLabel('Unit').selectOption(typed.unit);
  if (typed.payments) await card.getByLabel('Payments').fill(typed.payments);
  if (typed.until) await card.getByLabel('Last day').fill(typed.until);
  if (typed.gives) await card.getByLabel('Gives').selectOption({ label: typed.gives });
}

const field = (label: string | RegExp) => desk.getByLabel(label);

type Case = [
  name: string,
  begin: string,
  steps: Typed[],
  more: (() => Promise<void>) | null,
  sentence: string,
  year: [payments: string, total: string],
];

const CASES: Case[] = [
  ['Free for good', 'Free', [], null, 'Free for good.', ['0 payments', '£0.00']],
  [
    'Free for a month',
    'Once, for a year',
    [{ amount: '0', unit: 'month' }],
    () => field(/^Renewal opens/).fill(''),
    'Free for a month.',
    ['0 payments', '£0.00'],
  ],
  [
    '£6 a month',
    'By the month',
    [{ amount: '6' }],
    null,
    '£6 a month until you cancel.',
    ['12 payments', '£72.00'],
  ],
  [
    '£60 a year',
    'By the year',
    [{ amount: '60' }],
    null,
    '£60 a year until you cancel.',
    ['1 payment', '£60.00'],
  ],
  [
    'Every 10 days',
    'By the month',
    [{ amount: '2.50', n: '10', unit: 'day' }],
    null,
    '£2.50 every 10 days until you cancel.',
    ['37 payments', '£92.50'],
  ],
  [
    'Every 3 months',
    'By the month',
    [{ amount: '17', n: '3' }],
    null,
    '£17 every 3 months until you cancel.',
    ['4 payments', '£68.00'],
  ],
  [
    'Every 6 months',
    'By the month',
    [{ amount: '32', n: '6' }],
    null,
    '£32 every 6 months until you cancel.',
    ['2 payments', '£64.00'],
  ],
  [
    '£150 once',
    'Once, for good',
    [{ amount: '150' }],
    null,
    '£150 once, for good.',
    ['1 payment', '£150.00'],
  ],
  [
    'A year, renewed',
    'Once, for a year',
    [{ amount: '60' }],
    null,
    '£60 once, for a year. You can renew it from 30 days before it ends.',
    ['1 payment', '£60.00'],
  ],
  [
    'Until a date',
    'Once, until a date',
    [{ amount: '25', until: '2099-08-09' }],
    null,
    '£25 once, until 9 Aug 2099.',
    ['1 payment', '£25.00'],
  ],
  [
    'Instalments, kept',
    'Instalments',
    [{ amount: '45' }],
    null,
    '4 payments of £45 a month, and it’s yours for good.',
    ['4 payments', '£180.00'],
  ],
  [
    'Instalments, ended',
    'Instalments',
    [{ amount: '45' }],
    () =>
      field('After the last step')
        .selectOption('end')
        .then(() => undefined),
    '4 payments of £45 a month, then it ends.',
    ['4 payments', '£180.00'],
  ],
  [
    'Trial, monthly',
    'Trial, then by the month',
    [{}, { amount: '6' }],
    null,
    '14 days free, then £6 a month until you cancel.',
    ['12 payments', '£72.00'],
  ],
  [
    'Cheaper at first',
    'Cheaper at first',
    [{ amount: '2' }, { amount: '6' }],
    null,
    '3 payments of £2 a month, then £6 a month until you cancel.',
    // From the last of January three months end on the last of April, and from there ten more fall into the year.
    ['13 payments', '£66.00'],
  ],
  [
    'Fee at the start',
    'Trial, then by the month',
    [{}, { amount: '15' }],
    async () => {
      await field(/^Joining fee/).fill('10');
      await field('The fee is due').selectOption('start');
    },
    '14 days free, then £15 a month until you cancel. A joining fee of £10 is due when you join.',
    ['13 payments', '£190.00'],
  ],
  [
    'Fee with the first',
    'Trial, then by the month',
    [{}, { amount: '15' }],
    () => field(/^Joining fee/).fill('10'),
    '14 days free, then £15 a month until you cancel. A joining fee of £10 is charged with the first payment.',
    ['12 payments', '£190.00'],
  ],
  [
    'A week, then a year',
    'Trial, then by the month',
    [
      { amount: '5', n: '7', gives: 'Workshop Guest' },
      { amount: '70', unit: 'year' },
    ],
    null,
    '7 days of Workshop Guest for £5, then £70 a year for Workshop until you cancel.',
    ['2 payments', '£75.00'],
  ],
  [
    'In yen',
    'By the month',
    [{ amount: '900' }],
    () =>
      field('Currency')
        .selectOption('JPY')
        .then(() => undefined),
    'JP¥900 a month until you cancel.',
    ['12 payments', 'JP¥10,800'],
  ],
  [
    'In dinars',
    'By the month',
    [{ amount: '1.250' }],
    () =>
      field('Currency')
        .selectOption('KWD')
        .then(() => undefined),
    'KWD 1.250 a month until you cancel.',
    ['12 payments', 'KWD 15.000'],
  ],
];

for (const [name, begin, steps, more, sentence, [payments, total]] of CASES) {
  test(`an owner makes: ${name}`, async () => {
    await desk.goto('/desk/tiers/workshop/offers/new');
    await desk.getByRole('button', { name: begin, exact: true }).click();
    await more?.();
    for (const [index, typed] of steps.entries()) await type(index, typed);
    await field('Name of the offer').fill(name);
    await field('if they join on').fill('2027-01-31');
    await expect(desk.getByText(`“${sentence}”`)).toBeVisible();
    const sum = desk.getByRole('table').getByRole('row').last();
    await expect(sum).toContainText(payments);
    await expect(sum).toContainText(total);
    await desk.getByRole('button', { name: 'Create the offer' }).click();
    await expect(desk.getByRole('heading', { name: `Workshop: ${name}`, exact: true })).toBeVisible();
    await expect(desk.getByText(`“${sentence}”`)).toBeVisible();
  });
}

test('a month end stays a month end in what is shown before saving', async () => {
  await desk.goto('/desk/tiers/workshop/offers/new');
  await type(0, { amount: '6' });
  await field('if they join on').fill('2027-01-31');
  const dates = desk.getByRole('table').getByRole('row');
  for (const [row, date] of [
    'Sun 31 Jan 2027',
    'Sun 28 Feb 2027',
    'Wed 31 Mar 2027',
    'Fri 30 Apr 2027',
  ].entries())
    await expect(dates.nth(row + 1)).toContainText(date);
});

test('an impossible offer is refused in words at its step', async () => {
  await desk.goto('/desk/tiers/workshop/offers/new');
  await type(0, { amount: '-6' });
  await expect(step(0).getByText('An amount cannot be below zero.')).toBeVisible();
  await type(0, { amount: '6.005' });
  await expect(step(0).getByText('GBP has at most 2 decimals.')).toBeVisible();
  await type(0, { amount: '6' });
  await desk.getByRole('button', { name: 'Add a single payment' }).click();
  await type(1, { amount: '9', lasts: 'until a date', until: '2020-01-01' });
  await expect(step(1).getByText('Nothing can follow a step that never ends.')).toBeVisible();
  await expect(step(1).getByText('This day has passed')).toBeVisible();
  await field('Name of the offer').fill('Impossible');
  await desk.getByRole('button', { name: 'Create the offer' }).click();
  await expect(desk.getByText('Something in the steps needs attention')).toBeVisible();
  await expect(desk).toHaveURL(/offers\/new$/);
});

test('steps are dragged into order on the time line, and the sentence follows', async () => {
  await desk.goto('/desk/tiers/workshop/offers/new');
  await desk.getByRole('button', { name: 'Cheaper at first', exact: true }).click();
  await type(0, { amount: '2' });
  await type(1, { amount: '6', payments: '5' });
  await expect(
    desk.getByText('“3 payments of £2 a month, then 5 payments of £6 a month, then it ends.”'),
  ).toBeVisible();
  const handle = desk.getByRole('button', { name: 'Move step 1, repeating price' });
  await handle.focus();
  await handle.press('Space');
  await expect(desk.getByText(/is (picked up, |at )place 1/)).toBeAttached();
  await desk.keyboard.press('ArrowRight');
  await expect(desk.getByText(/is at place 2 of 2/)).toBeAttached();
  await desk.keyboard.press('Space');
  await expect(
    desk.getByText('“5 payments of £6 a month, then 3 payments of £2 a month, then it ends.”'),
  ).toBeVisible();
});

test('all join links are in one list, and each can be copied', async () => {
  await owners.grantPermissions(['clipboard-read', 'clipboard-write']);
  await desk.goto('/desk/tiers/links');
  const row = desk.getByRole('row').filter({ hasText: 'Instalments, kept' });
  await row.getByRole('button', { name: /^Copy the join link/ }).click();
  const copied = await desk.evaluate(() => navigator.clipboard.readText());
  expect(copied).toMatch(/\/join\/workshop-instalments-kept$/);
  await desk.goto(copied);
  await expect(desk.getByRole('heading', { name: 'Join Workshop' })).toBeVisible();
  await expect(desk.getByRole('complementary', { name: 'What you pay' })).toContainText('Due today£45.00');
});
