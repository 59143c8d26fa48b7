'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { cancelSubscription, undoCancel } from '@/services/cancel-subscription';

const reload = (message: string) => (): FormState => {
  revalidatePath('/desk/members', 'layout');
  return { problems: {}, message };
};

export async function staffCancelAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => cancelSubscription(actor, text(form, 'subscription')), reload('Cancelled.'));
}

export async function staffUndoAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => undoCancel(actor, text(form, 'subscription')), reload('Taken back.'));
}
