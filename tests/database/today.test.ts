import { describe, expect, it } from 'vitest';
import { today } from '../../src/desk/services/today';
import { paymentList, subscriptionList, upcomingCharges } from '../../src/desk/services/money-lists';
import { saveItem } from '../../src/content/services/save-item';
import { saveMenuEntry } from '../../src/content/services/menu';
import { repairPages } from '../../src/content/services/page-roles';
import { listPageRoles } from '../../src/content/store/page-roles';
import { findMembers } from '../../src/members/services/find-members';
import { SETUP, WORKER, type Actor } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import { join, lanternMoor, newPerson, passDays, rows, subscriptionOf, value } from './lantern-moor';

const moor = lanternMoor();
const seen = async (actor: Actor = moor.owner) => value(await today(actor));
const trail = async () => (await seen()).trail;
const need = async (kind: string) => (await seen()).needs.find((one) => one.kind === kind);

describe('the way to a first member', () => {
  it('is proved by what happens, a step at a time', async () => {
    expect(await trail()).toMatchObject({
      purchase: null,
      renewal: null,
      hasJoinInMenu: false,
      checkedAt: null,
    });
    value(await saveMenuEntry(SETUP, { kind: 'join', label: '', audience: 'everyone', look: 'link' }));
    expect((await trail())?.hasJoinInMenu).toBe(true);
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 15);
    expect(await trail()).toMatchObject({ purchase: { amount: 600, currency: 'GBP' }, renewal: null });
    await passDays(moor, 31);
    expect((await trail())?.renewal).toMatchObject({ amount: 600 });
    expect((await subscriptionOf(memberId)).state).toBe('active');
  });

  it('has pages by law that someone wrote, not the text a site begins with', async () => {
    await repairPages(WORKER);
    expect((await trail())?.legal).toEqual({ written: [], all: 2 });
    const privacy = (await listPageRoles(pool())).find(({ role }) => role === 'privacy')?.itemId;
    value(await saveItem(SETUP, { id: privacy, type: 'page', title: 'What we keep', publish: 'publish' }));
    expect((await trail())?.legal).toEqual({ written: ['What we keep'], all: 2 });
  });

  it('counts a leak check that ended without finding anything', async () => {
    const check = (found: string) =>
      rows(
        `INSERT INTO leak_checks (id, started_at, finished_at, plan, position, total, found)
         VALUES (gen_random_uuid(), now(), now(), '{"viewpoints": [], "addresses": []}', 0, 0, $1::jsonb)`,
        [found],
      );
    await check('[]');
    expect(await trail()).toMatchObject({ hasLeaks: false, checkedAt: expect.any(String) as string });
    await check('[{"kind": "words", "path": "/a", "viewpoint": "visitor", "item": null, "evidence": "x"}]');
    expect(await trail()).toMatchObject({ hasLeaks: true, checkedAt: null });
    expect(await need('leaks')).toEqual({ kind: 'leaks', count: 1 });
  });
});

describe('each line', () => {
  it('counts what its list holds', async () => {
    const leaver = await join(moor, 'observer-monthly', 'fails-second');
    await join(moor, 'warden-monthly', 'works');
    await join(moor, 'eclipse-week-once', 'works');
    const { week } = await seen();
    const list = async (filter: object) => value(await findMembers(moor.owner, filter)).rows.length;
    expect(week.members?.joined).toBe(await list({ state: 'some', joinedFrom: week.from }));
    const received = value(await paymentList(moor.owner, { state: 'succeeded', since: week.from }));
    expect(week.income?.now).toMatchObject([
      { count: received.total, amount: received.rows.reduce((sum, { amount }) => sum + amount, 0) },
    ]);
    // Two weeks free, a month paid, and then no more money: failed first, and after the retries gone.
    await passDays(moor, 47);
    const failed = await need('failed');
    expect(failed).toMatchObject({
      count: value(await subscriptionList(moor.owner, { state: 'overdue' })).total,
    });
    await passDays(moor, 30);
    expect((await subscriptionOf(leaver.memberId)).state).toBe('ended');
    await rows(
      `UPDATE subscriptions SET ended_at = (SELECT now() + clock_ahead_ms * interval '1 ms' FROM site) - interval '1 day' WHERE id = $1`,
      [(await subscriptionOf(leaver.memberId)).id],
    );
    const later = (await seen()).week;
    expect(later.members?.left).toBe(1);
    expect(await list({ leftFrom: later.from })).toBe(1);
    expect(later.members?.joined).toBe(await list({ state: 'some', joinedFrom: later.from }));
  });

  it('adds up the charges of each of the next days as their list does', async () => {
    const { ahead } = await seen();
    expect(ahead).toHaveLength(14);
    for (const day of ahead ?? []) {
      const list = value(await upcomingCharges(moor.owner, { day: day.date }));
      expect([day.date, day.count, day.sums]).toEqual([
        day.date,
        list.total,
        list.sums.map(({ currency, amount }) => ({ currency, amount })),
      ]);
    }
    expect(ahead?.reduce((sum, { count }) => sum + count, 0)).toBeGreaterThan(0);
  });

  it('tells of cards that expire before 30 days have passed, in a list of their own', async () => {
    expect(await need('expiring')).toBeUndefined();
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await rows(
      `UPDATE subscriptions SET method_expires = (SELECT to_char(now() + clock_ahead_ms * interval '1 ms', 'YYYY-MM') FROM site) WHERE member_id = $1`,
      [memberId],
    );
    expect(await need('expiring')).toEqual({ kind: 'expiring', count: 1 });
    const list = value(await subscriptionList(moor.owner, { state: 'expiring' }));
    expect(list.rows.map((row) => row.memberId)).toEqual([memberId]);
  });
});

it('of money and members, staff see what their role sees', async () => {
  const { memberId } = await newPerson();
  await rows(`UPDATE members SET staff_role = 'viewer' WHERE id = $1`, [memberId]);
  const viewer: Actor = { kind: 'staff', memberId, staffRole: 'viewer' };
  expect(await seen(viewer)).toMatchObject({ trail: null, seesMoney: true });
  await rows(`INSERT INTO staff_roles (role, rights, reads_all) VALUES ('viewer', '{look}', false)`);
  expect(await seen(viewer)).toMatchObject({
    income: null,
    ahead: null,
    seesMoney: false,
    week: { members: null, income: null },
  });
  expect((await seen(viewer)).needs.map(({ kind }) => kind)).not.toContain('failed');
});
