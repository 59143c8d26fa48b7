'use server';

import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { callerAddress, signInSession, signOutSession } from '@/app/session';
import { safeReturn } from '@/services/safe-return';
import { signIn } from '@/services/sign-in';

export async function signInAction(_: FormState, form: FormData): Promise<FormState> {
  const caller = await callerAddress();
  return forForm(
    () => signIn({ email: text(form, 'email'), password: text(form, 'password') }, caller),
    async (member) => {
      await signInSession(member.id);
      redirect(safeReturn(text(form, 'to')));
    },
  );
}

export async function signOutAction(): Promise<void> {
  await signOutSession();
  redirect('/');
}
