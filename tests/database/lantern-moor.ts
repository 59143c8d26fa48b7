import { randomBytes, randomUUID } from 'node:crypto';
import { join as joinPath } from 'node:path';
import { afterAll, beforeAll, inject } from 'vitest';
import {
  cardToken,
  loadContent,
  loadEmptySite,
  MEMBER_PASSWORD,
  readTestKeys,
} from '../../scripts/lib/load-demo';
import { freePort } from '../../scripts/lib/ports';
import { onServer } from '../../scripts/lib/postgres';
import { Stack, untilAnswers } from '../../scripts/lib/stack';
import { VISITOR_ACTOR, type Actor } from '../../src/services/actor';
import { realNow } from '../../src/services/clock';
import { connectGateway } from '../../src/services/connect-gateway';
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
  databaseUrl: string;
};

/** A site and a card gateway of their own for a test file, connected, with the content of Lantern Moor. */
export function lanternMoor(): Moor {
  const moor = {} as Moor;
  const server = onServer(inject('adminUrl'));
  const stack = new Stack('database-test');
  const name = `nest_test_${randomBytes(6).toString('hex')}`;
  beforeAll(async () => {
    await server.createDatabase(name, inject('template'));
    const port = await freePort(4210 + 40 * Number(process.env.VITEST_POOL_ID ?? 0));
    const gatewayUrl = `http://127.0.0.1:${port}`;
    stack.start(
      'curlew-cards',
      [
        '--import',
        'tsx',
        'stand-ins/curlew-cards/main.ts',
        String(port),
        joinPath(stack.folder, 'curlew-cards.json'),
      ],
      {},
    );
    await untilAnswers(gatewayUrl, 'Curlew Cards');
    Object.assign(moor, { databaseUrl: server.url(name), gatewayUrl });
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

export const environment = (moor: Pick<Moor, 'databaseUrl' | 'gatewayUrl'>) => ({
  DATABASE_URL: moor.databaseUrl,
  // Nobody listens there: what the gateway tells by webhook is lost, and nothing may depend on it.
  SITE_URL: 'http://127.0.0.1:9',
  SECRET_KEY: 'ab'.repeat(32),
  SMTP_URL: 'smtp://127.0.0.1:9',
  CURLEW_CARDS_URL: moor.gatewayUrl,
  LEASE_SECONDS: '1',
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
  attempt: number,
  at: string,
): Promise<Payment> {
  const due = await transaction((db) =>
    writeIntent(db, subscription, { period, attempt, currency: 'GBP', at }),
  );
  if (!('intent' in due)) throw new Error('credit covered it');
  return due.intent;
}
