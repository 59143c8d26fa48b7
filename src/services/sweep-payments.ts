import { config } from '@/config';
import { pool } from '@/store/db';
import { listAbandonedPayments } from '@/store/payments';
import { WORKER } from './actor';
import { settleOpenIntent } from './collect-payment';

/**
 * Settles attempts whose process died or heard nothing, where no due date brings them up again: whoever paid to join
 * becomes a member; what was asked for and has ended meanwhile is not asked for once more.
 */
export async function sweepPayments(): Promise<number> {
  const open = await listAbandonedPayments(pool(), config().LEASE_SECONDS, 20);
  for (const intent of open) await settleOpenIntent(WORKER, intent);
  return open.length;
}
