import { retireOffer } from '../../src/tiers/services/retire-tier';
import { findOffer } from '../../src/tiers/store/offers';
import { pool } from '../../src/platform/store/db';
import { describe, expect, it } from 'vitest';
import { SETUP } from '../../src/platform/actor';
import { moveToNewest } from '../../src/billing/services/move-to-version';
import { readVersions } from '../../src/billing/services/lib/offer-versions';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { undoSwitchLater } from '../../src/billing/services/switch-later';
import { join, lanternMoor, passDays, rows, subscriptionOf, value } from './lantern-moor';

const moor = lanternMoor();
const priced = (amount: number) => ({
  id: 'observer-monthly',
  name: 'Monthly',
  definition: {
    tier: 'observer',
    currency: 'GBP',
    steps: [
      { kind: 'trial', amount: 0, lasts: { n: 14, unit: 'day' } },
      { kind: 'repeat', amount, every: { n: 1, unit: 'month' }, times: null },
    ],
    after: 'end',
  },
});
const paidBy = async (memberId: string) =>
  (
    await rows<{ amount: bigint }>(
      `SELECT p.amount FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id
       WHERE s.member_id = $1 AND p.state = 'succeeded' ORDER BY p.at`,
      [memberId],
    )
  ).map((row) => Number(row.amount));

describe('a new price', () => {
  it('is for those who join from then on; the page says how many stay on which version', async () => {
    const old = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 15);
    expect(await saveOffer(SETUP, priced(700))).toMatchObject({ value: { version: 2 } });
    const fresh = await join(moor, 'observer-monthly', 'works');
    const { versions, previews } = await readVersions('observer-monthly');
    expect(versions.map(({ version, running }) => [version, running])).toEqual([
      [2, 1],
      [1, 1],
    ]);
    expect(previews).toMatchObject([
      {
        version: 1,
        count: 1,
        before: '£6 a month until you cancel.',
        after: '£7 a month until you cancel.',
        amounts: [{ before: '£6', after: '£7', count: 1 }],
      },
    ]);
    await passDays(moor, 32);
    expect(await paidBy(old.memberId)).toEqual([600, 600]);
    expect(await paidBy(fresh.memberId)).toEqual([700]);
  });

  it('comes to the others only when the owner moves them: told by mail, at their next period, without a second trial', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 15);
    await saveOffer(SETUP, priced(900));
    const count = (await readVersions('observer-monthly')).previews.reduce(
      (sum, each) => sum + each.count,
      0,
    );
    expect(await moveToNewest(SETUP, { offerId: 'observer-monthly', count: count + 1 })).toMatchObject({
      ok: false,
    });
    expect(await moveToNewest(SETUP, { offerId: 'observer-monthly', count: count })).toMatchObject({
      value: { count },
    });
    expect(await moveToNewest(SETUP, { offerId: 'observer-monthly', count: 0 })).toMatchObject({
      value: { count: 0 },
    });
    expect(
      await rows(`SELECT subject FROM mails WHERE member_id = $1 AND template = 'price-changes'`, [memberId]),
    ).toEqual([{ subject: expect.stringContaining('The price of Observer from') as string }]);
    // It is the owner's decision: the member can cancel, but cannot take the move back.
    await undoSwitchLater({ kind: 'member', memberId, staffRole: null }, subscription.id);
    expect(await subscriptionOf(memberId)).toMatchObject({ movesTo: expect.any(String) as string });
    expect(await paidBy(memberId)).toEqual([700]);
    await passDays(moor, 32);
    expect(await paidBy(memberId)).toEqual([700, 900]);
    expect(await subscriptionOf(memberId)).toMatchObject({
      id: subscription.id,
      state: 'active',
      movesTo: null,
    });
    await passDays(moor, 31);
    expect(await paidBy(memberId)).toEqual([700, 900, 900]);
    expect(
      await rows('SELECT from_at, until_at FROM holdings WHERE member_id = $1', [memberId]),
    ).toHaveLength(1);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });

  it('keep what a change leaves out: a retired offer is on sale again once it is brought back', async () => {
    const offer = await findOffer(pool(), 'mirror-makers-instalments');
    const { id, name, definition } = offer!;
    value(await saveOffer(SETUP, { id, name, definition }));
    value(await retireOffer(SETUP, { id, isRetired: true }));
    value(await saveOffer(SETUP, { id, name, definition }));
    value(await retireOffer(SETUP, { id, isRetired: false }));
    expect(await findOffer(pool(), id)).toMatchObject({ onSale: true });
  });

  it('does not move those who have cancelled, or who are not staff’s to move', async () => {
    expect(
      await moveToNewest(
        { kind: 'staff', memberId: '00000000-0000-4000-8000-00000000000a', staffRole: 'editor' },
        { offerId: 'observer-monthly', count: 0 },
      ),
    ).toMatchObject({ ok: false, code: expect.any(String) as string });
  });
});
