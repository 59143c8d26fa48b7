import { z } from 'zod';
import { refundable } from '@/core/billing/credit';
import { parseAmount } from '@/core/money';
import type { Actor } from '@/platform/actor';
import { passwordAgain } from '@/platform/inputs';
import { done, refusedField, type Problems, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { findPayment } from '@/billing/store/payments';
import { findRefund, type Refund } from '@/billing/store/refunds';
import { giveBack } from './lib/give-back';
import { happen, openBook } from './lib/open-book';
import type { OpenBook } from './lib/opened';
import { problem, refusal } from '@/words/problems';
import { say } from '@/words/problems';

const inputSchema = z.object({
  paymentId: z.uuid(),
  /** Made when the form was shown: sent twice, it is one refund. */
  requestId: z.uuid(),
  /** As people type it: "3.50". */
  amount: z.string().trim().min(1, say('refund.missing')),
  /** Whether access to the period it paid for ends. */
  endsAccess: z.boolean(),
  reason: z.string().trim().max(300).default(''),
  /** Asked for above the amount that the owner set. */
  password: passwordAgain,
});
type Input = z.output<typeof inputSchema>;

export type Refunded = { amount: number; currency: string; state: Refund['state'] | 'by-hand' };

/** Refunds a payment, in full or in part; access is kept or ends. */
export const refundPayment = staffUse('refund')(
  'refund-payment',
  inputSchema,
  async (actor, input): Promise<Result<Refunded>> => {
    const site = await currentSite();
    const confirmed = await confirmLarge(actor, site, input);
    if (!confirmed.ok) return confirmed;
    const payment = await findPayment(pool(), input.paymentId);
    if (payment?.state !== 'succeeded') return refusedField('', 'refund.not-received');
    const { currency } = payment;
    const known = await findRefund(pool(), input.requestId);
    if (known) return done({ amount: known.amount, currency, state: known.state });
    const asked = await transaction(async (db) => {
      const open = await openBook(db, site, actor, payment, { payments: [payment.id] });
      const problems = await ask(open, input, currency);
      return { problems, stored: open.stored };
    });
    if (asked.problems) return { ok: false, problems: asked.problems };
    const refund = asked.stored.book.refunds.find(({ id }) => id === input.requestId);
    const outcome = await giveBack(actor, site, asked.stored, input.requestId);
    if (outcome.state === 'refused') return refusedField('', 'refund.not-asked', { reason: outcome.reason });
    if (outcome.state === 'unknown') return refusedField('', 'refund.unknown', { reason: outcome.reason });
    return done({ amount: refund?.amount ?? 0, currency, state: outcome.state });
  },
);

/** Writes the refund down in the open book. The answer is what is wrong with it; null: nothing. */
async function ask(open: OpenBook, input: Input, currency: string): Promise<Problems | null> {
  const { book } = open.stored;
  const payment = book.payments.find(({ id }) => id === input.paymentId);
  const amount = parseAmount(input.amount, currency, open.site.language);
  if (!amount.ok) return { amount: amount.problem };
  const left = payment ? Math.max(0, refundable(book, payment)) : 0;
  if (left === 0) return { amount: problem('refund.fully') };
  if (amount.amount < 1 || amount.amount > left)
    return {
      amount: problem('refund.outside', { left: { amount: left, currency } }),
    };
  const happened = await happen(open, {
    do: 'refund',
    payment: input.paymentId,
    amount: amount.amount,
    access: input.endsAccess ? 'take' : 'keep',
    id: input.requestId,
    reason: input.reason,
  });
  return happened.ok ? null : { '': refusal(happened.why) };
}

/** Refunds above an amount that the owner sets need the password as well. */
async function confirmLarge(
  actor: Actor,
  { refundAsksAbove, language }: Site,
  { paymentId, amount, password }: Input,
): Promise<Result<null>> {
  const payment = await findPayment(pool(), paymentId);
  const asked = payment && parseAmount(amount, payment.currency, language);
  return asked?.ok && asked.amount > refundAsksAbove ? confirmStaff(actor, password) : done(null);
}
