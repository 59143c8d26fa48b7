import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { pool } from '../../src/platform/store/db';
import { join, passDays, rows, lanternMoor } from './lantern-moor';

const moor = lanternMoor();
const query = (sql: string, values: unknown[] = []) => pool().query(sql, values);

describe('the database itself refuses', () => {
  it('to change or delete what is in the audit', async () => {
    await expect(query(`UPDATE audit SET action = 'x'`)).rejects.toThrow('append-only');
    await expect(query('DELETE FROM audit')).rejects.toThrow('append-only');
  });

  it('to change an offer that was sold', async () => {
    await expect(query(`UPDATE offer_versions SET definition = '{}'`)).rejects.toThrow();
  });

  it('a second running subscription of one person on one ladder', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'works');
    await expect(
      query(
        `INSERT INTO subscriptions (member_id, mode, track, offer_version_id, state, anchor_at) VALUES ($1, 'test', $2, $3, 'active', now())`,
        [subscription.memberId, subscription.track, subscription.offerVersionId],
      ),
    ).rejects.toThrow('one_running_subscription');
  });

  it('to mix test and live money', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'works');
    await expect(
      query(`UPDATE subscriptions SET mode = 'live' WHERE id = $1`, [subscription.id]),
    ).rejects.toThrow();
    await expect(
      query(
        `INSERT INTO charges (subscription_id, mode, number, step, n, tier_id, period_kind, price, amount, due, joining_fee, currency, due_at)
         VALUES ($1, 'live', 99, 9, 0, 'observer', 'repeat', 1, 1, 1, 0, 'GBP', now())`,
        [subscription.id],
      ),
    ).rejects.toThrow('violates foreign key');
    await expect(
      query(
        `INSERT INTO holdings (member_id, tier_id, mode, why, subscription_id, is_paid, from_at, since_at, until_at) VALUES ($1, 'gazer', 'live', 'subscription', $2, false, '2020-01-01', '2020-01-01', '2020-01-02')`,
        [subscription.memberId, subscription.id],
      ),
    ).rejects.toThrow('violates foreign key');
  });

  it('a second open attempt, a second success, and an attempt without an amount', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 15);
    const [charge] = await rows<{ id: string }>(
      'SELECT id FROM charges WHERE subscription_id = $1 AND amount > 0',
      [subscription.id],
    );
    const attempt = (n: number, state: string, amount = 600) =>
      query(
        `INSERT INTO payments (charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, state, gateway_ref, at, settled_at)
         VALUES ($1, 'test', $2, $3, $4, $5, 'GBP', $6::text, $4, now(), CASE WHEN $6::text = 'intent' THEN NULL ELSE now() END)`,
        [charge?.id, moor.accountId, n, randomUUID(), amount, state],
      );
    await expect(attempt(2, 'succeeded')).rejects.toThrow('one_success');
    await attempt(2, 'intent');
    await expect(attempt(3, 'intent')).rejects.toThrow('one_open_attempt');
    await expect(attempt(4, 'declined', 0)).rejects.toThrow('payments_amount_check');
  });

  it('overlapping holdings of one subscription', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'works');
    await expect(
      query(
        `INSERT INTO holdings (member_id, tier_id, mode, why, subscription_id, is_paid, from_at, since_at) VALUES ($1, 'warden', 'test', 'subscription', $2, true, now(), now())`,
        [subscription.memberId, subscription.id],
      ),
    ).rejects.toThrow('exclusion constraint');
  });

  it('two tiers with one key', async () => {
    await expect(
      query(
        `UPDATE tiers SET key_cut = (SELECT key_cut FROM tiers WHERE id = 'gazer') WHERE id = 'observer'`,
      ),
    ).rejects.toThrow('unique');
  });
});
