'use client';

import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { desk } from '@/words/desk';

export function ProcessAgain({ id, action }: { id: string; action: FormAction }) {
  return (
    <ActionForm action={action} className="grid gap-1">
      <input type="hidden" name="event" value={id} />
      <SubmitButton look="quiet" busy={desk('desk.one-moment')} className="whitespace-nowrap">
        {desk('desk-money.process-again')}
      </SubmitButton>
      <FormMessage />
    </ActionForm>
  );
}
