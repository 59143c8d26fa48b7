'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { turnMailOff } from '@/mail/services/mail-topics';

export async function turnMailOffAction(_: FormState, form: FormData): Promise<FormState> {
  const isOff = text(form, 'isOff') === 'yes';
  return forForm(turnMailOff(await currentActor(), { token: text(form, 'token'), isOff }), (_, t) => {
    revalidatePath('/mail-off', 'layout');
    return { problems: {}, message: t(isOff ? 'mail-off.turned-off' : 'mail-off.turned-on') };
  });
}
