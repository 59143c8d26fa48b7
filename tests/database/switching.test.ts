import { describe, expect, it } from 'vitest';
import { SETUP } from '../../src/platform/actor';
import { cancelSubscription } from '../../src/billing/services/cancel-subscription';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { renewSubscription } from '../../src/billing/services/renew-subscription';
import { saveLadder } from '../../src/tiers/services/save-ladder';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { switchLater, undoSwitchLater } from '../../src/billing/services/switch-later';
import { cardToken } from '../../scripts/lib/stand-ins';
import { pool } from '../../src/platform/store/db';
import { findMember } from '../../src/people/store/members';
import { listSubscriptionsOf } from '../../src/billing/store/subscriptions';
import { join, joinInput, lanternMoor, passDays, rows, asMember, creditOf } from './lantern-moor';

const moor = lanternMoor();
const prepared = async (memberId: string, offerId: string) => {
  const found = await prepare(offerId, await findMember(pool(), memberId));
  if (!found) throw new Error('no such offer');
  return found;
};
/** The quote that checkout stored for a switch; '' where it would be none. */
const quoteOf = async (memberId: string, offerId: string): Promise<string> => {
  const { action } = await prepared(memberId, offerId);
  return action.kind === 'switch' ? action.quoteId : '';
};
/** What the switch form sends: the quote that was shown, and the card that is kept. */
const switchInput = async (memberId: string, offerId: string, part: object = {}) => ({
  ...(await joinInput(moor, offerId, null)),
  quoteId: await quoteOf(memberId, offerId),
  keepCard: true,
  ...part,
});
const holds = async (memberId: string) =>
  (
    await rows<{ tier_id: string }>(
      'SELECT tier_id FROM holdings WHERE member_id = $1 AND (until_at IS NULL OR until_at > now() + make_interval(secs => (SELECT clock_ahead_ms / 1000 FROM site))) ORDER BY from_at',
      [memberId],
    )
  ).map((row) => row.tier_id);
const paid = async (memberId: string) =>
  (
    await rows<{ amount: bigint }>(
      `SELECT p.amount FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id
       WHERE s.member_id = $1 AND p.state = 'succeeded' ORDER BY p.at, p.created_at`,
      [memberId],
    )
  ).map((row) => Number(row.amount));

describe('a switch up', () => {
  it('of someone who has cancelled begins at once; with a card that fails, nothing changes', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    await cancelSubscription(asMember(memberId), subscription.id);
    const states = async () =>
      (await listSubscriptionsOf(pool(), memberId, 'test')).map((each) => each.state);
    const failing = { keepCard: false, cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, 'fails') };
    const refused = await submitCheckout(
      asMember(memberId),
      await switchInput(memberId, 'warden-monthly', failing),
    );
    expect(refused.ok).toBe(false);
    expect(await states()).toContain('cancelling');
    expect(await holds(memberId)).toEqual(['observer']);
    const done = await submitCheckout(asMember(memberId), await switchInput(memberId, 'warden-monthly'));
    expect(done).toMatchObject({ ok: true });
    expect(await holds(memberId)).toEqual(['warden']);
    expect((await states())[0]).toBe('active');
  });

  it('begins at once, is charged what was quoted, and leaves one subscription and no gap', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 20);
    const { action } = await prepared(memberId, 'warden-monthly');
    if (action.kind !== 'switch') throw new Error(action.kind);
    const { fresh, leftOver, due, unusedDays, totalDays } = action.figures;
    const credit = fresh + leftOver;
    expect([credit, due]).toEqual([
      Math.floor((600 * unusedDays * 2 + totalDays) / (2 * totalDays)),
      1500 - credit,
    ]);
    const input = await switchInput(memberId, 'warden-monthly');
    const answers = await Promise.all([
      submitCheckout(asMember(memberId), input),
      submitCheckout(asMember(memberId), input),
    ]);
    expect(answers.map((answer) => answer.ok)).toEqual([true, true]);
    expect(await paid(memberId)).toEqual([600, due]);
    expect(await holds(memberId)).toEqual(['warden']);
    expect((await listSubscriptionsOf(pool(), memberId, 'test')).map((each) => each.state)).toEqual([
      'active',
      'ended',
    ]);
    expect(await rows('SELECT amount, unspent FROM credits WHERE member_id = $1', [memberId])).toEqual([
      { amount: BigInt(credit), unspent: 0n },
    ]);
    expect(
      await rows(`SELECT template FROM mails WHERE member_id = $1 AND template IN ('switched', 'ended')`, [
        memberId,
      ]),
    ).toEqual([{ template: 'switched' }]);
    await passDays(moor, 32);
    expect(await paid(memberId)).toEqual([600, due, 1500]);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });

  it('from a year leaves credit over, and later charges spend it before any money moves', async () => {
    const { memberId } = await join(moor, 'observer-yearly', 'works');
    await passDays(moor, 15);
    const input = await switchInput(memberId, 'warden-monthly');
    expect(await submitCheckout(asMember(memberId), input)).toMatchObject({ ok: true });
    expect(await paid(memberId)).toEqual([6000]);
    const [left] = await creditOf(memberId);
    expect(left?.amount).toBeGreaterThan(4000);
    await passDays(moor, 31 * 4);
    // About 59.84 of credit: three charges of 15 whole, the fourth in part.
    const payments = await paid(memberId);
    expect(payments).toHaveLength(3);
    const charged = await rows<{ sum: string }>(
      `SELECT sum(c.amount) FROM charges c JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1 AND c.paid_at IS NOT NULL`,
      [memberId],
    );
    const credits = await rows<{ amount: bigint; unspent: bigint }>(
      'SELECT amount, unspent FROM credits WHERE member_id = $1',
      [memberId],
    );
    const spent = credits.reduce((sum, credit) => sum + Number(credit.amount - credit.unspent), 0);
    expect(payments.reduce((sum, amount) => sum + amount, 0) + spent).toBe(Number(charged[0]?.sum));
    expect(await creditOf(memberId)).toEqual([]);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });

  it('with a card that is refused changes nothing: what is held stays, and no credit is given', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 20);
    const token = await cardToken(moor.gatewayUrl, moor.siteKey, 'declined');
    const input = await switchInput(memberId, 'warden-monthly', { keepCard: false, cardToken: token });
    expect(await submitCheckout(asMember(memberId), input)).toMatchObject({
      ok: false,
      problems: { card: { code: expect.any(String) as string } },
    });
    expect(await holds(memberId)).toEqual(['observer']);
    expect(await rows('SELECT 1 FROM credits WHERE member_id = $1', [memberId])).toEqual([]);
  });

  it('is void after an hour, after any other event, and for anyone else', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    const other = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 16);
    const stale = await switchInput(memberId, 'warden-monthly');
    expect(await submitCheckout(asMember(other.memberId), stale)).toMatchObject({ ok: false });
    await passDays(moor, 1);
    expect(await submitCheckout(asMember(memberId), stale)).toMatchObject({
      ok: false,
      problems: { '': { code: 'refusal.quote-void' } },
    });
    const before = await switchInput(memberId, 'warden-monthly');
    const [running] = await listSubscriptionsOf(pool(), memberId, 'test');
    await cancelSubscription(asMember(memberId), running!.id);
    expect(await submitCheckout(asMember(memberId), before)).toMatchObject({ ok: false });
    expect(await paid(memberId)).toEqual([600]);
  });

  it('without a quote is no second subscription', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    const input = await joinInput(moor, 'warden-monthly', 'works');
    expect(await submitCheckout(asMember(memberId), input)).toMatchObject({
      ok: false,
      problems: { '': { code: 'refusal.held' } },
    });
  });

  it('waits where the ladder says so', async () => {
    const context = {
      id: 'observing',
      name: 'Observing',
      creditUnused: true,
      waitDays: '60',
      downAtOnce: false,
    };
    await saveLadder(SETUP, context);
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    expect((await prepared(memberId, 'warden-monthly')).action).toMatchObject({
      kind: 'no-switch',
      why: 'wait',
    });
    await saveLadder(SETUP, { ...context, waitDays: '0' });
    expect((await prepared(memberId, 'warden-monthly')).action).toMatchObject({ kind: 'switch' });
  });
});

describe('a switch down', () => {
  it('comes at the end of what is paid, can be undone until then, and charges nothing before', async () => {
    const { memberId, subscription } = await join(moor, 'warden-monthly', 'works');
    await passDays(moor, 31);
    const quote = await quoteOf(memberId, 'observer-monthly');
    const forged = { ...(await joinInput(moor, 'observer-monthly', null)), quoteId: quote, keepCard: true };
    expect(await submitCheckout(asMember(memberId), forged)).toMatchObject({ ok: false });
    expect(await switchLater(asMember(memberId), quote)).toEqual({ ok: true, value: null });
    expect(await holds(memberId)).toEqual(['warden']);
    expect(await undoSwitchLater(asMember(memberId), subscription.id)).toMatchObject({ ok: true });
    await switchLater(asMember(memberId), await quoteOf(memberId, 'observer-monthly'));
    await passDays(moor, 31);
    expect(await holds(memberId)).toEqual(['observer']);
    expect(await paid(memberId)).toEqual([2500, 600]);
    expect(
      await rows(`SELECT subject FROM mails WHERE member_id = $1 AND template = 'moved'`, [memberId]),
    ).toEqual([{ subject: 'You now have Observer' }]);
  });

  it('to a free rung keeps the free rung', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await switchLater(asMember(memberId), await quoteOf(memberId, 'gazer-free'));
    await passDays(moor, 15);
    expect(await holds(memberId)).toEqual(['gazer']);
    expect(await paid(memberId)).toEqual([]);
  });
});

describe('renewing what was paid once', () => {
  it('early adds to the end, once for each end that was shown; too early it is refused', async () => {
    await saveOffer(SETUP, {
      id: 'observer-once',
      name: 'A year, paid once',
      definition: {
        tier: 'observer',
        currency: 'GBP',
        steps: [{ kind: 'once', amount: 6000, lasts: { n: 1, unit: 'year' } }],
        after: 'end',
        renewal: { daysBefore: 30 },
      },
    });
    const { memberId, subscription } = await join(moor, 'observer-once', 'works');
    expect((await prepared(memberId, 'observer-once')).action).toMatchObject({
      kind: 'renew-later',
      until: subscription.paidThrough,
    });
    const renewal = { subscriptionId: subscription.id, until: subscription.paidThrough, keepCard: true };
    expect(await renewSubscription(asMember(memberId), renewal)).toMatchObject({ ok: false });
    await passDays(moor, 340);
    expect((await prepared(memberId, 'observer-once')).action).toMatchObject({ kind: 'renew' });
    const answers = await Promise.all([1, 2].map(() => renewSubscription(asMember(memberId), renewal)));
    expect(answers.filter((answer) => answer.ok).length).toBeGreaterThan(0);
    expect(await renewSubscription(asMember(memberId), renewal)).toMatchObject({ ok: true });
    expect(await paid(memberId)).toEqual([6000, 6000]);
    expect(await renewSubscription(asMember(moor.owner.memberId ?? ''), renewal)).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    await passDays(moor, 60);
    expect(await holds(memberId)).toEqual(['observer']);
    await passDays(moor, 340);
    expect(await holds(memberId)).toEqual([]);
    // After a lapse it is joined anew, from now on.
    expect((await prepared(memberId, 'observer-once')).action).toEqual({ kind: 'new' });
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });
});
