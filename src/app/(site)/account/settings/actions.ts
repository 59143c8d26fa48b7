'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor, signInSession, signOutSession } from '@/app/session';
import { changeDetails, changePassword, signOutEverywhere } from '@/services/change-details';
import { deleteAccount } from '@/services/delete-account';

export async function changeDetailsAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    name: text(form, 'name'),
    email: text(form, 'email').trim(),
    password: text(form, 'password'),
    ...(form.has('country') && { country: text(form, 'country') }),
    ...(form.has('invoiceWords') && { invoiceWords: text(form, 'invoiceWords') }),
  };
  return forForm(
    () => changeDetails(actor, input),
    () => (revalidatePath('/account', 'layout'), { problems: {}, message: 'Kept.' }),
  );
}

export async function changePasswordAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => changePassword(actor, { current: text(form, 'current'), next: text(form, 'next') }),
    async ({ memberId }) => {
      await signInSession(memberId);
      return { problems: {}, message: 'Changed. Every other device has to sign in again.' };
    },
  );
}

export async function signOutEverywhereAction(): Promise<void> {
  await signOutEverywhere(await currentActor());
  await signOutSession();
  redirect('/');
}

export async function deleteAccountAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => deleteAccount(actor, { password: text(form, 'password'), isSure: text(form, 'isSure') === 'yes' }),
    async () => {
      await signOutSession();
      redirect('/');
    },
  );
}
