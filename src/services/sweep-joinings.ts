import { config } from '@/config';
import { pool } from '@/store/db';
import { listAbandonedJoiningPayments } from '@/store/payments';
import { WORKER } from './actor';
import { settleOpenIntent } from './collect-payment';

/** Settles the first payments of joinings whose process died or heard nothing: the person who paid becomes a member. */
export async function sweepJoinings(): Promise<number> {
  const open = await listAbandonedJoiningPayments(pool(), config().LEASE_SECONDS, 20);
  for (const intent of open) await settleOpenIntent(WORKER, intent);
  return open.length;
}
