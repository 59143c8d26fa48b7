'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, texts, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { makeApiKey, revokeApiKey } from '@/people/services/api-keys';
import { desk } from '@/words/desk';

const PLACE = '/desk/settings/api';

/** The key is in what the form says afterwards, and nowhere else. */
export async function makeKeyAction(_: FormState, form: FormData): Promise<FormState> {
  const days = /^\d{1,6}$/.test(text(form, 'days').trim()) ? Number(text(form, 'days')) : 0;
  const input = { name: text(form, 'name'), scopes: texts(form, 'scopes'), days };
  return forForm(makeApiKey(await currentActor(), input), ({ key }) => {
    revalidatePath(PLACE);
    return Promise.resolve({ problems: {}, message: desk('desk-settings.key-made', { key }) });
  });
}

export async function revokeKeyAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(revokeApiKey(await currentActor(), text(form, 'id')), () => {
    revalidatePath(PLACE);
    return Promise.resolve({ problems: {} });
  });
}
