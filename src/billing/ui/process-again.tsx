'use client';

import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';

export function ProcessAgain({ id, action }: { id: string; action: FormAction }) {
  return (
    <ActionForm action={action} className="grid gap-1">
      <input type="hidden" name="event" value={id} />
      <SubmitButton look="quiet" busy="One moment…" className="whitespace-nowrap">
        Process again
      </SubmitButton>
      <FormMessage />
    </ActionForm>
  );
}
