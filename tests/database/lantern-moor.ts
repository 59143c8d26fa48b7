import { randomBytes, randomUUID } from 'node:crypto';
import { afterAll, beforeAll, inject } from 'vitest';
import { MEMBER_PASSWORD } from '../../scripts/lib/load-demo';
import { cardToken, consentOf, readTestKeys } from '../../scripts/lib/stand-ins';
import { onServer } from '../../scripts/lib/postgres';
import { closeTransport } from '../../src/mail/send';
import { config, parseConfig } from '../../src/platform/config';
import { environment } from '../lib/environment';
import { standIns } from '../lib/stand-ins';
import { asMember, personNamed } from '../../scripts/lib/people';
import { pendingCheckout, returnFromWallet } from '../../src/checkout/services/pending-checkout';
import { findCheckout, type Checkout } from '../../src/billing/store/checkouts';
import { VISITOR_ACTOR, WORKER, type Actor, type Browser } from '../../src/platform/actor';
import { unseal } from '../../src/platform/seal';
import { enterCode } from '../../src/people/services/enter-code';
import type { Opened } from '../../src/people/services/lib/open-session';
import { askForCode } from '../../src/people/services/sign-in';
import { connectGateway } from '../../src/billing/services/connect-gateway';
import { keepAccount, keysOf } from '../../src/billing/services/lib/gateway-account';
import { syncPayment } from '../../src/billing/services/lib/sync-payment';
import { findGatewayAccount } from '../../src/billing/store/gateways';
import { connectTransfer } from '../../src/billing/services/connect-transfer';
import { currentSite } from '../../src/platform/site';
import { gatewayById } from '../../src/billing/gateways';
import type { Result } from '../../src/platform/result';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { moveClock } from '../../src/desk/services/move-clock';
import { runOneDue } from '../../src/billing/services/run-due';
import { happen, openBook, readBook } from '../../src/billing/services/lib/open-book';
import { creditLeft } from '../../src/core/billing/credit';
import { findHolder } from '../../src/billing/store/holdings';
import type { HeldTier } from '../../src/core/access/facts';
import { siteNow } from '../../src/platform/clock';
import { closePools, pool, transaction } from '../../src/platform/store/db';
import { findOpenPayment, type Payment } from '../../src/billing/store/payments';
import { findMemberByEmail } from '../../src/people/store/members';
import { listSubscriptionsOf, type StoredSubscription } from '../../src/billing/store/subscriptions';
import { findOffer } from '../../src/tiers/store/offers';
import type { Behaviour } from '../../stand-ins/curlew-cards/cards';
import type { Instant } from '../../src/core/instants';

export type Moor = {
  owner: Actor;
  accountId: string;
  siteKey: string;
  gatewayUrl: string;
  walletUrl: string;
  databaseUrl: string;
};

/** A site, a card gateway and a wallet of their own for a test file, with the content of Lantern Moor; the cards are connected. */
export function lanternMoor(): Moor {
  const moor = {} as Moor;
  const server = onServer(inject('adminUrl'));
  const name = `nest_test_${randomBytes(6).toString('hex')}`;
  let stop = (): void => undefined;
  beforeAll(async () => {
    await server.createDatabase(name, inject('template'));
    const { gatewayUrl, walletUrl, ...running } = await standIns();
    stop = running.stop;
    Object.assign(moor, { databaseUrl: server.url(name), gatewayUrl, walletUrl });
    // Files of one worker share its modules, and with them what the last one was configured with.
    Object.assign(process.env, environment(moor));
    Object.assign(config(), parseConfig(process.env));
    moor.owner = { kind: 'setup', memberId: inject('ownerId'), staffRole: 'owner' };
    const keys = await readTestKeys(moor.gatewayUrl);
    moor.siteKey = keys.siteKey;
    const connected = await connectGateway(moor.owner, { gateway: 'curlew-cards', ...keys });
    if (!connected.ok) throw new Error(JSON.stringify(connected.problems));
    moor.accountId = connected.value.id;
  });
  afterAll(async () => {
    closeTransport();
    await closePools();
    await server.dropDatabase(name);
    stop();
  });
  return moor;
}

let people = 0;

/** What a use case answered. @throws where it refused, with its words */
export function value<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

/** A new person with an account and a confirmed address, who holds nothing yet. */
export const newPerson = (name = 'Someone New', email = `person${++people}@moor.example`): Promise<Actor> =>
  personNamed(name, email, MEMBER_PASSWORD);

/** What the join form sends, with a new person’s name and address. */
export async function joinInput(
  moor: Moor,
  offerId: string,
  card: Behaviour | null,
  more: Record<string, unknown> = {},
) {
  const email = `person${++people}@moor.example`;
  return {
    checkoutId: randomUUID(),
    offerId,
    versionId: (await findOffer(pool(), offerId))?.versionId ?? '',
    answers: { rules: 'yes' },
    name: 'Someone New',
    email,
    cardToken: card ? await cardToken(moor.gatewayUrl, moor.siteKey, card) : '',
    returnTo: '/posts/zodiacal-light',
    ...more,
  };
}

/** Sends the join form as the person with its address, who gets an account first where they have none. */
export async function joinNew(input: { name: string; email: string } & Record<string, unknown>) {
  const person = await newPerson(input.name, input.email);
  const joined = await submitCheckout(person, input);
  return joined.ok
    ? { ok: true as const, value: { ...joined.value, memberId: person.memberId ?? '' } }
    : joined;
}

/** Joins as a new member, and answers with the member's id and subscription. */
export async function join(
  moor: Moor,
  offerId: string,
  card: Behaviour | null,
): Promise<{ memberId: string; email: string; subscription: StoredSubscription }> {
  const input = await joinInput(moor, offerId, card);
  const { memberId } = value(await joinNew(input));
  return { memberId, email: input.email, subscription: await subscriptionOf(memberId) };
}

export async function subscriptionOf(memberId: string): Promise<StoredSubscription> {
  const [subscription] = await listSubscriptionsOf(pool(), memberId, 'test');
  if (!subscription) throw new Error('no subscription');
  return subscription;
}

/** Whether a person with this address holds or has held anything by joining; an account alone does not count. */
export async function hasJoined(email: string): Promise<boolean> {
  const held = await rows(
    `SELECT 1 FROM subscriptions s JOIN members m ON m.id = s.member_id WHERE m.email = $1 AND s.began_at IS NOT NULL`,
    [email],
  );
  return held.length > 0;
}

/** The member who started a checkout. */
export async function actorOfCheckout(checkoutId: string): Promise<Actor> {
  const checkout = await findCheckout(pool(), checkoutId);
  if (!checkout?.memberId) throw new Error('nobody has begun this');
  return asMember(checkout.memberId);
}

/** What the member sees while their checkout waits for payment. */
export const pendingOf = async (checkoutId: string) =>
  value(await pendingCheckout(await actorOfCheckout(checkoutId), checkoutId));

/** Comes back from the wallet's page; the answer is the checkout as it then is. */
export async function comeBack(checkoutId: string): Promise<Checkout | undefined> {
  value(await returnFromWallet(await actorOfCheckout(checkoutId), checkoutId));
  return findCheckout(pool(), checkoutId);
}

export { asMember };

/** A request of a visitor's browser, with what it carries of ours. */
export const visitorWith = (browser: Browser = {}, address = '192.0.2.1'): Actor => ({
  ...VISITOR_ACTOR,
  browser,
  address,
});

/** The code and the link of the newest mail of that kind to an address, as its reader has them. */
export async function mailedTo(email: string): Promise<{ code: string; link: string; text: string }> {
  const [mail] = await rows<{ sealed: string }>(
    `SELECT sealed FROM mails WHERE to_address = $1 AND sealed IS NOT NULL ORDER BY created_at DESC, id LIMIT 1`,
    [email],
  );
  const { text } = JSON.parse(unseal(mail?.sealed ?? '')) as { text: string };
  return {
    text,
    code: /\b\d{6}\b/.exec(text)?.[0] ?? '',
    link: /\/sign-in\/(?:code|link)\/([\w-]+)/.exec(text)?.[1] ?? '',
  };
}

/** Signs a person in by a mailed code, in a browser of their own. */
export async function signInByCode(email: string): Promise<Opened> {
  const { browser } = value(await askForCode(visitorWith(), { email, to: '/account' }));
  const { code } = await mailedTo(email);
  const { opened } = value(await enterCode(visitorWith({ code: browser }), { code }));
  if (!opened) throw new Error('nobody was signed in');
  return opened;
}

/** What the card gateway says of a payment now, taken as the site takes its messages. */
export async function hearOf(moor: Moor, ref: string): Promise<string | null> {
  const account = await findGatewayAccount(pool(), moor.accountId);
  if (!account) throw new Error('no account');
  const found = await gatewayById('curlew-cards').findPayment(keysOf(account), { ref });
  return found.ok && found.payment ? syncPayment(account, found.payment) : null;
}

export const memberNamed = (email: string) => findMemberByEmail(pool(), email);

/** Moves the rehearsal clock and does everything that falls due on the way. */
export async function passDays(moor: Moor, days: number): Promise<void> {
  value(await moveClock(moor.owner, { days }));
  await doAllDue();
}

export async function doAllDue(): Promise<void> {
  while (value(await runOneDue(WORKER)));
}

/** What a member holds now. */
export const heldBy = async (memberId: string): Promise<HeldTier[]> =>
  (await findHolder(pool(), memberId, 'test', siteNow(await currentSite())))?.tiers ?? [];

/** What a member can spend, by currency. */
export async function creditOf(memberId: string): Promise<{ currency: string; amount: number }[]> {
  const { stored } = await readBook(pool(), await currentSite(), { memberId, mode: 'test' });
  return creditLeft(stored.book);
}

export async function rows<T = Record<string, unknown>>(sql: string, values: unknown[] = []): Promise<T[]> {
  return (await pool().query(sql, values)).rows as T[];
}

/** Writes down what falls due and stops there, as a process does that dies before it asks the gateway. */
export async function intentFor(subscription: StoredSubscription, at: Instant): Promise<Payment> {
  const site = await currentSite();
  await transaction(async (db) => {
    const open = await openBook(db, site, WORKER, subscription, {}, at);
    const happened = await happen(open, { do: 'due', subscription: subscription.id });
    if (!happened.ok) throw new Error(happened.why);
  });
  const intent = await findOpenPayment(pool(), subscription.id);
  if (!intent) throw new Error('nothing was asked for');
  return intent;
}

/** As if the leases had ended: what a crash or silence left open may be continued at once. */
export async function leasesOver(): Promise<void> {
  await rows('UPDATE subscriptions SET busy_until = NULL');
  await rows(`UPDATE agreements SET next_check_at = now()`);
  await rows(`UPDATE refunds SET created_at = created_at - interval '1 hour' WHERE state = 'intent'`);
}

/** Connects Dunlin Wallet by consent, and transfers with four days to pay; answers with the ids of both accounts. */
export async function connectOthers(moor: Moor): Promise<{ wallet: string; bank: string }> {
  const gateway = gatewayById('dunlin-wallet');
  const keys = await gateway.keysFromConsent(await consentOf(gateway, 'test'));
  if (!keys.ok) throw new Error(keys.reason);
  const wallet = await keepAccount(moor.owner, await currentSite(), gateway, keys.keys);
  const bank = await connectTransfer(moor.owner, {
    payee: 'Lantern Moor Society',
    account: '10-20-30 12345678',
    bank: 'Moorland Bank',
    daysToPay: 4,
  });
  if (!wallet.ok || !bank.ok) throw new Error('not connected');
  return { wallet: wallet.value.id, bank: bank.value.id };
}

/** All pieces of what is made piece by piece. */
export async function piecesOf(made: AsyncIterable<string>): Promise<string[]> {
  const pieces: string[] = [];
  for await (const piece of made) pieces.push(piece);
  return pieces;
}
