import { describe, expect, it } from 'vitest';
import { approveAtWallet, refuseAtWallet } from '../../scripts/lib/stand-ins';
import { plainWords } from '@/words/desk';
import { addLength, localDate } from '../../src/core/calendar';
import { DAY_MS, fromMs, toMs, type Instant } from '../../src/core/instants';
import { moveClock } from '../../src/desk/services/move-clock';
import { WORKER, type Actor } from '../../src/platform/actor';
import { cancelSubscription } from '../../src/billing/services/cancel-subscription';
import { changeMethod } from '../../src/billing/services/change-method';
import { memberAccount } from '../../src/billing/services/lib/member-account';
import { moveToNewest } from '../../src/billing/services/move-to-version';
import { readVersions } from '../../src/billing/services/lib/offer-versions';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { pauseSubscription } from '../../src/billing/services/pause-subscription';
import { returnFromApproval } from '../../src/checkout/services/pending-checkout';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { returnMoney } from '../../src/billing/services/return-money';
import { settleAgreementByRef } from '../../src/billing/services/lib/settle-agreement';
import { settleAgreements } from '../../src/billing/services/settle-agreements';
import { syncPayment } from '../../src/billing/services/lib/sync-payment';
import { keysOf } from '../../src/billing/services/lib/gateway-account';
import { gatewayById } from '../../src/billing/gateways';
import { gatewaysFor } from '../../src/billing/services/lib/checkout-gateways';
import { currentSite } from '../../src/platform/site';
import { findOffer } from '../../src/tiers/store/offers';
import { pool } from '../../src/platform/store/db';
import { findGatewayAccount } from '../../src/billing/store/gateways';
import type { Purse } from '../../stand-ins/dunlin-wallet/state';
import { beforeAll } from 'vitest';
import {
  connectOthers,
  doAllDue,
  join,
  intentFor,
  joinInput,
  lanternMoor,
  memberNamed,
  passDays,
  rows,
  subscriptionOf,
  value,
  joinNew,
  hasJoined,
  comeBack,
  pendingOf,
  asMember,
} from './lantern-moor';

const moor = lanternMoor();
let wallet = '';
beforeAll(async () => {
  wallet = (await connectOthers(moor)).wallet;
});

async function begin(offer: string) {
  const input = await joinInput(moor, offer, null, { accountId: wallet });
  const asked = await joinNew(input);
  if (!asked.ok || asked.value.state !== 'approve') throw new Error(JSON.stringify(asked));
  return { input, url: asked.value.url };
}

async function joinBy(offer: string, purse: Purse = 'full') {
  const { input, url } = await begin(offer);
  await approveAtWallet(url, purse);
  const joining = await comeBack(input.checkoutId);
  return { input, joining, memberId: joining?.memberId ?? '', url };
}
const billsOf = async (memberId: string): Promise<string[]> =>
  (
    await rows<{ amount: bigint; state: string }>(
      `SELECT p.amount, p.state FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id
       WHERE s.member_id = $1 ORDER BY p.at, p.attempt`,
      [memberId],
    )
  ).map(({ amount, state }) => `${amount} ${state}`);
const agreements = (memberId: string) =>
  rows<{ state: string; ref: string }>(
    'SELECT a.state, a.ref FROM agreements a JOIN subscriptions s ON s.id = a.subscription_id WHERE s.member_id = $1 ORDER BY a.created_at',
    [memberId],
  );
/** The newest bill of a member's agreement, as the wallet has it, once its clock says `at`. */
async function newestBill(memberId: string, at?: Instant) {
  const account = (await findGatewayAccount(pool(), wallet))!;
  const gateway = gatewayById('dunlin-wallet');
  if (at) await gateway.setRehearsalTime(keysOf(account), at);
  const listed = await gateway.listPayments(keysOf(account), (await agreements(memberId))[0]!.ref);
  if (!listed.ok) throw new Error(listed.reason);
  return { account, bill: listed.payments.at(-1)! };
}
/** The wallet bills once more, though by its calendar it should not. */
async function billOnce(memberId: string) {
  const [agreement] = await agreements(memberId);
  await fetch(`${moor.walletUrl}/agreements/${agreement!.ref}/bill`, { method: 'POST', redirect: 'manual' });
  return (await newestBill(memberId)).bill;
}
/** The wallet's end is asked for again and again until it is seen. */
const settle = async () => {
  await rows(`UPDATE agreements SET next_check_at = now() WHERE state IN ('asked', 'ending')`);
  value(await settleAgreements(WORKER));
};
const balanced = async () =>
  expect(await reconcile(wallet)).toMatchObject({ ok: true, differences: [], open: 0 });

describe('joining by a wallet that bills by itself', () => {
  it('holds nothing before the payer approves, and everything once they have', async () => {
    const { input, url } = await begin('eclipse-week-once');
    expect(await hasJoined(input.email)).toBe(false);
    expect(await pendingOf(input.checkoutId)).toMatchObject({ approveUrl: url, transfer: null });
    await comeBack(input.checkoutId);
    expect(await hasJoined(input.email)).toBe(false);
    await approveAtWallet(url);
    expect(await comeBack(input.checkoutId)).toMatchObject({ state: 'done' });
    const member = await memberNamed(input.email);
    expect(await subscriptionOf(member!.id)).toMatchObject({ state: 'active', methodLabel: 'Dunlin Wallet' });
    expect(await billsOf(member!.id)).toEqual(['2500 succeeded']);
    await balanced();
  });

  it('is withdrawn where the payer refuses, or the purse is empty; the same form can then be paid by card', async () => {
    const { input, url } = await begin('observer-monthly');
    await refuseAtWallet(url);
    await comeBack(input.checkoutId);
    expect(await pendingOf(input.checkoutId)).toMatchObject({ approveUrl: null });
    const empty = await joinBy('eclipse-week-once', 'empty');
    expect(empty.joining).toMatchObject({
      state: 'open',
      lastProblem: { code: 'declined.no-funds' },
    });
    expect(await hasJoined(empty.input.email)).toBe(false);
    await settle();
    await settle();
    await balanced();
  });

  it('bills each period on our calendar, and the books follow', async () => {
    const { memberId } = await joinBy('warden-monthly');
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'trial' });
    await passDays(moor, 95);
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'active', firstFailedAt: null });
    expect(await billsOf(memberId)).toEqual(['2500 succeeded', '1500 succeeded', '1500 succeeded']);
    await balanced();
  });

  it('bills a little early, and that pays for what follows; what comes once more is returned', async () => {
    const { memberId } = await joinBy('observer-monthly');
    const { id, dueAt } = await subscriptionOf(memberId);
    const { account } = await newestBill(memberId, fromMs(toMs(dueAt!) - 2 * DAY_MS));
    const early = await billOnce(memberId);
    expect(await syncPayment(account, early)).toBe('recorded as succeeded');
    expect((await subscriptionOf(memberId)).dueAt).toBe(
      addLength(dueAt!, { n: 1, unit: 'month' }, 'Europe/London'),
    );
    const again = await billOnce(memberId);
    expect(await syncPayment(account, again)).toMatch(/paid already; it is returned/);
    await cancelSubscription(asMember(memberId), id);
    await settle();
    value(await returnMoney(WORKER));
    expect(await rows('SELECT amount, state FROM stray_payments')).toEqual([
      { amount: 600n, state: 'returned' },
    ]);
    expect(await billsOf(memberId)).toEqual(['600 succeeded']);
    await balanced();
  });

  it('tries again by itself: a purse that fills up is paid late, one that stays empty ends it', async () => {
    const fills = await joinBy('observer-monthly', 'fills-up');
    const stays = await joinBy('observer-monthly', 'empties');
    await passDays(moor, 15);
    await passDays(moor, 45);
    expect(await billsOf(fills.memberId)).toEqual(['600 succeeded', '600 declined', '600 succeeded']);
    expect((await subscriptionOf(fills.memberId)).state).toBe('active');
    expect((await subscriptionOf(stays.memberId)).state).toBe('ended');
    expect((await billsOf(stays.memberId)).filter((bill) => bill.endsWith('declined'))).toHaveLength(5);
    await settle();
    await balanced();
  });

  it('is heard by message too, whichever comes first', async () => {
    const { memberId } = await joinBy('observer-monthly');
    const { dueAt } = await subscriptionOf(memberId);
    const { account, bill } = await newestBill(memberId, dueAt!);
    expect(await Promise.all([syncPayment(account, bill), syncPayment(account, bill)])).toContain(
      'recorded as succeeded',
    );
    expect(await billsOf(memberId)).toEqual(['600 succeeded']);
    await passDays(moor, 15);
    expect(await billsOf(memberId)).toEqual(['600 succeeded']);
    await balanced();
  });
});

describe('an agreement', () => {
  it('ends with the cancelling, so that nothing is billed that we would not charge', async () => {
    const { memberId } = await joinBy('observer-monthly');
    await passDays(moor, 20);
    const actor: Actor = { kind: 'member', memberId, staffRole: null };
    const { id } = await subscriptionOf(memberId);
    expect(await pauseSubscription(actor, id)).toMatchObject({
      ok: false,
      problems: { '': { code: 'wallet.cannot-pause' } },
    });
    await cancelSubscription(actor, id);
    expect(await agreements(memberId)).toMatchObject([{ state: 'ending' }]);
    await settle();
    expect(await agreements(memberId)).toMatchObject([{ state: 'ended' }]);
    await passDays(moor, 60);
    expect(await billsOf(memberId)).toEqual(['600 succeeded']);
    expect((await subscriptionOf(memberId)).state).toBe('ended');
  });

  it('that the payer ends at the wallet cancels at the end of what is paid', async () => {
    const { memberId, url } = await joinBy('observer-monthly');
    await fetch(url, { method: 'POST', body: 'what=end', redirect: 'manual' });
    const account = (await findGatewayAccount(pool(), wallet))!;
    const [agreement] = await agreements(memberId);
    expect(await settleAgreementByRef(account, agreement!.ref)).toBe('the payer ended it at the wallet');
    expect((await subscriptionOf(memberId)).state).toBe('cancelling');
  });

  it('that has ended and is billed all the same: the money is shown, and returned', async () => {
    const { memberId } = await joinBy('observer-monthly');
    await cancelSubscription(
      { kind: 'member', memberId, staffRole: null },
      (await subscriptionOf(memberId)).id,
    );
    await settle();
    const bill = await billOnce(memberId);
    const { account } = await newestBill(memberId);
    expect(await syncPayment(account, bill)).toMatch(/it is returned/);
    value(await returnMoney(WORKER));
    expect(await rows("SELECT amount, state FROM stray_payments WHERE reason LIKE '%has ended'")).toEqual([
      { amount: 600n, state: 'returned' },
    ]);
    expect(await billsOf(memberId)).toEqual([]);
    await balanced();
  });
});

it('is not offered for what it cannot carry', async () => {
  const offer = (await findOffer(pool(), 'observer-monthly'))!;
  const site = await currentSite();
  const names = async (definition: typeof offer.definition) =>
    (await gatewaysFor(site, { definition })).map((account) => account.gateway);
  expect(await names(offer.definition)).toEqual(['curlew-cards', 'dunlin-wallet', 'bank-transfer']);
  expect(await names({ ...offer.definition, currency: 'KWD' })).toEqual(['curlew-cards', 'bank-transfer']);
  const hourly = { kind: 'repeat', amount: 100, every: { n: 12, unit: 'hour' }, times: null } as const;
  expect(await names({ ...offer.definition, steps: [hourly] })).toEqual(['curlew-cards']);
  await doAllDue();
});

describe('a wallet and a subscription that runs already', () => {
  const CARD = () => moor.accountId;
  const choose = (memberId: string, subscriptionId: string, accountId: string, more: object = {}) =>
    changeMethod(asMember(memberId), { subscriptionId, accountId, ...more });
  async function approve(memberId: string, subscriptionId: string, purse: Purse = 'full'): Promise<void> {
    const asked = await choose(memberId, subscriptionId, wallet);
    if (!asked.ok || !asked.value.approveUrl) throw new Error(JSON.stringify(asked));
    await approveAtWallet(asked.value.approveUrl, purse);
    const [agreement] = await rows<{ id: string }>(
      `SELECT id FROM agreements WHERE subscription_id = $1 ORDER BY created_at DESC LIMIT 1`,
      [subscriptionId],
    );
    await returnFromApproval(asMember(memberId), agreement?.id ?? '');
  }

  it('is chosen in place of a card: the wallet bills on the calendar that runs, and the card is charged no more', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 20);
    const before = await subscriptionOf(memberId);
    await approve(memberId, subscription.id);
    expect(await subscriptionOf(memberId)).toMatchObject({
      gatewayAccountId: wallet,
      methodLabel: 'Dunlin Wallet',
    });
    expect(await billsOf(memberId)).toEqual(['600 succeeded']);
    await passDays(moor, 62);
    expect(await billsOf(memberId)).toEqual(['600 succeeded', '600 succeeded', '600 succeeded']);
    const after = await subscriptionOf(memberId);
    expect(after).toMatchObject({ state: 'active', firstFailedAt: null });
    // The day of the month is the one it had, where the site is: in UTC it may be the day before.
    const { zone } = await currentSite();
    const day = ({ paidThrough }: { paidThrough: Instant | null }) => localDate(paidThrough!, zone).slice(8);
    expect(day(after)).toBe(day(before));
    for (const account of [CARD(), wallet])
      expect(await reconcile(account)).toMatchObject({ ok: true, differences: [] });
  });

  it('asked and refused, or never answered, leaves everything as it was', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    const asked = await choose(memberId, subscription.id, wallet);
    if (!asked.ok) throw new Error(JSON.stringify(asked));
    await refuseAtWallet(asked.value.approveUrl ?? '');
    await settle();
    await passDays(moor, 15);
    expect(await subscriptionOf(memberId)).toMatchObject({ gatewayAccountId: CARD(), state: 'active' });
    expect(await billsOf(memberId)).toEqual(['600 succeeded']);
  });

  it('a new price is approved before it comes, and billed from then on; the old approval is ended', async () => {
    const { memberId } = await joinBy('observer-monthly');
    await passDays(moor, 20);
    const { id } = await subscriptionOf(memberId);
    await raise(700);
    expect((await memberAccount({ id: memberId }, plainWords)).subscriptions[0]?.needsApproval).toBe(true);
    await approve(memberId, id);
    expect((await memberAccount({ id: memberId }, plainWords)).subscriptions[0]?.needsApproval).toBe(false);
    await settle();
    expect((await agreements(memberId)).map((one) => one.state).sort()).toEqual(['ended', 'running']);
    await passDays(moor, 62);
    expect(await billsOf(memberId)).toEqual(['600 succeeded', '700 succeeded', '700 succeeded']);
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'active', firstFailedAt: null });
  });

  it('whose price changed unapproved goes overdue; approving pays at once, on the calendar it had', async () => {
    const { memberId } = await joinBy('observer-monthly');
    await passDays(moor, 20);
    await raise(800);
    await passDays(moor, 28);
    const overdue = await subscriptionOf(memberId);
    expect(overdue.state).toBe('overdue');
    await approve(memberId, overdue.id);
    const paid = await subscriptionOf(memberId);
    expect(paid).toMatchObject({ state: 'active', firstFailedAt: null });
    expect((await billsOf(memberId)).at(-1)).toBe('800 succeeded');
    await passDays(moor, 31);
    expect((await billsOf(memberId)).filter((bill) => bill === '800 succeeded')).toHaveLength(2);
    // What was billed to others under the old price, before its end was seen, is noted as money to refund.
    await settle();
    value(await returnMoney(WORKER));
    await balanced();
  });

  it('an approval that was asked for before the price changed again is void', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 20);
    const asked = await choose(memberId, subscription.id, wallet);
    if (!asked.ok) throw new Error(JSON.stringify(asked));
    await raise(900);
    await approveAtWallet(asked.value.approveUrl ?? '', 'full');
    await settle();
    await settle();
    expect(await subscriptionOf(memberId)).toMatchObject({ gatewayAccountId: CARD() });
    expect((await agreements(memberId)).map((one) => one.state)).toEqual(['ended']);
  });

  it('an approval that was asked for before the card paid the period it would bill is void: nothing is paid twice', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 13);
    const asked = value(await choose(memberId, subscription.id, wallet));
    await passDays(moor, 2);
    await approveAtWallet(asked.approveUrl ?? '', 'full');
    await settle();
    await settle();
    value(await returnMoney(WORKER));
    expect(await subscriptionOf(memberId)).toMatchObject({ gatewayAccountId: CARD(), state: 'active' });
    expect(await billsOf(memberId)).toHaveLength(1);
    expect((await agreements(memberId)).map((one) => one.state)).toEqual(['ended']);
    await balanced();
  });

  it('is not asked while a charge of the card is under way', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    value(await moveClock(moor.owner, { days: 15 }));
    const subscription = await subscriptionOf(memberId);
    await intentFor(subscription, subscription.dueAt!);
    expect(await choose(memberId, subscription.id, wallet)).toMatchObject({
      problems: { '': { code: 'refusal.under-way' } },
    });
    await doAllDue();
    await doAllDue();
  });

  it('is nobody else’s to choose', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'works');
    const other = await join(moor, 'gazer-free', null);
    expect(await choose(other.memberId, subscription.id, wallet)).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
  });
});

/** The owner raises the monthly price and moves everyone to it. */
async function raise(amount: number): Promise<void> {
  const offer = await findOffer(pool(), 'observer-monthly');
  const steps = offer?.definition.steps.map((step) => (step.kind === 'repeat' ? { ...step, amount } : step));
  const saved = await saveOffer(moor.owner, {
    id: 'observer-monthly',
    name: offer?.name ?? '',
    definition: { ...offer?.definition, steps },
  });
  if (!saved.ok) throw new Error(JSON.stringify(saved));
  const { previews } = await readVersions('observer-monthly');
  const count = previews.reduce((sum, one) => sum + one.count, 0);
  const moved = await moveToNewest(moor.owner, { offerId: 'observer-monthly', count: count });
  if (!moved.ok) throw new Error(JSON.stringify(moved));
}
