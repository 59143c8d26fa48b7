import { randomBytes, randomUUID } from 'node:crypto';
import { join as joinPath } from 'node:path';
import { afterAll, beforeAll, inject } from 'vitest';
import { loadContent, loadEmptySite, MEMBER_PASSWORD } from '../../scripts/lib/load-demo';
import { cardToken, consentOf, readTestKeys } from '../../scripts/lib/stand-ins';
import { freePort } from '../../scripts/lib/ports';
import { onServer } from '../../scripts/lib/postgres';
import { Stack, untilAnswers } from '../../scripts/lib/stack';
import { VISITOR_ACTOR, type Actor } from '../../src/services/actor';
import { realNow } from '../../src/services/clock';
import { connectGateway, keepAccount } from '../../src/services/connect-gateway';
import { connectTransfer } from '../../src/services/connect-transfer';
import { currentSite } from '../../src/services/site';
import { gatewayById } from '../../src/gateways';
import { formStamp } from '../../src/services/guard-form';
import { joinTier } from '../../src/services/join-tier';
import { moveClock } from '../../src/services/move-clock';
import { runOneDue } from '../../src/services/run-due';
import { writeIntent } from '../../src/services/collect-payment';
import type { Period } from '../../src/core/offers/schedule';
import { closePools, pool, transaction } from '../../src/store/db';
import type { Payment } from '../../src/store/payments';
import { findMemberByEmail } from '../../src/store/members';
import { listSubscriptionsOf, type StoredSubscription } from '../../src/store/subscriptions';
import { findOffer } from '../../src/store/offers';
import type { Behaviour } from '../../stand-ins/curlew-cards/cards';

export type Moor = {
  owner: Actor;
  accountId: string;
  siteKey: string;
  gatewayUrl: string;
  walletUrl: string;
  databaseUrl: string;
};

/** A site and a card gateway of their own for a test file, connected, with the content of Lantern Moor. */
export function lanternMoor(): Moor {
  const moor = {} as Moor;
  const server = onServer(inject('adminUrl'));
  const stack = new Stack('database-test');
  const name = `nest_test_${randomBytes(6).toString('hex')}`;
  const standIn = async (which: string, port: number): Promise<string> => {
    const file = joinPath(stack.folder, `${which}.json`);
    stack.start(which, ['--import', 'tsx', `stand-ins/${which}/main.ts`, String(port), file], {});
    await untilAnswers(`http://127.0.0.1:${port}`, which);
    return `http://127.0.0.1:${port}`;
  };
  beforeAll(async () => {
    await server.createDatabase(name, inject('template'));
    const from = 4210 + 40 * Number(process.env.VITEST_POOL_ID ?? 0);
    const gatewayUrl = await standIn('curlew-cards', await freePort(from));
    const walletUrl = await standIn('dunlin-wallet', await freePort(from + 20));
    Object.assign(moor, { databaseUrl: server.url(name), gatewayUrl, walletUrl });
    Object.assign(process.env, environment(moor));
    moor.owner = await loadEmptySite();
    await loadContent(realNow());
    const keys = await readTestKeys(moor.gatewayUrl);
    moor.siteKey = keys.siteKey;
    const connected = await connectGateway(moor.owner, 'curlew-cards', keys);
    if (!connected.ok) throw new Error(JSON.stringify(connected.problems));
    moor.accountId = connected.value.id;
  });
  afterAll(async () => {
    await closePools();
    await server.dropDatabase(name);
    await stack.stop();
  });
  return moor;
}

export const environment = (moor: Pick<Moor, 'databaseUrl' | 'gatewayUrl' | 'walletUrl'>) => ({
  DATABASE_URL: moor.databaseUrl,
  // Nobody listens there: what the gateway tells by webhook is lost, and nothing may depend on it.
  SITE_URL: 'http://127.0.0.1:9',
  SECRET_KEY: 'ab'.repeat(32),
  SMTP_URL: 'smtp://127.0.0.1:9',
  CURLEW_CARDS_URL: moor.gatewayUrl,
  DUNLIN_WALLET_URL: moor.walletUrl,
  LEASE_SECONDS: '2',
  LOG_LEVEL: 'silent',
});

let people = 0;

/** What the join form sends for somebody new. */
export async function joinInput(
  moor: Moor,
  offerId: string,
  card: Behaviour | null,
  more: Record<string, unknown> = {},
) {
  const email = `person${++people}@moor.example`;
  return {
    joiningId: randomUUID(),
    shown: formStamp(60_000),
    offerId,
    versionId: (await findOffer(pool(), offerId))?.versionId ?? '',
    answers: { rules: 'yes' },
    name: 'Somebody New',
    email,
    password: MEMBER_PASSWORD,
    cardToken: card ? await cardToken(moor.gatewayUrl, moor.siteKey, card) : '',
    returnTo: '/posts/zodiacal-light',
    ...more,
  };
}

/** Joins somebody new, and answers with the member's id and subscription. */
export async function join(
  moor: Moor,
  offerId: string,
  card: Behaviour | null,
): Promise<{ memberId: string; email: string; subscription: StoredSubscription }> {
  const input = await joinInput(moor, offerId, card);
  const joined = await joinTier(VISITOR_ACTOR, input, input.email);
  if (!joined.ok) throw new Error(JSON.stringify(joined.problems));
  if (joined.value.state !== 'done') throw new Error('the address has to be proved first');
  return {
    memberId: joined.value.memberId,
    email: input.email,
    subscription: await subscriptionOf(joined.value.memberId),
  };
}

export async function subscriptionOf(memberId: string): Promise<StoredSubscription> {
  const [subscription] = await listSubscriptionsOf(pool(), memberId, 'test');
  if (!subscription) throw new Error('no subscription');
  return subscription;
}

export const memberNamed = (email: string) => findMemberByEmail(pool(), email);

/** Moves the rehearsal clock and does everything that falls due on the way. */
export async function passDays(moor: Moor, days: number): Promise<void> {
  const moved = await moveClock(moor.owner, days);
  if (!moved.ok) throw new Error(JSON.stringify(moved.problems));
  await doAllDue();
}

export async function doAllDue(): Promise<void> {
  while (await runOneDue());
}

export async function rows<T = Record<string, unknown>>(sql: string, values: unknown[] = []): Promise<T[]> {
  return (await pool().query(sql, values)).rows as T[];
}

/** Writes the intent to charge a period and stops there, as a process does that dies before it asks the gateway. */
export async function intentFor(
  subscription: StoredSubscription,
  period: Period,
  at: string,
): Promise<Payment> {
  const due = await transaction((db) => writeIntent(db, subscription, { period, currency: 'GBP', at }));
  if (!('intent' in due)) throw new Error('credit covered it');
  return due.intent;
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
