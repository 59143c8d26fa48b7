'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { deletePass, revokePass, savePass, setSharedPassword } from '@/access/services/passes';
import { draftsOf, forForm, text, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { desk } from '@/words/desk';

/** What the form says where the page around it has changed. */
const changed = (message?: string): Promise<FormState> => {
  revalidatePath('/desk/access/passes', 'layout');
  return Promise.resolve({ problems: {}, ...(message && { message }) });
};

export async function savePassAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  const { pass } = draftsOf(sent);
  return forForm(savePass(await currentActor(), pass), ({ id }) =>
    redirect(`/desk/access/passes/${id}?saved=1`),
  );
}

export async function setSharedPasswordAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    id: text(form, 'id'),
    password: text(form, 'password'),
    endsOld: ticked(form, 'endsOld') ?? true,
  };
  return forForm(setSharedPassword(await currentActor(), input), ({ ended }) =>
    changed(desk('desk-access.password-set', { ended })),
  );
}

export async function removeSharedPasswordAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), password: null, endsOld: ticked(form, 'endsOld') ?? true };
  return forForm(setSharedPassword(await currentActor(), input), ({ ended }) =>
    changed(desk('desk-access.password-removed', { ended })),
  );
}

export async function revokePassAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { pass: text(form, 'pass'), id: text(form, 'id') };
  return forForm(revokePass(await currentActor(), input), () => changed());
}

export async function deletePassAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deletePass(await currentActor(), text(form, 'id')), () => redirect('/desk/access/passes'));
}
