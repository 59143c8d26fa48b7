'use server';

import { letFrameIn } from '@/access/services/embed';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';

export async function letFrameInAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(letFrameIn(await currentActor(), text(form, 'ask')), (_done, t) =>
    Promise.resolve({ problems: {}, message: t('frame.allowed') }),
  );
}
