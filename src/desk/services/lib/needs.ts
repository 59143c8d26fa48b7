import type { Need, Sum } from '@/core/reports/today';
import { may, type Powers } from '@/core/staff';
import { unknownItems } from '@/access/services/lib/desk-items';
import { accessWarnings } from '@/access/services/warnings';
import { newestLeakCheck } from '@/access/store/leak-checks';
import { allGateways } from '@/billing/gateways';
import { nextCharges } from '@/billing/services/lib/schedules';
import { countGatewayEvents } from '@/billing/store/gateways';
import { countAwaited } from '@/billing/store/payments';
import { listToSend } from '@/billing/store/refunds';
import { listUnmatched } from '@/billing/store/statements';
import { countByCommentState } from '@/content/store/comments';
import { listSubscriptions, type SubscriptionFilter } from '@/desk/store/subscription-lists';
import type { Actor } from '@/platform/actor';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { booksCompared } from './checks';
import { inStates } from './money-lists';

const SHOWN: Omit<SubscriptionFilter, 'state'> = { search: '', sort: 'due', offset: 0, limit: 200 };

/** What waits for someone of the staff, the most urgent first: of what they may see. */
export async function needsOf(actor: Actor, powers: Powers | null, site: Site): Promise<Need[]> {
  const needs: Need[] = [];
  const add = (need: Need): void => void (need.count > 0 && needs.push(need));
  if (may(powers, 'see money')) for (const need of await moneyNeeds(site)) add(need);
  const check = await newestLeakCheck(pool());
  add({ kind: 'leaks', count: check?.finishedAt ? check.found.length : 0 });
  const warnings = await accessWarnings(actor);
  add({ kind: 'warnings', count: warnings.ok ? warnings.value.warnings.length : 0 });
  const comments = await countByCommentState(pool(), await unknownItems(actor));
  add({ kind: 'comments', count: comments.get('waiting') ?? 0 });
  return needs;
}

async function moneyNeeds(site: Site): Promise<Need[]> {
  const { mode } = site;
  const disputed = await listSubscriptions(pool(), mode, { ...SHOWN, state: 'disputed' });
  const failed = await listSubscriptions(pool(), mode, { ...SHOWN, state: 'overdue' });
  const next = [
    ...(
      await nextCharges(
        site,
        failed.rows.map(({ id }) => id),
      )
    ).values(),
  ];
  const expiring = await listSubscriptions(pool(), mode, {
    ...SHOWN,
    ...inStates({ state: 'expiring' }, site),
    limit: 1,
  });
  const noRefunds = allGateways().filter(({ carries }) => !carries.refund);
  const only = (list: typeof failed): string => (list.total === 1 ? (list.rows[0]?.memberName ?? '') : '');
  return [
    { kind: 'disputed', count: disputed.total, name: only(disputed) },
    {
      kind: 'failed',
      count: failed.total,
      name: only(failed),
      // A sum of some of them would be taken for the sum of all.
      sums: failed.total > SHOWN.limit ? [] : summed(next),
      next: next.map(({ at }) => at).sort()[0] ?? null,
    },
    { kind: 'books', count: (await booksCompared(site)).filter(({ isEqual }) => !isEqual).length },
    { kind: 'unmatched', count: (await listUnmatched(pool(), mode)).length },
    { kind: 'awaited', count: await countAwaited(pool(), mode) },
    {
      kind: 'refunds-to-send',
      count: (
        await listToSend(
          pool(),
          mode,
          noRefunds.map(({ id }) => id),
        )
      ).length,
    },
    { kind: 'expiring', count: expiring.total },
    { kind: 'messages', count: await countGatewayEvents(pool(), { mode, state: 'failed' }) },
  ];
}

function summed(rows: Sum[]): Sum[] {
  const sums = new Map<string, number>();
  for (const { currency, amount } of rows) sums.set(currency, (sums.get(currency) ?? 0) + amount);
  return [...sums].map(([currency, amount]) => ({ currency, amount }));
}
