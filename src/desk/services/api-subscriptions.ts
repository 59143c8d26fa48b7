import type { z } from 'zod';
import { subscriptionsInput, type subscriptionsOutput } from '@/core/api/schemas';
import { listSubscriptionsById } from '@/billing/store/subscriptions';
import { listSubscriptions } from '@/desk/store/subscription-lists';
import { toldSubscriptions } from '@/members/services/lib/told-subscriptions';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { keyUse } from '@/platform/use';

/** Subscriptions of the site's mode, the newest first, some at a time. */
export const apiSubscriptions = keyUse('members:read')(
  'api-subscriptions',
  subscriptionsInput,
  async (_, { state = '', page, size }): Promise<Result<z.input<typeof subscriptionsOutput>>> => {
    const { mode } = await currentSite();
    const slice = { limit: size, offset: (page - 1) * size };
    const list = await listSubscriptions(pool(), mode, { state, search: '', sort: 'started', ...slice });
    const ids = list.rows.map(({ id }) => id);
    const stored = new Map((await listSubscriptionsById(pool(), ids)).map((one) => [one.id, one]));
    return done({
      subscriptions: await toldSubscriptions(ids.flatMap((id) => stored.get(id) ?? [])),
      total: list.total,
      page,
    });
  },
);
