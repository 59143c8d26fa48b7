import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { randomUUID } from 'node:crypto';
import { afterEach, describe, expect, it } from 'vitest';
import { gatewayById } from '../../src/billing/gateways';
import { WORKER } from '../../src/platform/actor';
import { keysOf } from '../../src/billing/services/lib/gateway-account';
import { moveClock } from '../../src/desk/services/move-clock';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { keepCard } from '../../src/billing/services/lib/change-account';
import { happen, openBook } from '../../src/billing/services/lib/open-book';
import { offerKey } from '../../src/billing/store/book-from-rows';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { pool, transaction } from '../../src/platform/store/db';
import { findGatewayAccount } from '../../src/billing/store/gateways';
import { saveCheckout } from '../../src/billing/store/checkouts';
import { findOpenPayment } from '../../src/billing/store/payments';
import { findSubscription } from '../../src/billing/store/subscriptions';
import { findOffer } from '../../src/tiers/store/offers';
import { cardToken } from '../../scripts/lib/stand-ins';
import {
  doAllDue,
  join,
  joinInput,
  memberNamed,
  rows,
  subscriptionOf,
  lanternMoor,
  intentFor,
  value,
  joinNew,
  hasJoined,
  leasesOver,
  newPerson,
} from './lantern-moor';
import { environment } from '../lib/environment';

const moor = lanternMoor();
const setSlow = (ms: number) =>
  fetch(`${moor.gatewayUrl}/faults`, { method: 'POST', body: `slowMs=${ms}`, redirect: 'manual' });
const openIntents = async (): Promise<number> =>
  (await rows(`SELECT 1 FROM payments WHERE state = 'intent'`)).length;
const theirs = async (): Promise<number> => {
  const account = await findGatewayAccount(pool(), moor.accountId);
  const listed = account && (await gatewayById(account.gateway).listPayments(keysOf(account)));
  return listed?.ok ? listed.payments.length : -1;
};
const worker = () =>
  spawn(process.execPath, ['--import', 'tsx', 'src/worker/main.ts'], {
    env: { ...process.env, ...environment(moor) },
    stdio: 'ignore',
  });

afterEach(() => setSlow(0));

describe('a worker killed between charge and record', () => {
  it('leaves an intent, and after a restart the books equal the gateway’s: charged once', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    const before = await theirs();
    await setSlow(20_000);
    await moveClock(moor.owner, { days: 15 });
    const first = worker();
    // The gateway has taken the money and has not answered yet: the worst moment there is.
    await expect.poll(theirs, { timeout: 20_000 }).toBe(before + 1);
    first.kill('SIGKILL');
    await once(first, 'exit');
    expect(await openIntents()).toBe(1);
    expect((await subscriptionOf(memberId)).state).toBe('trial');

    await setSlow(0);
    const second = worker();
    await expect.poll(async () => (await subscriptionOf(memberId)).state, { timeout: 20_000 }).toBe('active');
    second.kill('SIGTERM');
    await once(second, 'exit');
    expect(await theirs()).toBe(before + 1);
    expect(await openIntents()).toBe(0);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
  });

  it('before the gateway was asked: the money is asked for after the restart, under the same key', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    await moveClock(moor.owner, { days: 15 });
    const stored = await findSubscription(pool(), subscription.id);
    const intent = await intentFor(stored!, stored!.dueAt!);
    await leasesOver();
    await doAllDue();
    expect((await subscriptionOf(memberId)).state).toBe('active');
    expect(
      await rows('SELECT state FROM payments WHERE idempotency_key = $1', [intent.idempotencyKey]),
    ).toEqual([{ state: 'succeeded' }]);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
  });
});

describe('a web process killed between charge and record of a joining', () => {
  /** Presses the button up to the moment at which the process dies: the intent is written, the gateway perhaps asked. */
  async function halfJoined(charge: boolean): Promise<string> {
    const email = `half-${randomUUID()}@moor.example`;
    const { memberId } = await newPerson('Half Way', email);
    const offer = (await findOffer(pool(), 'eclipse-week-once'))!;
    const account = (await findGatewayAccount(pool(), moor.accountId))!;
    const site = await currentSite();
    const id = randomUUID();
    const token = await cardToken(moor.gatewayUrl, moor.siteKey, 'works');
    const payer = value(await keepCard(account, { token, email, idempotencyKey: id }));
    const place = { track: 'eclipse-week', slot: '' };
    const of = { memberId: memberId!, mode: 'test' as const };
    const offerId = offerKey(offer.versionId, 0);
    await transaction(async (db) => {
      await saveCheckout(db, {
        ...{ id, ...place, ...of, offerId: offer.id, email, name: 'Half Way', answers: [], codeId: null },
        ...{ returnTo: '/', state: 'open', at: siteNow(site) },
      });
      const open = await openBook(db, site, WORKER, of, {
        checkouts: [id],
        offers: [offerId],
        tracks: [place.track],
      });
      const method = { nature: 'card' as const };
      const submitted = { checkout: id, offer: offerId, method, byQuote: false, due: null };
      const happened = await happen(open, { do: 'submit', ...place, ...submitted }, () => ({
        ...{ ...payer, taxCountry: '', addedTax: 0, remindAt: null },
      }));
      expect(happened).toMatchObject({ ok: true });
    });
    const [subscription] = await rows<{ id: string }>('SELECT id FROM subscriptions WHERE member_id = $1', [
      memberId,
    ]);
    const intent = (await findOpenPayment(pool(), subscription!.id))!;
    if (charge) {
      const { customerRef, methodRef } = payer;
      await gatewayById('curlew-cards').charge(keysOf(account), {
        customerRef: customerRef ?? '',
        methodRef: methodRef ?? '',
        amount: intent.amount,
        currency: 'GBP',
        idempotencyKey: intent.idempotencyKey,
        note: '',
      });
    }
    return email;
  }

  it.each([[true], [false]])(
    'is finished by the worker (already charged: %s): nobody who paid is shut out',
    async (charged) => {
      const email = await halfJoined(charged);
      expect(await hasJoined(email)).toBe(false);
      await leasesOver();
      await doAllDue();
      const member = await memberNamed(email);
      expect(await subscriptionOf(member!.id)).toMatchObject({ state: 'active' });
      expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
    },
  );
});

it('a gateway that does not answer is asked again by the same form, and charged once', async () => {
  const input = await joinInput(moor, 'eclipse-week-once', 'works');
  await setSlow(16_000);
  const before = await theirs();
  const first = await joinNew(input);
  expect(first).toMatchObject({
    ok: false,
    problems: { '': { code: 'payment.unknown' } },
  });
  await setSlow(0);
  expect(await joinNew(input)).toMatchObject({ ok: true });
  expect(await theirs()).toBe(before + 1);
});
