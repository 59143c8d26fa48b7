import { startOfDate } from '../../src/core/calendar';
import { deskFrame } from '../../src/desk/services/desk-frame';
import { VISITOR_ACTOR, WORKER } from '../../src/platform/actor';
import { plainWords } from '@/words/desk';
import { ALL_PAYMENTS } from '../../src/billing/store/payment-lists';
import type { SubscriptionFilter } from '../../src/desk/store/subscription-lists';
import { describe, expect, it } from 'vitest';
import type { Actor } from '../../src/platform/actor';
import { cancelSubscription, undoCancel } from '../../src/billing/services/cancel-subscription';
import { compareBooks, compareDueBooks } from '../../src/billing/services/compare-books';
import { gatewayList } from '../../src/billing/services/gateway-list';
import { memberAccount } from '../../src/billing/services/lib/member-account';
import { memberFile } from '../../src/members/services/member-file';
import { subscriptionList } from '../../src/desk/services/lib/money-lists';
import { paymentList } from '../../src/desk/services/lib/money-lists';
import { clockReport } from '../../src/desk/services/clock-report';
import { moveClock } from '../../src/desk/services/move-clock';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { siteMenu } from '../../src/access/services/site-menu';
import { today } from '../../src/desk/services/today';
import { doAllDue, join, lanternMoor, passDays, value, rows } from './lantern-moor';

const moor = lanternMoor();
const BY_DUE: SubscriptionFilter = { state: '', search: '', sort: 'due', offset: 0, limit: 100 };
const helper: Actor = {
  kind: 'staff',
  memberId: '00000000-0000-4000-8000-00000000000a',
  staffRole: 'helper',
};

describe('Money', () => {
  it('lists subscriptions by state, with what each is charged next', async () => {
    const trial = await join(moor, 'observer-monthly', 'works');
    const free = await join(moor, 'gazer-free', null);
    const all = await subscriptionList(BY_DUE);
    expect(all.rows.find((row) => row.memberId === trial.memberId)).toMatchObject({
      tierName: 'Observer',
      state: 'trial',
      next: { amount: 600, currency: 'GBP' },
    });
    expect(all.rows.find((row) => row.memberId === free.memberId)).toMatchObject({
      tierName: 'Gazer',
      next: null,
    });
    const onlyTrial = await subscriptionList({ ...BY_DUE, state: 'trial' });
    expect(onlyTrial.rows.every((row) => row.state === 'trial')).toBe(true);
    expect(all.counts.get('trial')).toBe(onlyTrial.rows.length);
  });

  it('lists every try to collect, newest first, and the sums are those of the lists', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'fails-second');
    await passDays(moor, 50);
    const { rows } = await paymentList(ALL_PAYMENTS);
    const own = rows.filter((row) => row.memberId === memberId);
    expect(own.map((row) => row.state)).toEqual(
      [...own.map((row) => row.state)].sort((a) => (a === 'succeeded' ? 1 : -1)),
    );
    expect(own.at(-1)).toMatchObject({ state: 'succeeded', amount: 600, attempt: 1 });
    expect(own[0]).toMatchObject({ state: 'declined', declineCode: 'no-funds' });
    await join(moor, 'eclipse-week-once', 'works');
    const week = value(await today(moor.owner));
    const since = Date.parse(startOfDate(week.week.from, week.zone));
    const received = (await paymentList(ALL_PAYMENTS)).rows.filter(
      (row) => row.state === 'succeeded' && Date.parse(row.at) >= since,
    );
    expect(week.week.income?.now).toEqual([
      { currency: 'GBP', amount: received.reduce((sum, row) => sum + row.amount, 0), count: received.length },
    ]);
  });

  it('shows how the books of each gateway compared last, never its secret, and asks no gateway for it', async () => {
    expect(value(await gatewayList(moor.owner)).accounts[0]?.books).toBeNull();
    // Of two workers one compares; and what was just compared is left alone.
    expect([value(await compareDueBooks(WORKER)), value(await compareDueBooks(WORKER))]).toEqual([1, 0]);
    const { accounts } = value(await gatewayList(moor.owner));
    expect(accounts).toHaveLength(1);
    const seen = value(await gatewayList(moor.owner)).accounts[0]?.books;
    expect(seen?.comparison).toMatchObject({ ok: true, differ: 0, differences: [], open: 0 });
    expect(JSON.stringify(accounts[0]?.account)).not.toContain('_secret_');
  });

  it('tells by how many payments the books differ, when they are compared again', async () => {
    await rows(`UPDATE payments SET amount = amount + 1 WHERE state = 'succeeded'`, []);
    value(await compareBooks(moor.owner, moor.accountId));
    const [line] = value(await gatewayList(moor.owner)).accounts;
    const [counted] = await rows<{ count: bigint }>(
      `SELECT count(*) FROM payments WHERE state = 'succeeded'`,
      [],
    );
    expect(line?.books?.comparison).toMatchObject({ ok: true, differ: Number(counted?.count) });
    await rows(`UPDATE payments SET amount = amount - 1 WHERE state = 'succeeded'`, []);
    value(await compareBooks(moor.owner, moor.accountId));
    expect(value(await gatewayList(moor.owner)).accounts[0]?.books?.comparison).toMatchObject({ differ: 0 });
  });
});

describe('a member’s file', () => {
  it('tells past and future on one line, the newest on top, each thing after what caused it', async () => {
    const { memberId } = await join(moor, 'warden-monthly', 'works');
    await passDays(moor, 31);
    const file = value(await memberFile(moor.owner, memberId));
    const words = file.timeline.map((entry) => entry.words);
    expect(words[0]).toBe('Next charge for Star Warden');
    expect(words.indexOf('Mail: Receipt: £25.00 for Star Warden')).toBeLessThan(
      words.indexOf('Paid for Star Warden'),
    );
    expect(words.indexOf('Paid for Star Warden')).toBeLessThan(words.indexOf('Joined'));
    expect(file.timeline.filter((entry) => entry.isFuture)).toHaveLength(1);
    expect(await memberFile(moor.owner, '00000000-0000-4000-8000-000000000000')).toMatchObject({
      ok: false,
      code: 'missing',
    });
  });

  it('shows the end instead of a charge once it is cancelled, by staff as by the member', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    expect(await cancelSubscription(helper, subscription.id)).toMatchObject({ ok: true });
    expect(value(await memberFile(moor.owner, memberId)).timeline[0]).toMatchObject({
      words: 'Observer ends',
      isFuture: true,
    });
    expect(await cancelSubscription(helper, subscription.id)).toMatchObject({ ok: false });
    expect(await undoCancel(helper, subscription.id)).toMatchObject({ ok: true });
    expect(value(await memberFile(moor.owner, memberId)).timeline[0]).toMatchObject({
      words: 'Next charge for Observer',
    });
    expect(await undoCancel(helper, subscription.id)).toMatchObject({
      ok: false,
      problems: { '': { code: 'refusal.not-cancelled' } },
    });
  });

  it('says what is held now, since when, and why', async () => {
    const { memberId } = await join(moor, 'eclipse-week-once', 'works');
    const account = await memberAccount({ id: memberId }, plainWords);
    expect(account.holdings).toMatchObject([
      { tierId: 'eclipse-week', why: 'subscription', isNow: true, isPaid: true },
    ]);
    expect(account.holdings[0]?.untilAt).toBe('2027-08-09T23:00:00Z');
    expect(account.payments).toMatchObject([{ amount: 2500, tierName: 'Eclipse Week' }]);
  });
});

describe('what checkout shows before anything is paid', () => {
  it('is what is due today, what comes next, and the year', async () => {
    const prepared = await prepare('warden-monthly', undefined);
    expect(prepared).toMatchObject({
      skipTrial: false,
      obstacle: 'none',
      quote: { dueToday: 0, firstYearTotal: 17_500 },
    });
    expect(prepared?.quote.next).toMatchObject({ amount: 2500, joiningFee: 1000 });
    expect(prepared?.ways[0]?.frame?.url).toContain(encodeURIComponent('http://127.0.0.1:9'));
    expect((await prepare('gazer-free', undefined))?.ways).toEqual([]);
    expect(await prepare('nothing', undefined)).toBeNull();
  });

  it('names the other offers of the tier, and makes a joining of its own each time', async () => {
    const [one, two] = [
      await prepare('observer-monthly', undefined),
      await prepare('observer-monthly', undefined),
    ];
    expect(one?.otherOffers.map((offer) => offer.id)).toEqual(['observer-yearly']);
    expect(one?.checkoutId).not.toBe(two?.checkoutId);
  });
});

it('the clock’s panel counts what is still to do', async () => {
  await join(moor, 'observer-monthly', 'works');
  await moveClock(moor.owner, { days: 20 });
  expect(value(await deskFrame(moor.owner)).behind).toBeGreaterThan(0);
  await doAllDue();
  expect(value(await deskFrame(moor.owner)).behind).toBe(0);
  const report = value(await clockReport(moor.owner));
  expect(report?.since).toMatch(/^Since /);
  expect(report?.lines.join(' ')).toMatch(/Received: £\d+\.00\. \d+ mails were written/);
});

it('the menu names its pages in order, and says which are closed', async () => {
  const menu = value(await siteMenu(VISITOR_ACTOR));
  expect(menu.map(({ path, title, isOpen }) => ({ path, title, isOpen }))).toEqual([
    { path: '/posts', title: 'Posts', isOpen: true },
    { path: '/library', title: 'Library', isOpen: false },
    { path: '/about', title: 'About us', isOpen: true },
    { path: '/visit', title: 'Visit', isOpen: true },
    { path: '/members-room', title: 'Members’ room', isOpen: false },
  ]);
});
