'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { cancelSubscription, undoCancel } from '@/services/cancel-subscription';
import { undoSwitchLater } from '@/services/switch-later';

export async function cancelAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => cancelSubscription(actor, text(form, 'subscription')),
    () => (revalidatePath('/account'), { problems: {}, message: 'Cancelled.' }),
  );
}

export async function undoCancelAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => undoCancel(actor, text(form, 'subscription')),
    () => (revalidatePath('/account'), { problems: {}, message: 'Taken back: it goes on as before.' }),
  );
}

export async function undoSwitchAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => undoSwitchLater(actor, text(form, 'subscription')),
    () => (revalidatePath('/account'), { problems: {}, message: 'Taken back: it goes on as it is.' }),
  );
}
