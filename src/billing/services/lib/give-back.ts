import { gatewayById } from '@/billing/gateways';
import type { RefundOutcome } from '@/billing/gateways/contract';
import type { StoredBook } from '@/billing/store/book';
import type { Actor } from '@/platform/actor';
import { pool, transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { keysOf } from './gateway-account';
import { findGatewayAccount } from '@/billing/store/gateways';
import { findPayment } from '@/billing/store/payments';
import { happen, openAgain } from './open-book';
import type { RefundId } from '@/core/ids';

/** Asks the gateway to give money back that is on its way, and brings the answer into the book. It is never given twice. */
export async function giveBack(
  actor: Actor,
  site: Site,
  stored: StoredBook,
  refundId: RefundId,
): Promise<RefundOutcome> {
  const refund = stored.book.refunds.find(({ id }) => id === refundId);
  const payment = refund && (await findPayment(pool(), refund.payment));
  const account = payment && (await findGatewayAccount(pool(), payment.gatewayAccountId));
  if (!refund || !account) throw new Error(`refund ${refundId} has lost its payment`);
  const outcome = await gatewayById(account.gateway).refund(keysOf(account), {
    paymentRef: payment.gatewayRef ?? '',
    amount: refund.amount,
    idempotencyKey: refund.key,
  });
  if (outcome.state === 'unknown') return outcome;
  await transaction(async (db) => {
    const open = await openAgain(db, site, actor, stored, { refunds: [refundId] }, refund.at);
    const ref = outcome.state === 'succeeded' ? outcome.ref : null;
    const done = await happen(
      open,
      outcome.state === 'refused'
        ? { do: 'refund-refused', refund: refundId }
        : { do: 'refunded', refund: refundId, ref },
    );
    if (!done.ok && done.why !== 'known') throw new Error(`refund ${refundId}: ${done.why}`);
  });
  return outcome;
}
