import { expect, type APIRequestContext, type Page } from '@playwright/test';
import { loadContent, OWNER } from '../../scripts/lib/load-demo';
import { readTestKeys } from '../../scripts/lib/stand-ins';
import { SETUP } from '../../src/services/actor';
import { connectGateway } from '../../src/services/connect-gateway';
import { siteNow } from '../../src/services/clock';
import { retireOffer } from '../../src/services/retire-tier';
import { saveTier } from '../../src/services/save-tier';
import { currentSite } from '../../src/services/site';
import { pool } from '../../src/store/db';
import { listCheckoutAccounts } from '../../src/store/gateways';
import { findItem } from '../../src/store/items';
import { listOffers } from '../../src/store/offers';
import { findTier } from '../../src/store/tiers';

export { MEMBER_PASSWORD, OWNER } from '../../scripts/lib/load-demo';

export const GATEWAY_URL = process.env.CURLEW_CARDS_URL ?? '';
export const WALLET_URL = process.env.DUNLIN_WALLET_URL ?? '';
export const SECOND_SITE_URL = process.env.SECOND_SITE_URL ?? '';
const LETTERBOX_URL = process.env.LETTERBOX_URL ?? '';

/** The content of Lantern Moor, once for all files. Tiers and offers that the journey made give way to its own. */
export async function ensureLanternMoor(): Promise<void> {
  if (await findItem(pool(), 'zodiacal-light')) return;
  for (const id of ['observer', 'gazer', 'founder']) {
    if (await findTier(pool(), id))
      await saveTier(SETUP, { id, isNew: false, name: `Old ${id}`, onJoinPage: false });
  }
  for (const offer of await listOffers(pool())) await retireOffer(SETUP, offer.id, true);
  await loadContent(siteNow(await currentSite()));
  // Of the same id in both: now with the money that Lantern Moor gave them.
  for (const id of ['observer-monthly', 'gazer-free']) await retireOffer(SETUP, id, false);
  // Where a file runs alone, nobody has connected the gateway yet.
  if ((await listCheckoutAccounts(pool(), 'test')).length === 0)
    await connectGateway(SETUP, 'curlew-cards', await testKeys());
}

export const testKeys = () => readTestKeys(GATEWAY_URL);

export async function signInAtDesk(page: Page): Promise<void> {
  await page.goto('/desk/sign-in');
  await signIn(page, OWNER.email, OWNER.password);
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
}

export async function signIn(page: Page, email: string, password: string): Promise<void> {
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

/** Moves the rehearsal clock by the Desk's own panel, and waits until the worker has caught up. */
export async function moveClock(page: Page, days: number): Promise<void> {
  await page.goto('/desk');
  await page.getByRole('button', { name: 'No real money' }).click();
  await page.getByLabel('Days', { exact: true }).fill(String(days));
  await page.getByRole('button', { name: 'Move on' }).click();
  await expect(page.getByText(`Moved ${days === 1 ? 'a day' : `${days} days`} on.`)).toBeVisible();
  await expect(page.getByText('catching up')).toHaveCount(0, { timeout: 30_000 });
}

export type Person = { name: string; email: string; password: string };

export async function fillPerson(page: Page, person: Person): Promise<void> {
  await page.getByLabel('Name').fill(person.name);
  await page.getByLabel('E-mail').fill(person.email);
  await page.getByLabel('Password').fill(person.password);
  // No person is through a form within a second, and the site knows it.
  await page.waitForTimeout(1_300);
  const rules = page.getByLabel(/I keep the rules/);
  if (await rules.count()) await rules.check();
}

/** Fills in one of the stand-in's cards with one click in its frame. */
export async function pickCard(page: Page, title: string): Promise<void> {
  const frame = page.frameLocator('iframe[title^="Card details"]');
  await frame.getByRole('button', { name: title }).click();
  await expect(frame.getByLabel('Card number')).toHaveValue(/^902 /);
}

type Letter = { to: string; subject: string; text: string };

export async function lettersTo(request: APIRequestContext, email: string): Promise<Letter[]> {
  return (await (
    await request.get(`${LETTERBOX_URL}/letters.json?to=${encodeURIComponent(email)}`)
  ).json()) as Letter[];
}

export async function expectLetter(
  request: APIRequestContext,
  email: string,
  subject: RegExp,
  times = 1,
): Promise<void> {
  await expect
    .poll(
      async () => (await lettersTo(request, email)).filter((letter) => subject.test(letter.subject)).length,
      { timeout: 20_000 },
    )
    .toBe(times);
}
