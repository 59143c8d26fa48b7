'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { SelectField, TextField } from '@/kit/field';
import type { PaymentId } from '@/core/ids';

/** Staff say that a transfer came. Asked once more, for it opens something and writes money into the books. */
export function ConfirmTransfer({ paymentId, action }: { paymentId: PaymentId; action: FormAction }) {
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button look="quiet" onClick={() => setAsking(true)}>
        It came
      </Button>
    );
  return (
    <ActionForm action={action} className="flex flex-wrap items-center gap-2">
      <input type="hidden" name="payment" value={paymentId} />
      <SubmitButton busy="Writing it…">Yes, all of it came</SubmitButton>
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

/** A line that matched nothing: it pays something that is awaited, or is put aside with a word. */
export function UnmatchedLine({ lineId, choices, confirm, putAside }: Props) {
  return (
    <div className="mt-3 grid gap-4 md:grid-cols-2">
      {choices.length > 0 && (
        <ActionForm action={confirm} className="grid content-start gap-2">
          <input type="hidden" name="line" value={lineId} />
          <SelectField name="payment" label="It pays" defaultValue="">
            <option value="">choose what is awaited</option>
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
        <TextField name="note" label="Or put it aside" placeholder="sent back, not ours, …" />
        <SubmitButton busy="Putting aside…" look="quiet" className="w-fit">
          Put aside
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </div>
  );
}
