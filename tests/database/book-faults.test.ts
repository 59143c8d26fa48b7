import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { actOnPayment, cardToken } from '../../scripts/lib/stand-ins';
import type { Offer } from '../../src/core/offers/offer';
import { gatewayById } from '../../src/billing/gateways';
import { SETUP, type Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { pool } from '../../src/platform/store/db';
import { cancelSubscription } from '../../src/billing/services/cancel-subscription';
import { changeMethod } from '../../src/billing/services/change-method';
import { importStatement } from '../../src/billing/services/import-statement';
import { syncPayment } from '../../src/billing/services/lib/sync-payment';
import { moveToNewest } from '../../src/billing/services/move-to-version';
import { pauseSubscription, resumeSubscription } from '../../src/billing/services/pause-subscription';
import { refundPayment } from '../../src/billing/services/refund-payment';
import { renewSubscription } from '../../src/billing/services/renew-subscription';
import { switchLater } from '../../src/billing/services/switch-later';
import { findSubscription, listSubscriptionsOf } from '../../src/billing/store/subscriptions';
import { prepare, type PreparedCheckout } from '../../src/checkout/services/lib/prepare';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { remindAndExpire } from '../../src/checkout/services/unfinished-checkouts';
import { WORKER } from '../../src/platform/actor';
import { keysOf } from '../../src/billing/services/lib/gateway-account';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { saveLadder } from '../../src/tiers/services/save-ladder';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { saveTier } from '../../src/billing/services/save-tier';
import { findGatewayAccount } from '../../src/billing/store/gateways';
import { findMember } from '../../src/people/store/members';
import {
  connectOthers,
  joinInput,
  lanternMoor,
  newPerson,
  passDays,
  rows,
  value,
  creditOf,
  heldBy,
} from './lantern-moor';

/** Faults that a second reading of the rules found between the services and SQL, each as it was found. */
const moor = lanternMoor();
let bank = '';
const weekly = (tier: string, amount: number, more: Partial<Offer> = {}): Offer => ({
  tier,
  currency: 'GBP',
  steps: [{ kind: 'repeat', amount, every: { n: 1, unit: 'week' }, times: null }],
  after: 'end',
  ...more,
});
const OFFERS: Record<string, Offer> = {
  'moss-weekly': weekly('moss', 210),
  'fern-weekly': weekly('fern', 700),
  'fern-good': { ...weekly('fern', 0), steps: [{ kind: 'once', amount: 5000, lasts: 'forever' }] },
  'fern-week': {
    ...weekly('fern', 0),
    steps: [{ kind: 'once', amount: 700, lasts: { n: 7, unit: 'day' } }],
    renewal: { daysBefore: 5 },
  },
  'tree-weekly': weekly('tree', 1400),
  'tree-free': weekly('tree', 0),
  'tree-trial': {
    ...weekly('tree', 0),
    steps: [
      { kind: 'trial', amount: 100, lasts: { n: 14, unit: 'day' } },
      { kind: 'repeat', amount: 1400, every: { n: 1, unit: 'week' }, times: null },
    ],
  },
};

beforeAll(async () => {
  bank = (await connectOthers(moor)).bank;
  for (const id of ['moss', 'fern', 'tree'])
    value(await saveTier(SETUP, { id, name: id, description: '', ladder: 'Ferns' }));
  for (const [id, definition] of Object.entries(OFFERS))
    value(await saveOffer(SETUP, { id, name: id, definition }));
});

type Someone = { actor: Actor; id: string };
async function someone(): Promise<Someone> {
  const actor = await newPerson();
  return { actor, id: actor.memberId ?? '' };
}

const page = async ({ id }: Someone, offerId: string): Promise<PreparedCheckout> =>
  (await prepare(offerId, await findMember(pool(), id)))!;

/** Buys an offer, or switches to it, as the page shows it; the card is what it is, or is kept. */
async function buy(
  one: Someone,
  offerId: string,
  card: Parameters<typeof joinInput>[2] | 'kept' = 'works',
  more: object = {},
) {
  const { action, figures, checkoutId, ways } = await page(one, offerId);
  const quoteId = action.kind === 'switch' ? action.quoteId : '';
  const input = await joinInput(moor, offerId, card === 'kept' ? null : card, {
    ...{ checkoutId, quoteId, keepCard: card === 'kept' },
    ...{ due: figures?.due, dueAtWallet: ways.find(({ nature }) => nature === 'wallet')?.due },
    ...more,
  });
  return submitCheckout(one.actor, input);
}
async function later(one: Someone, offerId: string): Promise<void> {
  const { action } = await page(one, offerId);
  if (action.kind !== 'switch') throw new Error(action.kind);
  value(await switchLater(one.actor, action.quoteId));
}
const subscriptions = ({ id }: Someone) => listSubscriptionsOf(pool(), id, 'test');
const running = async (one: Someone) => (await subscriptions(one)).find(({ state }) => state !== 'ended')!;
const payments = ({ id }: Someone) =>
  rows<{ id: string; amount: bigint; state: string; gateway_ref: string; is_returned: boolean }>(
    `SELECT p.* FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id
     WHERE s.member_id = $1 ORDER BY p.at, p.created_at, p.attempt`,
    [id],
  );
const paid = async (one: Someone): Promise<number[]> =>
  (await payments(one)).filter(({ state }) => state === 'succeeded').map(({ amount }) => Number(amount));
const holds = async ({ id }: Someone) => heldBy(id);
const tiers = async (one: Someone): Promise<string[]> => (await holds(one)).map(({ tier }) => tier);
const credit = async ({ id }: Someone): Promise<number> => (await creditOf(id))[0]?.amount ?? 0;
const card = async () => (await findGatewayAccount(pool(), moor.accountId))!;
async function atGateway(ref: string) {
  const account = await card();
  const found = await gatewayById(account.gateway).findPayment(keysOf(account), { ref });
  if (!found.ok || !found.payment) throw new Error('the gateway does not know it');
  return { account, payment: found.payment };
}
/** Something is done at the gateway, and its message heard. */
async function act(ref: string, what: 'dispute' | 'win' | 'lose'): Promise<string | null> {
  await actOnPayment(moor.gatewayUrl, ref, what);
  const { account, payment } = await atGateway(ref);
  return syncPayment(account, payment);
}
/** The gateway changes its mind: what it had declined has succeeded. */
async function lateSuccess(ref: string): Promise<string | null> {
  const { account, payment } = await atGateway(ref);
  return syncPayment(account, { ...payment, state: 'succeeded', code: null });
}
async function refund(paymentId: string, amount: string, endsAccess = false) {
  return refundPayment(moor.owner, { paymentId, requestId: randomUUID(), amount, endsAccess });
}
const newCard = async (one: Someone, behaviour: 'works' | 'declined' | 'fails') =>
  changeMethod(one.actor, {
    subscriptionId: (await running(one)).id,
    accountId: moor.accountId,
    cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, behaviour),
  });
const mails = async ({ id }: Someone): Promise<string[]> =>
  (
    await rows<{ template: string }>('SELECT template FROM mails WHERE member_id = $1 ORDER BY created_at', [
      id,
    ])
  ).map(({ template }) => template);
const balanced = async (): Promise<void> =>
  expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });

describe('charges and their keys', () => {
  it('a renewal that is declined, and then a switch down: the down is charged once, under a key of its own', async () => {
    const one = await someone();
    value(await buy(one, 'fern-week', 'fails-second'));
    await passDays(moor, 3);
    const { id, paidThrough } = await running(one);
    const renewed = await renewSubscription(one.actor, {
      subscriptionId: id,
      until: paidThrough,
      keepCard: true,
    });
    expect(renewed).toMatchObject({ ok: false, problems: { card: { code: expect.any(String) as string } } });
    value(await newCard(one, 'works'));
    await later(one, 'moss-weekly');
    await passDays(moor, 5);
    expect(await paid(one)).toEqual([700, 210]);
    expect(await tiers(one)).toEqual(['moss']);
    expect(new Set((await payments(one)).map((each) => each.id)).size).toBe(3);
    await balanced();
  });

  it('after a dispute is won one charge begins, at that moment; retries count from there on the rehearsal clock', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly', 'fails-second'));
    const [first] = await payments(one);
    expect(await act(first!.gateway_ref, 'dispute')).toBe('a dispute is open');
    expect(await tiers(one)).toEqual([]);
    await passDays(moor, 30);
    expect(await payments(one)).toHaveLength(1);
    expect(await act(first!.gateway_ref, 'win')).toBe('the dispute is won');
    // What fell due four weeks ago is asked for now, and once; the card fails now, and no retry lies in the past.
    expect(await payments(one)).toHaveLength(2);
    const now = siteNow(await currentSite());
    const s = await running(one);
    expect(s).toMatchObject({ state: 'overdue' });
    expect(s.dueAt! > now).toBe(true);
    expect(await tiers(one)).toEqual(['fern']);
    await balanced();
  });

  it('what is overdue and then disputed is not tried until that is decided, and then at once', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly', 'fails-second'));
    await passDays(moor, 7);
    const [first] = await payments(one);
    expect(await act(first!.gateway_ref, 'dispute')).toBe('a dispute is open');
    await passDays(moor, 30);
    expect(await payments(one)).toHaveLength(2);
    expect(await running(one)).toMatchObject({ state: 'overdue', dueAt: null });
    expect(await act(first!.gateway_ref, 'win')).toBe('the dispute is won');
    expect(await payments(one)).toHaveLength(3);
    await balanced();
  });

  it('a late success with a move pending is one payment, of the period that was asked for', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly', 'fails-second'));
    await passDays(moor, 7);
    expect((await running(one)).state).toBe('overdue');
    const dearer = {
      ...OFFERS['fern-weekly']!,
      steps: [{ ...OFFERS['fern-weekly']!.steps[0]!, amount: 900 }],
    };
    value(await saveOffer(SETUP, { id: 'fern-weekly', name: 'fern-weekly', definition: dearer }));
    const [{ count } = { count: 0 }] = await rows<{ count: number }>(
      `SELECT count(*)::int FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id WHERE v.offer_id = 'fern-weekly' AND v.version = 1
         AND s.state IN ('trial', 'active', 'overdue') AND s.due_at IS NOT NULL AND s.moves_to IS NULL`,
    );
    value(await moveToNewest(moor.owner, { offerId: 'fern-weekly', count }));
    const failed = (await payments(one)).at(-1)!;
    expect(await lateSuccess(failed.gateway_ref)).toBe('recorded as succeeded');
    expect(await paid(one)).toEqual([700, 700]);
    expect(await running(one)).toMatchObject({ state: 'active', movesTo: expect.any(String) as string });
    expect((await mails(one)).filter((template) => template === 'moved')).toEqual([]);
    await rows(`UPDATE payments SET state = 'declined', decline_code = 'no-funds' WHERE id = $1`, [
      failed.id,
    ]);
    await rows(
      `UPDATE subscriptions SET state = 'ended', ended_at = now(), due_at = NULL, next_at = NULL WHERE member_id = $1`,
      [one.id],
    );
    await rows(`UPDATE holdings SET until_at = from_at WHERE member_id = $1`, [one.id]);
    const before = { ...OFFERS['fern-weekly']! };
    value(await saveOffer(SETUP, { id: 'fern-weekly', name: 'fern-weekly', definition: before }));
  });
});

describe('credit', () => {
  it('is worth what was paid less what was refunded, and a refund makes a quote of before void', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly'));
    const { action } = await page(one, 'tree-weekly');
    expect(action).toMatchObject({ kind: 'switch', figures: { fresh: 700, due: 700 } });
    const [first] = await payments(one);
    value(await refund(first!.id, '2.00'));
    const stale = await buy(one, 'tree-weekly', 'kept', {
      quoteId: action.kind === 'switch' ? action.quoteId : '',
    });
    expect(stale).toMatchObject({
      ok: false,
      problems: { '': { code: 'refusal.quote-void' } },
    });
    expect((await page(one, 'tree-weekly')).action).toMatchObject({ figures: { fresh: 500, due: 900 } });
    value(await buy(one, 'tree-weekly', 'kept'));
    expect(await paid(one)).toEqual([700, 900]);
    await balanced();
  });

  it('is given for a first transfer that came days after it was asked for', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly', null, { accountId: bank }));
    await passDays(moor, 3);
    const [{ reference } = { reference: '' }] = await rows<{ reference: string }>(
      'SELECT c.reference FROM charges c JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1',
      [one.id],
    );
    const csv = `date,amount,payer,words\n2026-11-29,7.00,Someone New,${reference}`;
    value(await importStatement(moor.owner, { accountId: bank, csv }));
    expect(await tiers(one)).toEqual(['fern']);
    // The week began when the money came: all of it is unused.
    expect((await page(one, 'tree-weekly')).action).toMatchObject({
      figures: { fresh: 700, totalDays: 7, unusedDays: 7 },
    });
  });

  /** Three pounds that are left of what was paid. */
  const owes = (one: Someone) =>
    rows(
      `INSERT INTO credits (member_id, mode, currency, amount, payment_id, charge_id, reason, at)
       SELECT $1, 'test', 'GBP', 300, p.id, p.charge_id, 'x', now() FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1`,
      [one.id],
    );

  it('that a checkout reserved is free again once that has expired', async () => {
    const one = await someone();
    value(await buy(one, 'tree-weekly'));
    await owes(one);
    expect((await page(one, 'eclipse-week-once')).figures).toMatchObject({ credit: 300, due: 2200 });
    expect(await buy(one, 'eclipse-week-once', 'fails')).toMatchObject({ ok: false });
    expect(await credit(one)).toBe(0);
    // Renewals meanwhile do not spend it; a week later the checkout expires.
    await passDays(moor, 9);
    value(await remindAndExpire(WORKER));
    expect(await credit(one)).toBe(300);
    await passDays(moor, 7);
    expect((await paid(one)).at(-1)).toBe(1100);
    expect(await credit(one)).toBe(0);
    await balanced();
  });

  it('that was released is not spent by a late success as well', async () => {
    const one = await someone();
    value(await buy(one, 'tree-weekly'));
    await owes(one);
    expect(await buy(one, 'eclipse-week-once', 'fails')).toMatchObject({ ok: false });
    const failed = (await payments(one)).at(-1)!;
    expect(failed).toMatchObject({ amount: 2200n, state: 'declined' });
    await rows(`UPDATE checkouts SET at = at - interval '8 days' WHERE member_id = $1`, [one.id]);
    value(await remindAndExpire(WORKER));
    expect(await credit(one)).toBe(300);
    // The checkout has expired: its money arrives too late, and is returned.
    expect(await lateSuccess(failed.gateway_ref)).toBe('recorded as succeeded');
    expect((await payments(one)).at(-1)).toMatchObject({ state: 'succeeded', is_returned: true });
    expect(await credit(one)).toBe(300);
    expect(await tiers(one)).toEqual(['tree']);
    await rows(`DELETE FROM refunds WHERE payment_id = $1`, [failed.id]);
    await rows(
      `UPDATE payments SET state = 'declined', decline_code = 'declined', is_returned = false WHERE id = $1`,
      [failed.id],
    );
  });

  it('of a paid trial that was cancelled is none', async () => {
    const one = await someone();
    value(await buy(one, 'tree-trial'));
    const { id } = await running(one);
    value(await cancelSubscription(one.actor, id));
    value(
      await saveLadder(moor.owner, {
        id: 'ferns',
        name: 'Ferns',
        creditUnused: true,
        waitDays: '0',
        downAtOnce: true,
      }),
    );
    const down = (await page(one, 'fern-weekly')).action;
    expect(down).toMatchObject({ kind: 'no-switch', why: 'cancelling' });
    expect(await credit(one)).toBe(0);
    value(
      await saveLadder(moor.owner, {
        id: 'ferns',
        name: 'Ferns',
        creditUnused: true,
        waitDays: '0',
        downAtOnce: false,
      }),
    );
  });
});

describe('what a switch ends', () => {
  it('is never a tier that was paid for once and for good', async () => {
    const one = await someone();
    value(await buy(one, 'fern-good'));
    value(await buy(one, 'tree-weekly', 'kept'));
    expect((await tiers(one)).sort()).toEqual(['fern', 'tree']);
    expect(await paid(one)).toEqual([5000, 1400]);
    value(await cancelSubscription(one.actor, (await running(one)).id));
    await passDays(moor, 8);
    expect(await tiers(one)).toEqual(['fern']);
    await balanced();
  });

  it('waits through a pause: resumed, the offer that was asked for begins, and is what is charged', async () => {
    const one = await someone();
    value(await buy(one, 'tree-weekly'));
    await later(one, 'moss-weekly');
    const { id } = await running(one);
    value(await pauseSubscription(one.actor, id));
    await passDays(moor, 35);
    expect(await findSubscription(pool(), id)).toMatchObject({ state: 'paused' });
    expect(await paid(one)).toEqual([1400]);
    value(await resumeSubscription(one.actor, id));
    expect(await paid(one)).toEqual([1400, 210]);
    expect(await tiers(one)).toEqual(['moss']);
    await balanced();
  });

  it('up while paused is charged one period, from now on', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly'));
    value(await pauseSubscription(one.actor, (await running(one)).id));
    await passDays(moor, 35);
    value(await buy(one, 'tree-weekly', 'kept'));
    expect(await paid(one)).toEqual([700, 1400]);
    const s = await running(one);
    expect(s.paidThrough! > siteNow(await currentSite())).toBe(true);
    await balanced();
  });

  it('down from a free offer to one that costs money needs a payment method', async () => {
    const one = await someone();
    value(await buy(one, 'tree-free', null));
    const { action } = await page(one, 'moss-weekly');
    const asked =
      action.kind === 'switch' ? await switchLater(one.actor, action.quoteId) : { ok: false as const };
    expect(asked.ok).toBe(false);
    await passDays(moor, 8);
    expect(await tiers(one)).toEqual(['tree']);
    expect(await payments(one)).toEqual([]);
  });

  it('is nothing while a payment is disputed', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly'));
    const before = await page(one, 'tree-weekly');
    const [first] = await payments(one);
    await act(first!.gateway_ref, 'dispute');
    expect((await page(one, 'tree-weekly')).action).toMatchObject({ kind: 'no-switch', why: 'disputed' });
    const quoteId = before.action.kind === 'switch' ? before.action.quoteId : '';
    expect(await buy(one, 'tree-weekly', 'kept', { quoteId })).toMatchObject({ ok: false });
    await act(first!.gateway_ref, 'win');
  });

  it('is told by mail once it is paid for, and not before a charge that is then declined', async () => {
    const one = await someone();
    value(await buy(one, 'tree-weekly', 'fails-second'));
    await later(one, 'moss-weekly');
    await passDays(moor, 7);
    expect(await running(one)).toMatchObject({ state: 'overdue', begunBy: 'down' });
    expect(await mails(one)).not.toContain('moved');
    value(await newCard(one, 'works'));
    expect(await mails(one)).toContain('moved');
    expect(await paid(one)).toEqual([1400, 210]);
    await balanced();
  });
});

describe('how long it is held', () => {
  it('counts on over a switch up, and anew after a gap longer than the grace', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly'));
    const [begun] = await holds(one);
    await passDays(moor, 3);
    value(await buy(one, 'tree-weekly', 'kept'));
    expect(await holds(one)).toEqual([{ tier: 'tree', since: begun!.since, paid: true }]);
    value(await cancelSubscription(one.actor, (await running(one)).id));
    await passDays(moor, 60);
    value(await buy(one, 'tree-weekly'));
    const [again] = await holds(one);
    expect(again!.since > begun!.since).toBe(true);
  });

  it('a subscription that is cancelled and then disputed ends at the end of what is paid', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly'));
    const { id } = await running(one);
    value(await cancelSubscription(one.actor, id));
    const [first] = await payments(one);
    await act(first!.gateway_ref, 'dispute');
    await passDays(moor, 8);
    expect(await findSubscription(pool(), id)).toMatchObject({ state: 'ended' });
    await act(first!.gateway_ref, 'win');
    expect(await tiers(one)).toEqual([]);
  });

  it('the wait before a first switch up counts from the first joining, whatever was paused and resumed', async () => {
    const wait = (waitDays: string) =>
      saveLadder(moor.owner, { id: 'ferns', name: 'Ferns', creditUnused: true, waitDays, downAtOnce: false });
    value(await wait('30'));
    const one = await someone();
    value(await buy(one, 'fern-weekly'));
    expect((await page(one, 'tree-weekly')).action).toMatchObject({ kind: 'no-switch', why: 'wait' });
    const { id } = await running(one);
    value(await pauseSubscription(one.actor, id));
    await passDays(moor, 8);
    value(await resumeSubscription(one.actor, id));
    expect((await page(one, 'tree-weekly')).action).toMatchObject({ kind: 'no-switch', why: 'wait' });
    await passDays(moor, 23);
    expect((await page(one, 'tree-weekly')).action).toMatchObject({ kind: 'switch' });
    value(await wait('0'));
  });
});

describe('another card', () => {
  it('that is refused leaves an awaited transfer as it was: nobody is overdue, and no mail says so', async () => {
    const one = await someone();
    value(await buy(one, 'fern-weekly', null, { accountId: bank }));
    const [{ reference } = { reference: '' }] = await rows<{ reference: string }>(
      'SELECT c.reference FROM charges c JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1',
      [one.id],
    );
    value(
      await importStatement(moor.owner, {
        accountId: bank,
        csv: `date,amount,payer,words\n2026-11-29,7.00,S,${reference}`,
      }),
    );
    await passDays(moor, 7);
    const awaited = (await payments(one)).at(-1)!;
    expect(awaited.state).toBe('intent');
    // The bank refuses the card when it is kept.
    expect(await newCard(one, 'declined')).toMatchObject({ ok: false });
    expect((await payments(one)).at(-1)).toMatchObject({ id: awaited.id, state: 'intent' });
    // Another is kept, and then fails: the transfer is awaited as before.
    expect(await newCard(one, 'fails')).toMatchObject({
      ok: false,
      problems: { card: { code: expect.any(String) as string } },
    });
    expect((await payments(one)).slice(1).map(({ state }) => state)).toEqual(['intent', 'declined']);
    expect((await running(one)).state).toBe('active');
    expect(await mails(one)).not.toContain('payment-failed');
    expect(await tiers(one)).toEqual(['fern']);
    // It never comes: after its days the card is asked, and then the week is overdue.
    await passDays(moor, 5);
    expect((await running(one)).state).toBe('overdue');
    value(await newCard(one, 'works'));
    expect((await running(one)).state).toBe('active');
    await balanced();
  });
});

describe('a checkout', () => {
  it('that was left for too long has expired: it begins nothing, and reserves nothing', async () => {
    const one = await someone();
    expect(await buy(one, 'fern-weekly', 'declined')).toMatchObject({ ok: false });
    await passDays(moor, 9);
    value(await remindAndExpire(WORKER));
    expect(await rows('SELECT state FROM checkouts WHERE member_id = $1', [one.id])).toEqual([
      { state: 'expired' },
    ]);
    expect(
      await rows(
        `SELECT 1 FROM charges c JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1 AND c.state = 'open'`,
        [one.id],
      ),
    ).toEqual([]);
  });

  it('charges what was shown, and asks again where that has changed', async () => {
    const one = await someone();
    expect(await buy(one, 'fern-weekly', 'works', { due: 600 })).toMatchObject({
      ok: false,
      problems: { '': { code: 'refusal.another-price' } },
    });
    expect(await payments(one)).toEqual([]);
    value(await buy(one, 'fern-weekly'));
    expect(await paid(one)).toEqual([700]);
  });
});
