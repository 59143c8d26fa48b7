'use server';

import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor, setSecrets } from '@/app/session';
import { beginAccount } from '@/checkout/services/begin-account';

export async function beginAccountAction(_: FormState, form: FormData): Promise<FormState> {
  const fields = ['email', 'to', 'website', 'shown', 'work'];
  const input = Object.fromEntries(fields.map((field) => [field, text(form, field)]));
  return forForm(beginAccount(await currentActor(), input), async ({ browser }) => {
    await setSecrets({ code: browser });
    redirect('/sign-in/code');
  });
}
