'use client';

import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { AmountField } from '@/kit/amount-field';
import { CheckField, TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import type { PaymentId } from '@/core/ids';
import { desk } from '@/words/desk';

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
      <summary className="w-fit list-none text-[0.9375rem] text-spruce underline">
        {desk('desk-money.refund')}
      </summary>
      <ActionForm
        action={action}
        label={desk('desk-money.refund-label')}
        className="mt-2 grid gap-3 rounded-md bg-sunken p-3"
      >
        <FormMessage />
        <input type="hidden" name="paymentId" value={paymentId} />
        <input type="hidden" name="requestId" value={`${requestId.slice(0, -12)}${paymentId.slice(-12)}`} />
        <AmountField
          name="amount"
          currency={currency}
          label={desk('desk.amount')}
          defaultValue={most}
          hint={desk('desk-money.at-most-unspent-credit-from', { mostWords })}
        />
        <TextField name="reason" label={desk('desk-money.reason-for-the-books')} />
        <CheckField
          name="endsAccess"
          value="yes"
          label={desk('desk-money.end-access-now')}
          hint={desk('desk-money.nothing-more-is-charged-and')}
        />
        {asksAbove && <PasswordAgain hint={desk('desk-money.required-for-refunds-over', { asksAbove })} />}
        <SubmitButton busy={desk('desk-money.refunding')} look="bad" className="w-fit">
          {desk('desk-money.refund-label')}
        </SubmitButton>
      </ActionForm>
    </details>
  );
}
