'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import type { QuoteId } from '@/core/ids';
import { desk } from '@/words/desk';

type Props = { quoteId: QuoteId; requestId: string; button: string; action: FormAction };

/** Accepts a quote for a member. */
export function StaffSwitch({ quoteId, requestId, button, action }: Props) {
  // One id for as long as this page is open: pressed twice, it is one switch.
  const [id] = useState(requestId);
  return (
    <ActionForm action={action} className="mt-3 grid gap-2">
      <input type="hidden" name="quoteId" value={quoteId} />
      <input type="hidden" name="requestId" value={id} />
      <SubmitButton busy={desk('desk-money.switching')} className="w-fit">
        {button}
      </SubmitButton>
      <FormMessage />
    </ActionForm>
  );
}
