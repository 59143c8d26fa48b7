import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { actOnPayment, cardToken } from '../../scripts/lib/stand-ins';
import { gatewayById } from '../../src/billing/gateways';
import { WORKER } from '../../src/platform/actor';
import { cancelSubscription, endSubscription } from '../../src/billing/services/cancel-subscription';
import { changeMethod } from '../../src/billing/services/change-method';
import { siteNow } from '../../src/platform/clock';
import { keysOf } from '../../src/billing/services/lib/gateway-account';
import { pauseSubscription, resumeSubscription } from '../../src/billing/services/pause-subscription';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { refundPayment } from '../../src/billing/services/refund-payment';
import { returnMoney } from '../../src/billing/services/return-money';
import { currentSite } from '../../src/platform/site';
import { syncPayment } from '../../src/billing/services/lib/sync-payment';
import { pool } from '../../src/platform/store/db';
import { findGatewayAccount } from '../../src/billing/store/gateways';
import { subscriptionList } from '../../src/desk/services/money-lists';
import { today } from '../../src/desk/services/today';
import { findMembers } from '../../src/members/services/find-members';
import { subscriptionFile } from '../../src/members/services/subscription-file';
import {
  hearOf,
  join,
  lanternMoor,
  passDays,
  rows,
  subscriptionOf,
  value,
  asMember,
  heldBy,
} from './lantern-moor';

const moor = lanternMoor();
const holds = async (memberId: string): Promise<string[]> =>
  (await heldBy(memberId)).map((held) => held.tier);
const paymentsOf = (memberId: string) =>
  rows<{ id: string; amount: bigint; state: string; gateway_ref: string }>(
    `SELECT p.* FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id
     WHERE s.member_id = $1 ORDER BY p.created_at`,
    [memberId],
  );
const mailsTo = async (email: string): Promise<string[]> =>
  (
    await rows<{ template: string }>('SELECT template FROM mails WHERE to_address = $1 ORDER BY created_at', [
      email,
    ])
  ).map((mail) => mail.template);
/** What the Desk says can still be refunded of a member's payment; minor units. */
async function refundable(memberId: string, paymentId: string): Promise<number | undefined> {
  const { id } = await subscriptionOf(memberId);
  const file = value(await subscriptionFile(moor.owner, id));
  return file.payments.find((payment) => payment.id === paymentId)?.refundable;
}
/** What the gateway says of a payment, taken into the books as a message would have it. */
const hear = (ref: string) => hearOf(moor, ref);
const balanced = async () =>
  expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });

async function paidUp(offer = 'observer-monthly', card: 'works' | 'fails-second' = 'works') {
  const joined = await join(moor, offer, card);
  await passDays(moor, 31);
  const [payment] = await paymentsOf(joined.memberId);
  return { ...joined, actor: asMember(joined.memberId), payment: payment! };
}

describe('a refund', () => {
  const ask = (paymentId: string, amount: string, more: object = {}) =>
    refundPayment(moor.owner, {
      paymentId,
      requestId: randomUUID(),
      amount,
      endsAccess: false,
      reason: 'asked',
      ...more,
    });

  it('of part keeps what is held, once however often it is sent; no more goes back than came', async () => {
    const { memberId, email, payment } = await paidUp();
    const requestId = randomUUID();
    const twice = await Promise.all([
      ask(payment.id, '2.50', { requestId }),
      ask(payment.id, '2.50', { requestId }),
    ]);
    expect(twice.filter((one) => one.ok)).not.toHaveLength(0);
    expect(await refundable(memberId, payment.id)).toBe(350);
    expect(await ask(payment.id, '3.51')).toMatchObject({
      ok: false,
      problems: { amount: { code: 'refund.outside', values: { left: { amount: 350, currency: 'GBP' } } } },
    });
    expect(await ask(payment.id, 'all')).toMatchObject({ ok: false });
    expect(await holds(memberId)).toEqual(['observer']);
    expect(await mailsTo(email)).toContain('refunded');
    await balanced();
  });

  it('of all can end what is held at once, and stops what would be charged', async () => {
    const { memberId, payment } = await paidUp();
    expect(await ask(payment.id, '6.00', { endsAccess: true })).toMatchObject({ ok: true });
    expect(await holds(memberId)).toEqual([]);
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'ended', dueAt: null });
    await passDays(moor, 62);
    expect(await paymentsOf(memberId)).toHaveLength(1);
    await balanced();
  });

  it('voids what is left of the credit of its payment, and counts what credit was given', async () => {
    const { memberId, payment } = await paidUp();
    const at = siteNow(await currentSite());
    await rows(
      `INSERT INTO credits (member_id, mode, currency, amount, payment_id, reason, at) VALUES ($1, 'test', 'GBP', 200, $2, 'x', $3)`,
      [memberId, payment.id, at],
    );
    expect(await refundable(memberId, payment.id)).toBe(400);
    expect(await ask(payment.id, '4.00')).toMatchObject({ ok: true });
    expect(await rows('SELECT unspent, voided FROM credits WHERE payment_id = $1', [payment.id])).toEqual([
      { unspent: 0n, voided: 200n },
    ]);
  });

  it('made at the gateway itself comes into the books; a message that comes twice changes nothing', async () => {
    const { memberId, payment } = await paidUp();
    await actOnPayment(moor.gatewayUrl, payment.gateway_ref, 'refund');
    expect(await hear(payment.gateway_ref)).toMatch(/in the books/);
    expect(await hear(payment.gateway_ref)).toBe('known already');
    expect(await rows('SELECT amount, state FROM refunds WHERE payment_id = $1', [payment.id])).toEqual([
      { amount: 600n, state: 'succeeded' },
    ]);
    expect(await holds(memberId)).toEqual(['observer']);
    await balanced();
  });

  it('is for staff who manage money alone', async () => {
    const { payment, actor } = await paidUp();
    const raw = { paymentId: payment.id, requestId: randomUUID(), amount: '1', endsAccess: false };
    expect(await refundPayment(actor, raw)).toMatchObject({ ok: false, code: expect.any(String) as string });
    expect(
      await refundPayment(
        { kind: 'staff', memberId: '00000000-0000-4000-8000-00000000000a', staffRole: 'helper' },
        raw,
      ),
    ).toMatchObject({ ok: false, code: expect.any(String) as string });
  });
});

describe('a dispute', () => {
  it('suspends its own holding and stops charges; won, everything continues, since the same day', async () => {
    const { memberId, payment } = await paidUp();
    const before = await heldBy(memberId);
    await actOnPayment(moor.gatewayUrl, payment.gateway_ref, 'dispute');
    expect(await hear(payment.gateway_ref)).toBe('a dispute is open');
    expect(await holds(memberId)).toEqual([]);
    await passDays(moor, 40);
    expect(await paymentsOf(memberId)).toHaveLength(1);
    await actOnPayment(moor.gatewayUrl, payment.gateway_ref, 'win');
    expect(await hear(payment.gateway_ref)).toBe('the dispute is won');
    expect(await heldBy(memberId)).toEqual(before);
    await passDays(moor, 31);
    expect((await subscriptionOf(memberId)).state).toBe('active');
    expect((await paymentsOf(memberId)).filter((one) => one.state === 'succeeded').length).toBeGreaterThan(1);
  });

  it('is what staff find on Today, in the list of members and in that of subscriptions, until it is decided', async () => {
    const { memberId, payment } = await paidUp();
    const found = async () => ({
      today: value(await today(moor.owner, undefined))
        .needs.filter(({ kind }) => kind === 'disputed')
        .map(({ count }) => count),
      members: value(await findMembers(moor.owner, { state: 'disputed' })).rows,
      subscriptions: value(await subscriptionList(moor.owner, { state: 'disputed' })).rows.map(
        (row) => row.memberId as string,
      ),
    });
    const before = await found();
    await actOnPayment(moor.gatewayUrl, payment.gateway_ref, 'dispute');
    await hear(payment.gateway_ref);
    const during = await found();
    expect(during.today).toEqual([(before.today[0] ?? 0) + 1]);
    expect(during.subscriptions).toEqual([...before.subscriptions, memberId]);
    expect(during.members.find(({ id }) => id === memberId)).toMatchObject({ isDisputed: true });
    const all = value(await findMembers(moor.owner, {})).rows;
    expect(all.filter(({ isDisputed }) => isDisputed)).toHaveLength(during.members.length);
    await actOnPayment(moor.gatewayUrl, payment.gateway_ref, 'win');
    await hear(payment.gateway_ref);
    expect(await found()).toEqual(before);
  });

  it('that is lost ends it for good, and voids credit', async () => {
    const { memberId, payment } = await paidUp();
    await actOnPayment(moor.gatewayUrl, payment.gateway_ref, 'dispute');
    await actOnPayment(moor.gatewayUrl, payment.gateway_ref, 'lose');
    // The message of its opening never came.
    expect(await hear(payment.gateway_ref)).toBe('the dispute is lost');
    expect(await hear(payment.gateway_ref)).toBe('known already');
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'ended', disputes: [] });
    expect(await holds(memberId)).toEqual([]);
  });
});

describe('a pause', () => {
  it('closes at the end of what is paid; resumed, it charges at once and opens', async () => {
    const { memberId, actor } = await paidUp();
    const { id } = await subscriptionOf(memberId);
    expect(await pauseSubscription(actor, id)).toMatchObject({ ok: true });
    expect(await holds(memberId)).toEqual(['observer']);
    await passDays(moor, 31);
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'paused', dueAt: null });
    expect(await holds(memberId)).toEqual([]);
    await passDays(moor, 90);
    expect(await paymentsOf(memberId)).toHaveLength(1);
    expect(await resumeSubscription(actor, id)).toMatchObject({ ok: true });
    expect(await holds(memberId)).toEqual(['observer']);
    expect(await paymentsOf(memberId)).toHaveLength(2);
    await passDays(moor, 32);
    expect(await paymentsOf(memberId)).toHaveLength(3);
    await balanced();
  });

  it('with a card that fails stays paused, and no try of the schedule is used up', async () => {
    const { memberId, actor } = await paidUp('observer-monthly', 'fails-second');
    const { id } = await subscriptionOf(memberId);
    await pauseSubscription(actor, id);
    await passDays(moor, 31);
    expect(await resumeSubscription(actor, id)).toMatchObject({
      ok: false,
      problems: { card: { code: expect.any(String) as string } },
    });
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'paused', firstFailedAt: null });
    expect(await holds(memberId)).toEqual([]);
  });
});

describe('a member who is overdue', () => {
  it('changes the card and is charged at once; the calendar stays as it was', async () => {
    const { memberId, actor } = await paidUp('observer-monthly', 'fails-second');
    const due = (await subscriptionOf(memberId)).dueAt;
    await passDays(moor, 20);
    const overdue = await subscriptionOf(memberId);
    expect(overdue.state).toBe('overdue');
    const change = async (card: 'works' | 'declined') =>
      changeMethod(actor, {
        subscriptionId: overdue.id,
        accountId: moor.accountId,
        cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, card),
      });
    expect(await change('declined')).toMatchObject({
      ok: false,
      problems: { card: { code: expect.any(String) as string } },
    });
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'overdue', dueAt: overdue.dueAt });
    expect(await change('works')).toMatchObject({ ok: true });
    const paid = await subscriptionOf(memberId);
    expect(paid).toMatchObject({ state: 'active', firstFailedAt: null });
    expect(paid.place.anchor).toBe(overdue.place.anchor);
    expect(paid.dueAt! > due!).toBe(true);
    await balanced();
  });
});

describe('money that nothing follows from', () => {
  it('goes back by itself: a success after another subscription took the place', async () => {
    const { memberId, payment } = await paidUp('observer-monthly', 'fails-second');
    await passDays(moor, 45);
    expect((await subscriptionOf(memberId)).state).toBe('ended');
    // The gateway changes its mind about a charge it had refused: paid outranks failed.
    const account = (await findGatewayAccount(pool(), moor.accountId))!;
    const [, failed] = await paymentsOf(memberId);
    const found = await gatewayById('curlew-cards').findPayment(keysOf(account), {
      ref: failed!.gateway_ref,
    });
    if (!found.ok || !found.payment) throw new Error('not there');
    const late = { ...found.payment, state: 'succeeded' as const, code: null };
    expect(await syncPayment(account, late)).toBe('recorded as succeeded');
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'active', endedAt: null });
    expect(await holds(memberId)).toEqual(['observer']);
    expect(payment.state).toBe('succeeded');
    await rows(`UPDATE payments SET state = 'declined', decline_code = 'declined' WHERE id = $1`, [
      failed!.id,
    ]);
  });

  it('an end by staff is at once, and theirs alone', async () => {
    const { memberId, actor } = await paidUp();
    const { id } = await subscriptionOf(memberId);
    expect(await endSubscription(actor, id)).toMatchObject({ ok: false, code: expect.any(String) as string });
    await cancelSubscription(actor, id);
    expect(await endSubscription(moor.owner, id)).toMatchObject({ ok: true });
    expect(await holds(memberId)).toEqual([]);
    expect(value(await returnMoney(WORKER))).toBe(0);
  });
});
