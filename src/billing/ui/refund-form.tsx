'use client';

import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { AmountField } from '@/kit/amount-field';
import { CheckField, TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import type { PaymentId } from '@/core/ids';

type Props = {
  action: FormAction;
  paymentId: PaymentId;
  requestId: string;
  currency: string;
  /** What is left to refund, as people type it, and as they read it. */
  most: string;
  mostWords: string;
  /** Above this the password is asked for, in words; null where less than that can be refunded. */
  asksAbove: string | null;
};

/** Refunds a payment, all or part; says what that means before it is done. */
export function RefundForm({ action, paymentId, requestId, currency, most, mostWords, asksAbove }: Props) {
  return (
    <details className="mt-1">
      <summary className="w-fit list-none text-[0.9375rem] text-spruce underline">Refund…</summary>
      <ActionForm action={action} label="Refund" className="mt-2 grid gap-3 rounded-md bg-sunken p-3">
        <FormMessage />
        <input type="hidden" name="paymentId" value={paymentId} />
        <input type="hidden" name="requestId" value={`${requestId.slice(0, -12)}${paymentId.slice(-12)}`} />
        <AmountField
          name="amount"
          currency={currency}
          label="Amount"
          defaultValue={most}
          hint={`At most ${mostWords}. Unspent credit from this payment is cancelled.`}
        />
        <TextField name="reason" label="Reason (for the books)" />
        <CheckField
          name="endsAccess"
          value="yes"
          label="End access now"
          hint="Nothing more is charged, and what it opens is closed."
        />
        {asksAbove && <PasswordAgain hint={`Required for refunds over ${asksAbove}.`} />}
        <SubmitButton busy="Refunding…" look="bad" className="w-fit">
          Refund
        </SubmitButton>
      </ActionForm>
    </details>
  );
}
