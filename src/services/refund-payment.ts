import { z } from 'zod';
import { formatMoney, parseAmount } from '@/core/money';
import { pool, transaction } from '@/platform/store/db';
import { findPayment, lockPayment } from '@/store/payments';
import { findRefundByKey, insertRefund, refundable, type Refund } from '@/store/refunds';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { collectRefund } from './lib/give-refund';
import { confirmStaff } from './lib/confirm-password';
import { passwordAgain } from '@/platform/inputs';
import { type Actor } from '@/platform/actor';
import { type Site } from '@/platform/store/site';

const inputSchema = z.object({
  paymentId: z.uuid(),
  /** Made when the form was shown: sent twice, it is one refund. */
  requestId: z.uuid(),
  /** As people type it: "3.50". */
  amount: z.string().trim().min(1, 'Enter an amount to refund.'),
  endsAccess: z.boolean(),
  reason: z.string().trim().max(300, 'At most 300 characters.').default(''),
  /** Asked for above the amount that the owner set. */
  password: passwordAgain,
});

export type Refunded = { amount: number; currency: string; state: Refund['state'] | 'by-hand' };

/** Gives a payment back, all or part, with access kept or ended. */
export const refundPayment = staffUse('manage money')(
  'refund-payment',
  inputSchema,
  async (actor, input): Promise<Result<Refunded>> => {
    const { paymentId, requestId, endsAccess, reason } = input;
    const site = await currentSite();
    const confirmed = await confirmLarge(actor, site, input);
    if (!confirmed.ok) return confirmed;
    const asked = await transaction(async (db): Promise<Result<Refund>> => {
      const payment = await lockPayment(db, paymentId);
      if (payment?.state !== 'succeeded') return refusedField('', 'Only a received payment can be refunded.');
      const known = await findRefundByKey(db, requestId);
      if (known) return done(known);
      const amount = parseAmount(input.amount, payment.currency);
      if (!amount.ok) return refusedField('amount', amount.reason);
      const left = await refundable(db, paymentId);
      if (amount.amount < 1 || amount.amount > left)
        return refusedField(
          'amount',
          left === 0
            ? 'This payment has been refunded in full.'
            : `Between the smallest amount and ${formatMoney(left, payment.currency)}: that is what is left of this payment.`,
        );
      const { mode, currency } = payment;
      const at = siteNow(site, mode);
      const refund = await insertRefund(db, {
        paymentId,
        mode,
        idempotencyKey: requestId,
        amount: amount.amount,
        currency,
        state: 'intent',
        gatewayRef: null,
        reason,
        endsAccess,
        at,
      });
      await record(db, actor, at, 'refund asked for', `subscription:${payment.subscriptionId}`, {
        payment: paymentId,
        amount: amount.amount,
        endsAccess,
        reason,
      });
      return done(refund);
    });
    if (!asked.ok) return asked;
    const { amount, currency } = asked.value;
    if (asked.value.state !== 'intent') return done({ amount, currency, state: asked.value.state });
    const outcome = await collectRefund(actor, asked.value);
    if (outcome.state === 'refused') return refusedField('', `${outcome.reason}. Nothing was refunded.`);
    if (outcome.state === 'unknown')
      return refusedField(
        '',
        `${outcome.reason}, so we don’t know yet whether the refund went through. It is retried automatically, and never refunded twice.`,
      );
    return done({ amount, currency, state: outcome.state });
  },
);

/** Refunds above an amount that the owner sets need the password as well. */
async function confirmLarge(
  actor: Actor,
  { refundAsksAbove }: Site,
  { paymentId, amount, password }: z.output<typeof inputSchema>,
): Promise<Result<null>> {
  const payment = await findPayment(pool(), paymentId);
  const asked = payment && parseAmount(amount, payment.currency);
  return asked?.ok && asked.amount > refundAsksAbove ? confirmStaff(actor, password) : done(null);
}
