import { config } from '@/config';
import { pool } from '@/platform/store/db';
import { listAbandonedPayments } from '@/store/payments';
import { WORKER } from '@/platform/actor';
import { settleOpenIntent } from '@/services/lib/collect-payment';
import { systemUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';

/**
 * Settles attempts whose process died or heard nothing, where no due date brings them up again: whoever paid to join
 * becomes a member; what was asked for and has ended meanwhile is not asked for once more.
 */
async function sweep(): Promise<number> {
  const open = await listAbandonedPayments(pool(), config().LEASE_SECONDS, 20);
  for (const intent of open) await settleOpenIntent(WORKER, intent);
  return open.length;
}

export const sweepPayments = systemUse('sweep-payments', nothing, async () => done(await sweep()));
