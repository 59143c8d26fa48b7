import { WORKER } from '../../src/platform/actor';
import { describe, expect, it } from 'vitest';
import { cancelSubscription, undoCancel } from '../../src/billing/services/cancel-subscription';
import { moveClock } from '../../src/desk/services/move-clock';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { runOneDue } from '../../src/billing/services/run-due';
import { viewItem } from '../../src/access/services/view-item';
import { memberFile } from '../../src/members/services/member-file';
import {
  doAllDue,
  join,
  memberNamed,
  passDays,
  rows,
  subscriptionOf,
  lanternMoor,
  value,
  asMember,
} from './lantern-moor';

const moor = lanternMoor();
const payments = (subscriptionId: string) =>
  rows<{ amount: bigint; state: string; attempt: number }>(
    'SELECT p.amount, p.state, p.attempt FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = $1 ORDER BY p.at, p.attempt',
    [subscriptionId],
  );
const guide = async (email: string): Promise<string> =>
  value(await viewItem(asMember((await memberNamed(email))?.id ?? ''), '/posts/zodiacal-light')).kind;

describe('as the rehearsal clock moves', () => {
  it('a trial becomes one charge, and each month one more', async () => {
    const { email, subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 15);
    expect(await payments(subscription.id)).toEqual([{ amount: 600n, state: 'succeeded', attempt: 1 }]);
    await passDays(moor, 62);
    expect(await payments(subscription.id)).toHaveLength(3);
    expect(await guide(email)).toBe('open');
    expect(
      await rows(`SELECT count(*)::int AS n FROM mails WHERE template = 'receipt' AND member_id = $1`, [
        subscription.memberId,
      ]),
    ).toEqual([{ n: 3 }]);
  });

  it('a joining fee rides on the first payment', async () => {
    const { subscription } = await join(moor, 'warden-monthly', 'works');
    await passDays(moor, 31);
    expect(await payments(subscription.id)).toEqual([{ amount: 2500n, state: 'succeeded', attempt: 1 }]);
  });

  it('a card that fails on the second charge: overdue, mails, and after the retries the page is closed again', async () => {
    const { memberId, email, subscription } = await join(moor, 'observer-monthly', 'fails-second');
    await passDays(moor, 15);
    await passDays(moor, 31);
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'overdue' });
    expect(await guide(email)).toBe('open');
    expect(value(await memberFile(moor.owner, memberId))).toMatchObject({
      timeline: expect.arrayContaining([
        expect.objectContaining({ words: 'Next retry for Observer' }),
      ]) as unknown,
    });
    await passDays(moor, 8);
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'ended', endedUnpaid: true });
    expect(await guide(email)).toBe('doorstep');
    expect((await payments(subscription.id)).map((p) => `${p.state} ${p.attempt}`)).toEqual([
      'succeeded 1',
      'declined 1',
      'declined 2',
      'declined 3',
      'declined 4',
      'declined 5',
    ]);
    expect(
      await rows(
        `SELECT template, count(*)::int AS n FROM mails WHERE member_id = $1 GROUP BY 1 ORDER BY 1`,
        [memberId],
      ),
    ).toEqual([
      { template: 'ended-unpaid', n: 1 },
      { template: 'payment-failed', n: 4 },
      { template: 'receipt', n: 1 },
      { template: 'trial-ends', n: 1 },
      { template: 'welcome', n: 1 },
    ]);
  });

  it('one long move does the same as many short ones, at the same instants', async () => {
    const one = await join(moor, 'observer-monthly', 'fails-second');
    const other = await join(moor, 'observer-monthly', 'fails-second');
    await passDays(moor, 60);
    const at = (id: string) =>
      rows<{ at: string; state: string }>(
        "SELECT date_trunc('minute', p.at) AS at, p.state FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = $1 ORDER BY p.at",
        [id],
      );
    const times = await at(one.subscription.id);
    expect(times.map((t) => t.state)).toEqual([
      'succeeded',
      'declined',
      'declined',
      'declined',
      'declined',
      'declined',
    ]);
    expect((await at(other.subscription.id)).map((t) => t.state)).toEqual(times.map((t) => t.state));
    const day = 86_400_000;
    const [, first, ...retries] = times.map((t) => Date.parse(t.at));
    expect(retries.map((retry) => Math.round((retry - first!) / day))).toEqual([1, 3, 5, 7]);
  });

  it('instalments finish, and what they bought is kept', async () => {
    const { memberId, subscription } = await join(moor, 'mirror-makers-instalments', 'works');
    await passDays(moor, 150);
    expect(await payments(subscription.id)).toHaveLength(4);
    expect((await subscriptionOf(memberId)).state).toBe('ended');
    expect(await rows('SELECT until_at FROM holdings WHERE subscription_id = $1', [subscription.id])).toEqual(
      [{ until_at: null }],
    );
  });

  it('cancelled, it stays open to the end of what is paid, then closes; undone, it continues', async () => {
    const { memberId, email, subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 15);
    expect(await cancelSubscription(asMember(memberId), subscription.id)).toMatchObject({ ok: true });
    await passDays(moor, 10);
    expect(await guide(email)).toBe('open');
    expect(await undoCancel(asMember(memberId), subscription.id)).toMatchObject({ ok: true });
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'active' });
    await cancelSubscription(asMember(memberId), subscription.id);
    await passDays(moor, 25);
    expect(await guide(email)).toBe('doorstep');
    expect(await payments(subscription.id)).toHaveLength(1);
    expect(await undoCancel(asMember(memberId), subscription.id)).toMatchObject({ ok: false });
  });

  it('nobody cancels for another member', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'works');
    const stranger = await join(moor, 'gazer-free', null);
    expect(await cancelSubscription(asMember(stranger.memberId), subscription.id)).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    expect(
      await cancelSubscription(
        { kind: 'staff', memberId: stranger.memberId, staffRole: 'viewer' },
        subscription.id,
      ),
    ).toMatchObject({ ok: false, code: expect.any(String) as string });
  });

  it('any number of workers charge each period once', async () => {
    const joined = await Promise.all(
      Array.from({ length: 12 }, () => join(moor, 'observer-monthly', 'works')),
    );
    await moveClock(moor.owner, { days: 50 });
    const worker = async (): Promise<void> => {
      while (value(await runOneDue(WORKER)));
    };
    await Promise.all([worker(), worker(), worker(), worker()]);
    await doAllDue();
    for (const { subscription } of joined)
      expect((await payments(subscription.id)).map((p) => p.state)).toEqual(['succeeded', 'succeeded']);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
  });

  it('the clock goes forward only, and only at the hand of staff who may', async () => {
    expect(await moveClock(moor.owner, { days: -1 })).toMatchObject({ ok: false });
    expect(await moveClock(moor.owner, { days: '1.5' })).toMatchObject({ ok: false });
    expect(await moveClock(moor.owner, { days: 'soon' })).toMatchObject({
      ok: false,
      problems: { days: { code: 'number.days' } },
    });
    expect(
      await moveClock(
        { kind: 'staff', memberId: '00000000-0000-4000-8000-00000000000a', staffRole: 'helper' },
        1,
      ),
    ).toMatchObject({ ok: false, code: expect.any(String) as string });
  });
});
