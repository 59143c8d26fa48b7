'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { SelectField, TextField } from '@/kit/field';
import type { PaymentId } from '@/core/ids';

/** Marks a transfer as received. Asked once more, for it opens something and writes money into the books. */
export function ConfirmTransfer({ paymentId, action }: { paymentId: PaymentId; action: FormAction }) {
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button look="quiet" onClick={() => setAsking(true)}>
        Mark as received
      </Button>
    );
  return (
    <ActionForm action={action} className="flex flex-wrap items-center gap-2">
      <input type="hidden" name="payment" value={paymentId} />
      <SubmitButton busy="Saving…">Yes, all of it was received</SubmitButton>
      <Button look="quiet" onClick={() => setAsking(false)}>
        No
      </Button>
      <FormMessage />
    </ActionForm>
  );
}

type Props = {
  lineId: string;
  choices: { id: string; words: string }[];
  confirm: FormAction;
  putAside: FormAction;
};

/** An unmatched line: it pays something that is due, or is ignored with a reason. */
export function UnmatchedLine({ lineId, choices, confirm, putAside }: Props) {
  return (
    <div className="mt-3 grid gap-4 md:grid-cols-2">
      {choices.length > 0 && (
        <ActionForm action={confirm} className="grid content-start gap-2">
          <input type="hidden" name="line" value={lineId} />
          <SelectField name="payment" label="Pays for" defaultValue="">
            <option value="">Choose a payment</option>
            {choices.map((choice) => (
              <option key={choice.id} value={choice.id}>
                {choice.words}
              </option>
            ))}
          </SelectField>
          <SubmitButton busy="Matching…" look="quiet" className="w-fit">
            Match
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
      <ActionForm action={putAside} className="grid content-start gap-2">
        <input type="hidden" name="line" value={lineId} />
        <TextField name="note" label="Or ignore it" placeholder="Reason: returned, not ours, …" />
        <SubmitButton busy="Saving…" look="quiet" className="w-fit">
          Ignore
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </div>
  );
}
