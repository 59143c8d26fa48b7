import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { loadContent, OWNER } from '../../scripts/lib/load-demo';
import { readTestKeys } from '../../scripts/lib/stand-ins';
import { personNamed } from '../../scripts/lib/people';
import { SETUP, VISITOR_ACTOR } from '../../src/platform/actor';
import { openSession } from '../../src/people/services/lib/open-session';
import { giveTier } from '../../src/members/services/gifts';
import { connectGateway } from '../../src/billing/services/connect-gateway';
import { siteNow } from '../../src/platform/clock';
import { retireOffer } from '../../src/tiers/services/retire-tier';
import { saveTier } from '../../src/billing/services/save-tier';
import { currentSite } from '../../src/platform/site';
import { pool, transaction } from '../../src/platform/store/db';
import { listCheckoutAccounts } from '../../src/billing/store/gateways';
import { findItem } from '../../src/content/store/items';
import { listOffers } from '../../src/tiers/store/offers';
import { findMemberByEmail, type Member } from '../../src/people/store/members';
import { findTier } from '../../src/tiers/store/tiers';

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
  for (const offer of await listOffers(pool())) await retireOffer(SETUP, { id: offer.id, isRetired: true });
  await loadContent(siteNow(await currentSite()));
  // Of the same id in both: now with the money that Lantern Moor gave them.
  for (const id of ['observer-monthly', 'gazer-free']) await retireOffer(SETUP, { id, isRetired: false });
  // Where a file runs alone, nobody has connected the gateway yet.
  if ((await listCheckoutAccounts(pool(), 'test')).length === 0)
    await connectGateway(SETUP, { gateway: 'curlew-cards', ...(await testKeys()) });
}

export const testKeys = () => readTestKeys(GATEWAY_URL);

/** Gives the browser a session of the owner; the journey signs in by the form. */
export async function signInAtDesk(page: Page): Promise<void> {
  const owner = await findMemberByEmail(pool(), OWNER.email);
  if (!owner) throw new Error('the site has no owner');
  await takeSession(page, owner);
}

async function takeSession(page: Page, member: Pick<Member, 'id' | 'staffRole'>): Promise<void> {
  const { session } = await transaction((db) => openSession(db, VISITOR_ACTOR, member, 'test'));
  await page.context().addCookies([{ name: 'nest_session', value: session, url: process.env.SITE_URL }]);
}

/** A new member with the cookie of a session, who is given a tier for good. */
export async function newMember(
  name: string,
  tierId?: string,
): Promise<{ cookie: string; memberId: string }> {
  const email = `${randomUUID()}@moor.example`;
  const { memberId } = await personNamed(name, email, OWNER.password);
  if (memberId === null) throw new Error(`${name} did not come in`);
  if (tierId) await giveTier(SETUP, { memberId, tierId, term: { for: 'good' }, isTold: false });
  const opened = await transaction((db) =>
    openSession(db, VISITOR_ACTOR, { id: memberId, staffRole: null }, 'test'),
  );
  return { cookie: `nest_session=${opened.session}`, memberId };
}

/** Types the owner's password once more, where a form of the Desk asks for it. */
export const confirmIn = (form: Locator, password = OWNER.password): Promise<void> =>
  form.getByLabel('Your password').fill(password);

export async function signIn(page: Page, email: string, password: string): Promise<void> {
  await page.getByLabel('Email', { exact: true }).fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

/** Moves the rehearsal clock by the Desk's own panel, and waits until the worker has caught up. */
export async function moveClock(page: Page, days: number): Promise<void> {
  await page.goto('/desk');
  await page.getByRole('button', { name: 'No real money' }).click();
  await page.getByLabel('Days', { exact: true }).fill(String(days));
  await page.getByRole('button', { name: 'Move forward' }).click();
  await expect(page.getByText(`Moved forward by ${days === 1 ? 'a day' : `${days} days`}.`)).toBeVisible();
  await expect(page.getByText('catching up')).toHaveCount(0, { timeout: 30_000 });
}

export type Person = { name: string; email: string; password: string };

const rest = async (page: Page, person: Person): Promise<void> => {
  const name = page.getByLabel('Name', { exact: true });
  if (await name.count()) await name.fill(person.name);
  const rules = page.getByLabel(/I keep the rules/);
  if (await rules.count()) await rules.check();
};

/** The code of the newest mail that holds one. */
export async function mailedCode(request: APIRequestContext, email: string, nth = 1): Promise<string> {
  const codes = async (): Promise<string[]> =>
    (await lettersTo(request, email)).flatMap(({ text }) => /^\d{6}$/m.exec(text)?.[0] ?? []);
  await expect.poll(async () => (await codes()).length, { timeout: 20_000 }).toBeGreaterThanOrEqual(nth);
  return (await codes())[0] ?? '';
}

/** Begins to join as people do: with an address, and the code that is mailed to it. */
export async function confirmByCode(page: Page, email: string): Promise<void> {
  const known = (await lettersTo(page.request, email)).filter(({ text }) => /^\d{6}$/m.test(text)).length;
  await page.getByLabel('Your email').fill(email);
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByRole('heading', { name: 'Check your email' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Code' }).fill(await mailedCode(page.request, email, known + 1));
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByText(`Signed in as`)).toBeVisible();
}

/** Joins as people do, up to the card. */
export async function fillPersonByCode(page: Page, person: Person): Promise<void> {
  await confirmByCode(page, person.email);
  await rest(page, person);
}

/** The same without the mail, for tests of other things: the browser gets a session for that address. */
export async function fillPerson(page: Page, person: Person): Promise<void> {
  // Links lead here too: the page before must be gone.
  await page.getByLabel('Your email').or(page.getByText('Signed in as')).first().waitFor();
  if (await page.getByLabel('Your email').count()) {
    await signInAs(page, person);
    await page.reload();
  }
  await rest(page, person);
}

export async function signInAs(page: Page, { email, password }: Person): Promise<void> {
  const { memberId } = await personNamed('', email, password);
  await takeSession(page, { id: memberId ?? '', staffRole: null });
}

/** Fills in one of the stand-in's cards with one click in its frame. */
export async function pickCard(page: Page, title: string): Promise<void> {
  const frame = page.frameLocator('iframe[title^="Card details"]');
  await frame.getByRole('button', { name: title, exact: true }).click();
  await expect(frame.getByLabel('Card number')).toHaveValue(/^902 /);
}

type Letter = { to: string; subject: string; text: string; oneClickUrl: string };

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
