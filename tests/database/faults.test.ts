import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatewayById } from '../../src/gateways';
import type { Actor } from '../../src/services/actor';
import { cancelSubscription, undoCancel } from '../../src/services/cancel-subscription';
import { keysOf } from '../../src/services/connect-gateway';
import { moveClock } from '../../src/services/move-clock';
import { reconcile } from '../../src/services/reconcile';
import { runOneDue } from '../../src/services/run-due';
import { upcomingPeriod } from '../../src/core/subscriptions/upcoming';
import { siteNow } from '../../src/services/clock';
import { currentSite } from '../../src/services/site';
import { termsOf } from '../../src/services/terms';
import { pool } from '../../src/store/db';
import { findGatewayAccount } from '../../src/store/gateways';
import { doAllDue, join, lanternMoor, rows, subscriptionOf, intentFor } from './lantern-moor';

const moor = lanternMoor();

type Step =
  | {
      do: 'join';
      offer: 'observer-monthly' | 'mirror-makers-instalments' | 'warden-monthly';
      card: 'works' | 'fails-second';
    }
  | { do: 'days'; days: number; workers: number }
  | { do: 'cancel' | 'undo'; who: number }
  | { do: 'crash'; who: number; charged: boolean };

const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({
    do: fc.constant('join' as const),
    offer: fc.constantFrom(
      'observer-monthly' as const,
      'mirror-makers-instalments' as const,
      'warden-monthly' as const,
    ),
    card: fc.constantFrom('works' as const, 'fails-second' as const),
  }),
  fc.record({
    do: fc.constant('days' as const),
    days: fc.integer({ min: 1, max: 40 }),
    workers: fc.integer({ min: 1, max: 3 }),
  }),
  fc.record({ do: fc.constantFrom('cancel' as const, 'undo' as const), who: fc.nat({ max: 5 }) }),
  fc.record({ do: fc.constant('crash' as const), who: fc.nat({ max: 5 }), charged: fc.boolean() }),
);

/** Does what a worker does up to the moment at which it dies: the intent is written, the gateway perhaps asked. */
async function crash(memberId: string, charged: boolean): Promise<void> {
  const subscription = await subscriptionOf(memberId);
  const site = await currentSite();
  const { terms } = await termsOf(pool(), site, subscription);
  const period = upcomingPeriod(subscription, terms);
  if (!period || period.amount === 0 || !['trial', 'active', 'overdue'].includes(subscription.state)) return;
  if (!subscription.dueAt || Date.parse(subscription.dueAt) > Date.parse(siteNow(site))) return;
  const at = subscription.dueAt;
  const intent = await intentFor(subscription, period, at);
  const account = await findGatewayAccount(pool(), moor.accountId);
  if (!charged || !account) return;
  const { customerRef, methodRef } = subscription;
  await gatewayById('curlew-cards').charge(keysOf(account), {
    customerRef: customerRef ?? '',
    methodRef: methodRef ?? '',
    amount: intent.amount,
    currency: intent.currency,
    idempotencyKey: intent.idempotencyKey,
    note: '',
  });
}

async function play(steps: Step[]): Promise<void> {
  const members: string[] = [];
  const asMember = (who: number): Actor | null => {
    const memberId = members[who % Math.max(1, members.length)];
    return memberId ? { kind: 'member', memberId, staffRole: null } : null;
  };
  for (const next of steps) {
    if (next.do === 'join') members.push((await join(moor, next.offer, next.card)).memberId);
    if (next.do === 'days') {
      await moveClock(moor.owner, next.days);
      // A crash finds its moment only before the workers have been by.
      const crashed = steps.find((other) => other.do === 'crash');
      const victim = crashed?.do === 'crash' ? asMember(crashed.who) : null;
      if (crashed?.do === 'crash' && victim?.memberId)
        await crash(victim.memberId, crashed.charged).catch(() => undefined);
      const worker = async (): Promise<void> => {
        while (await runOneDue());
      };
      await Promise.all(Array.from({ length: next.workers }, worker));
    }
    const actor = next.do === 'cancel' || next.do === 'undo' ? asMember(next.who) : null;
    if (actor?.memberId) {
      const { id } = await subscriptionOf(actor.memberId);
      await (next.do === 'cancel' ? cancelSubscription : undoCancel)(actor, id);
    }
  }
  await doAllDue();
}

describe('whatever happens, in whatever order', () => {
  it('books equal the gateway’s, nobody is charged twice, nobody who paid is shut out, nobody unpaid is let in', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 12 }), async (steps) => {
        await play([{ do: 'join', offer: 'observer-monthly', card: 'works' }, ...steps]);
        expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
        const twice = await rows(
          `SELECT c.id FROM charges c JOIN payments p ON p.charge_id = c.id WHERE p.state = 'succeeded' GROUP BY c.id HAVING count(*) > 1`,
        );
        expect(twice).toEqual([]);
        const now = siteNow(await currentSite());
        const shutOut = await rows(
          `SELECT s.id FROM subscriptions s WHERE s.state IN ('trial', 'active') AND s.paid_through > $1
             AND NOT EXISTS (SELECT 1 FROM holdings h WHERE h.subscription_id = s.id AND h.from_at <= $1 AND (h.until_at IS NULL OR h.until_at > $1))`,
          [now],
        );
        expect(shutOut).toEqual([]);
        const letIn = await rows(
          `SELECT s.id FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id
             JOIN holdings h ON h.subscription_id = s.id AND (h.until_at IS NULL OR h.until_at > $1)
           WHERE s.state = 'ended' AND v.definition ->> 'after' = 'end'`,
          [now],
        );
        expect(letIn).toEqual([]);
      }),
      { numRuns: Number(process.env.FAULT_SEEDS ?? 12), endOnFailure: true },
    );
  }, 600_000);
});
