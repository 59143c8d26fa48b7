import { beforeAll, describe, expect, it, vi } from 'vitest';
import { SETUP, WORKER } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { pool, transaction, type Transaction } from '../../src/platform/store/db';
import { happen, openBook } from '../../src/billing/services/lib/open-book';
import type { Event } from '../../src/core/billing/event';
import { offerKey } from '../../src/billing/store/book-from-rows';
import { findSubscription } from '../../src/billing/store/subscriptions';
import { findOffer } from '../../src/tiers/store/offers';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { join, lanternMoor, rows, value } from './lantern-moor';

const moor = lanternMoor();
const WEEKS = 520;

beforeAll(async () => {
  const steps = [{ kind: 'repeat', amount: 100, every: { n: 1, unit: 'week' }, times: null }];
  const definition = { tier: 'observer', currency: 'GBP', steps, after: 'end' };
  value(await saveOffer(SETUP, { id: 'observer-weekly', name: 'Weekly', definition }));
});

/** Ten years of weekly charges before the one that runs, paid, with their holdings. */
async function grownOld(id: string): Promise<void> {
  await rows('UPDATE charges SET number = number + $2 WHERE subscription_id = $1', [id, WEEKS]);
  await rows(
    `INSERT INTO charges (subscription_id, mode, number, kind, state, tier_id, period_kind, price, due, step, n, amount, joining_fee, currency, due_at, period_to, paid_at, lived_from, lived_to, is_invoiced)
     SELECT s.id, 'test', w, 'period', 'paid', 'observer', 'repeat', 100, 100, 0, w - 1, 100, 0, 'GBP', s.began_at - ($2 - w + 1) * interval '1 week', s.began_at - ($2 - w) * interval '1 week',
       s.began_at - ($2 - w + 1) * interval '1 week', s.began_at - ($2 - w + 1) * interval '1 week', s.began_at - ($2 - w) * interval '1 week', true
     FROM subscriptions s, generate_series(1, $2::int) w WHERE s.id = $1`,
    [id, WEEKS],
  );
  await rows(
    `INSERT INTO payments (charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, state, gateway_ref, at, settled_at)
     SELECT c.id, 'test', $2, 1, c.id::text, 100, 'GBP', 'succeeded', c.id::text, c.due_at, c.due_at FROM charges c WHERE c.subscription_id = $1 AND c.number <= $3`,
    [id, moor.accountId, WEEKS],
  );
  await rows(
    `UPDATE subscriptions SET charges_issued = charges_issued + $2, anchor_at = anchor_at - $2 * interval '1 week', period_n = $2, began_at = began_at - $2 * interval '1 week' WHERE id = $1`,
    [id, WEEKS],
  );
}

/** How many statements an event needs, and how many rows the book that it needs has. */
async function costOf(
  id: string,
  event: Event,
  isLater: boolean,
): Promise<{ statements: number; rows: number }> {
  const of = (await findSubscription(pool(), id))!;
  const site = await currentSite();
  const offer = (await findOffer(pool(), 'warden-monthly'))!;
  const at = isLater ? of.dueAt! : siteNow(site);
  const undone = new Error('undone');
  let cost = { statements: 0, rows: 0 };
  await transaction(async (db: Transaction) => {
    const asked = vi.spyOn(db, 'query');
    const open = await openBook(db, site, WORKER, of, { offers: [offerKey(offer.versionId, 0)] }, at);
    const counted = Object.values(open.stored.book).reduce(
      (sum, list) => sum + (Array.isArray(list) ? list.length : 0),
      0,
    );
    const happened = await happen(open, event);
    expect(happened).toMatchObject({ ok: true });
    cost = { statements: asked.mock.calls.length, rows: counted };
    asked.mockRestore();
    throw undone;
  }).catch((error: unknown) => {
    if (error !== undone) throw error;
  });
  return cost;
}

describe('a book of ten years of weekly charges', () => {
  it.each([
    ['what falls due', 'due'],
    ['a cancel', 'cancel'],
    ['a pause', 'pause'],
    ['a quote of a switch', 'quote'],
    ['a switch', 'switch'],
  ] as const)('costs no more than a new one: %s', async (_, what) => {
    const costs: { statements: number; rows: number }[] = [];
    for (const isOld of [false, true]) {
      const { subscription } = await join(moor, 'observer-weekly', 'works');
      if (isOld) await grownOld(subscription.id);
      const offer = (await findOffer(pool(), 'warden-monthly'))!;
      const to = offerKey(offer.versionId, 0);
      const event: Event =
        what === 'quote' || what === 'switch'
          ? { do: what, subscription: subscription.id, to }
          : { do: what, subscription: subscription.id };
      costs.push(await costOf(subscription.id, event, what === 'due'));
    }
    expect(costs[1]).toEqual(costs[0]);
    expect(costs[0]!.rows).toBeLessThan(12);
  });
});

describe('a book is found by index alone, however many members the site has', () => {
  it('so that no table that grows with the site is read whole', async () => {
    const of = (await join(moor, 'observer-weekly', 'works')).subscription;
    const growing = /Seq Scan on (\w+)/g;
    const plan = await transaction(async (db: Transaction) => {
      // Few rows are read whole by choice; forbidden that, what is read whole has no index.
      await db.query('SET LOCAL enable_seqscan = off');
      await db.query('DISCARD PLANS');
      await db.query('SET LOCAL plan_cache_mode = force_generic_plan');
      await openBook(db, await currentSite(db), WORKER, of);
      const none = `'{}', '{}', '{}', '{}'`;
      const { rows: lines } = await db.query<{ 'QUERY PLAN': string }>(
        `EXPLAIN EXECUTE "load-book"('${of.memberId}', 'test', ${none}, now(), now(), '{}', NULL, '{}', '{}', '{}')`,
      );
      return lines.map((line) => line['QUERY PLAN']).join('\n');
    });
    const whole = [...plan.matchAll(growing)].map(([, table]) => table);
    expect(
      whole.filter((table) => !['tiers', 'ladders', 'gateway_accounts', 'offer_versions'].includes(table!)),
    ).toEqual([]);
  });
});
