import { today } from '../../src/desk/services/today';
import { describe, expect, it } from 'vitest';
import { readKeys } from '../../scripts/lib/stand-ins';
import { WORKER, type Actor } from '../../src/platform/actor';
import { afterCheckout } from '../../src/checkout/services/after-checkout';
import { connectGateway } from '../../src/billing/services/connect-gateway';
import { askToClearTestData, clearTestData, goLive, readiness } from '../../src/desk/services/go-live';
import { issueDocuments } from '../../src/documents/services/lib/issue-documents';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { moveClock } from '../../src/desk/services/move-clock';
import { subscriptionList } from '../../src/desk/services/lib/money-lists';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { runOneDue } from '../../src/billing/services/run-due';
import { settleAgreements } from '../../src/billing/services/settle-agreements';
import { currentSite } from '../../src/platform/site';
import { viewerOf } from '../../src/access/services/lib/viewer';
import { writeReminders } from '../../src/billing/services/write-reminders';
import { pool } from '../../src/platform/store/db';
import { ALL_DOCUMENTS, listDocuments } from '../../src/documents/store/documents';
import { findMember } from '../../src/people/store/members';
import { countTestData } from '../../src/billing/store/test-data';
import { countTestDocuments } from '../../src/documents/store/documents';
import {
  connectOthers,
  join,
  joinInput,
  lanternMoor,
  passDays,
  rows,
  value,
  joinNew,
  asMember,
} from './lantern-moor';
import { fromMs } from '../../src/core/instants';

const moor = lanternMoor();
const ALL = { state: '' as const, search: '', sort: 'due' as const, offset: 0, limit: 100 };
const tiersOf = async (memberId: string): Promise<string[]> =>
  (await viewerOf(asMember(memberId))).person.tiers.map((held) => held.tier);

describe('going live', () => {
  let tester: string;
  let late: Awaited<ReturnType<typeof joinInput>>;

  it('is refused while nobody could pay, to everyone but the owner, and without the name typed', async () => {
    await connectOthers(moor);
    ({ memberId: tester } = await join(moor, 'observer-monthly', 'works'));
    await passDays(moor, 15);
    expect(await tiersOf(tester)).toEqual(['observer']);
    const { blockers, testData } = value(await readiness(moor.owner));
    expect(blockers).toHaveLength(1);
    expect(testData).toMatchObject({ subscriptions: 1, running: 1, holders: 1, payments: 1 });
    expect(await goLive(moor.owner, { typed: 'Lantern Moor', clearsTestData: false })).toMatchObject({
      ok: false,
    });
    expect(await goLive({ ...moor.owner, staffRole: 'editor' }, {})).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });

    const keys = await readKeys(moor.gatewayUrl, 'live');
    expect(await connectGateway(moor.owner, { gateway: 'curlew-cards', ...keys })).toMatchObject({
      ok: false,
      problems: { siteKey: { code: 'key.live' } },
    });
    expect(
      await connectGateway(moor.owner, { gateway: 'curlew-cards', ...keys, mode: 'live' }),
    ).toMatchObject({ ok: true });
    // A live account takes nothing while the site is in test mode.
    expect((await prepare('observer-monthly', undefined))?.ways.map((way) => way.label)).not.toHaveLength(0);
    expect(value(await readiness(moor.owner)).blockers).toEqual([]);
    expect(await goLive(moor.owner, { typed: 'Lantern', clearsTestData: false })).toMatchObject({
      ok: false,
      problems: { typed: { code: 'live.name', values: { name: 'Lantern Moor' } } },
    });
    expect((await currentSite()).mode).toBe('test');
  });

  it('happens once; from then on what was held by a test opens nothing, and no longer changes', async () => {
    late = await joinInput(moor, 'observer-monthly', 'declined');
    expect(await joinNew(late)).toMatchObject({ ok: false });
    const twice = await Promise.all([
      goLive(moor.owner, { typed: 'lantern moor', clearsTestData: false }),
      goLive(moor.owner, { typed: 'Lantern Moor', clearsTestData: false }),
    ]);
    expect(twice.filter((one) => one.ok)).toHaveLength(1);
    expect(await currentSite()).toMatchObject({ mode: 'live', clearsTestData: false });
    expect(await tiersOf(tester)).toEqual([]);
    expect((await subscriptionList(ALL)).total).toBe(0);
    expect((await subscriptionList(ALL, 'test')).total).toBe(1);
    expect(await moveClock(moor.owner, { days: 40 })).toMatchObject({ ok: false });
    // What would have fallen due by the rehearsal clock does not.
    await pool().query('UPDATE site SET clock_ahead_ms = clock_ahead_ms + 40 * 86400000::bigint');
    const before = await rows('SELECT count(*) FROM payments');
    expect(value(await runOneDue(WORKER))).toBe(false);
    expect(value(await writeReminders(WORKER))).toBe(0);
    expect(await rows('SELECT count(*) FROM payments')).toEqual(before);
  });

  it('a form that was opened before takes nothing; a test card is refused; real joining is numbered from 1', async () => {
    expect(await joinNew(late)).toMatchObject({
      ok: false,
      problems: { '': { code: 'checkout.of-test' } },
    });
    const { siteKey } = await readKeys(moor.gatewayUrl, 'live');
    const input = await joinInput({ ...moor, siteKey }, 'eclipse-week-once', 'works');
    const joined = await joinNew(input);
    if (!joined.ok || joined.value.state !== 'done') throw new Error(JSON.stringify(joined));
    expect(await tiersOf(joined.value.memberId)).toEqual(['eclipse-week']);
    await issueDocuments();
    const { rows: documents } = await listDocuments(pool(), 'live', ALL_DOCUMENTS);
    expect(documents.map((one) => one.label)).toEqual(['LM-I-0001']);
    expect(await rows(`SELECT mode FROM payments p WHERE mode = 'live'`)).toHaveLength(1);
  });

  it('staff can still try checkout in test mode; nobody else can', async () => {
    const input = await joinInput(moor, 'observer-monthly', 'works', { mode: 'test' });
    expect(await joinNew(input)).toMatchObject({ ok: false, code: expect.any(String) as string });
    expect(await submitCheckout({ kind: 'member', memberId: tester, staffRole: null }, input)).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    const owner = await findMember(pool(), moor.owner.memberId ?? '');
    const staff: Actor = { kind: 'staff', memberId: owner?.id ?? '', staffRole: 'owner' };
    const prepared = await prepare('observer-monthly', owner, { mode: 'test' });
    expect(prepared?.isTry).toBe(true);
    expect(await submitCheckout(staff, input)).toMatchObject({ ok: true, value: { state: 'done' } });
    expect(await tiersOf(staff.memberId ?? '')).toEqual([]);
    expect(value(await afterCheckout(staff, input.checkoutId)).view.subscription.mode).toBe('test');
    expect((await subscriptionList(ALL, 'test')).total).toBe(2);
  });

  it('counts on Today only those who joined since', async () => {
    const { week } = value(await today(moor.owner, undefined));
    const [all] = await rows<{ live: number; any: number }>(
      `SELECT count(DISTINCT member_id) FILTER (WHERE mode = 'live')::int AS live, count(DISTINCT member_id)::int AS any
       FROM subscriptions s JOIN members m ON m.id = s.member_id WHERE s.began_at IS NOT NULL AND m.staff_role IS NULL`,
    );
    expect(all?.any).toBeGreaterThan(all?.live ?? 0);
    expect(week.members?.joined).toBe(all?.live);
  });

  it('what was made in test mode is cleared on request, and nothing else', async () => {
    expect(await askToClearTestData(moor.owner, { typed: 'Moor' })).toMatchObject({ ok: false });
    expect(value(await clearTestData(WORKER))).toBe(0);
    expect(await askToClearTestData(moor.owner, { typed: 'Lantern Moor' })).toMatchObject({ ok: true });
    // An approval at a wallet that has not ended there yet holds it up.
    const [{ id } = { id: '' }] = await rows<{ id: string }>(
      `INSERT INTO agreements (subscription_id, mode, gateway_account_id, offer_version_id, state, at)
       SELECT s.id, 'test', a.id, s.offer_version_id, 'ending', now() FROM subscriptions s, gateway_accounts a WHERE s.mode = 'test' AND a.gateway = 'dunlin-wallet' LIMIT 1 RETURNING id`,
    );
    expect(value(await clearTestData(WORKER))).toBe(0);
    value(await settleAgreements(WORKER));
    expect(await rows('SELECT state FROM agreements WHERE id = $1', [id])).toEqual([{ state: 'ended' }]);
    expect(value(await clearTestData(WORKER))).toBeGreaterThan(0);
    expect(await countTestData(pool(), fromMs(Date.now()))).toEqual({
      subscriptions: 0,
      running: 0,
      holders: 0,
      payments: 0,
      checkouts: 0,
      messages: 0,
      agreements: 0,
    });
    expect(await countTestDocuments(pool())).toBe(0);
    expect(value(await clearTestData(WORKER))).toBe(0);
    expect(await currentSite()).toMatchObject({ clearsTestData: false, mode: 'live' });
    expect(await rows(`SELECT 1 FROM payments`)).toHaveLength(1);
    expect(await findMember(pool(), tester)).toBeDefined();
  });
});
