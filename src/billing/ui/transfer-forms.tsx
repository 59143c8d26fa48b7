'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { ChoiceField } from '@/kit/choice-field';
import { TextField } from '@/kit/field';
import type { PaymentId } from '@/core/ids';
import { desk } from '@/words/desk';

/** Marks a transfer as received. Asked once more, for it opens something and writes money into the books. */
export function ConfirmTransfer({ paymentId, action }: { paymentId: PaymentId; action: FormAction }) {
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button look="quiet" onClick={() => setAsking(true)}>
        {desk('desk-money.mark-as-received')}
      </Button>
    );
  return (
    <ActionForm action={action} className="flex flex-wrap items-center gap-2">
      <input type="hidden" name="payment" value={paymentId} />
      <SubmitButton busy={desk('desk.saving')}>{desk('desk-money.yes-all-of-it-was-received')}</SubmitButton>
      <Button look="quiet" onClick={() => setAsking(false)}>
        {desk('desk-money.no')}
      </Button>
      <FormMessage />
    </ActionForm>
  );
}

type Props = {
  lineId: string;
  choices: { id: string; words: string }[];
  confirm: FormAction;
  ignore: FormAction;
  restore: FormAction;
};

/** An unmatched line: it pays something that is due, or is ignored with a reason. */
export function UnmatchedLine({ lineId, choices, confirm, ignore, restore }: Props) {
  return (
    <div className="mt-3 grid gap-4 md:grid-cols-2">
      {choices.length > 0 && (
        <ActionForm action={confirm} className="grid content-start gap-2">
          <input type="hidden" name="line" value={lineId} />
          <ChoiceField
            name="payment"
            label={desk('desk-money.pays-for')}
            options={[
              { id: '', name: desk('desk-money.choose-a-payment') },
              ...choices.map(({ id, words }) => ({ id, name: words })),
            ]}
          />
          <SubmitButton busy={desk('desk-money.matching')} look="quiet" className="w-fit">
            {desk('desk-money.match')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
      <ActionForm action={ignore} undo={restore} className="grid content-start gap-2">
        <input type="hidden" name="line" value={lineId} />
        <TextField
          name="because"
          label={desk('desk-money.or-ignore-it')}
          placeholder={desk('desk-money.reason-returned-not-ours')}
        />
        <SubmitButton busy={desk('desk.saving')} look="quiet" className="w-fit">
          {desk('desk-money.ignore')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </div>
  );
}
