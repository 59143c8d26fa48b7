'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '../kit/action-form';
import { Button } from '../kit/button';

type Props = { id: string; state: string; until: string | null; cancel: FormAction; undo: FormAction };

/** Cancelling for a member, and taking it back. */
export function StaffCancel({ id, state, until, cancel, undo }: Props) {
  const [asking, setAsking] = useState(false);
  if (state === 'cancelling') {
    return (
      <ActionForm action={undo} className="mt-3 grid gap-2">
        <input type="hidden" name="subscription" value={id} />
        <SubmitButton look="quiet" busy="Taking it back…" className="w-fit">
          Take the cancelling back
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    );
  }
  if (!['trial', 'active', 'overdue'].includes(state)) return null;
  if (!asking)
    return (
      <Button look="quiet" className="mt-3" onClick={() => setAsking(true)}>
        Cancel for the member
      </Button>
    );
  return (
    <ActionForm action={cancel} className="mt-3 grid gap-3">
      <input type="hidden" name="subscription" value={id} />
      <p className="font-semibold">
        {until && state !== 'overdue'
          ? `It then ends on ${until}, and the member is told by mail.`
          : 'It then ends at once, and the member is told by mail.'}
      </p>
      <div className="flex gap-3">
        <SubmitButton look="bad" busy="Cancelling…">
          Yes, cancel
        </SubmitButton>
        <Button look="quiet" onClick={() => setAsking(false)}>
          No
        </Button>
      </div>
      <FormMessage />
    </ActionForm>
  );
}
