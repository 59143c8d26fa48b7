'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import {
  deleteOutsideSite,
  newOutsideSecret,
  saveFrameOrigins,
  saveOutsideSite,
} from '@/access/services/outside-sites';
import { forForm, given, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { desk } from '@/words/desk';

const PLACE = '/desk/access/outside';

export async function saveOutsideAction(_: FormState, form: FormData): Promise<FormState> {
  const version = given(form, 'version');
  const input = {
    id: text(form, 'id'),
    name: text(form, 'name'),
    origin: text(form, 'origin'),
    prefix: text(form, 'prefix'),
    ...(version !== undefined && { version: Number(version) }),
  };
  return forForm(saveOutsideSite(await currentActor(), input), ({ secret }) => {
    if (secret === null) redirect(PLACE);
    revalidatePath(PLACE);
    return Promise.resolve({ problems: {}, message: desk('desk-access.outside-secret', { secret }) });
  });
}

export async function newSecretAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(newOutsideSecret(await currentActor(), text(form, 'id')), ({ secret }) =>
    Promise.resolve({ problems: {}, message: desk('desk-access.outside-secret', { secret }) }),
  );
}

export async function deleteOutsideAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteOutsideSite(await currentActor(), text(form, 'id')), () => redirect(PLACE));
}

export async function saveFramesAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(saveFrameOrigins(await currentActor(), text(form, 'origins')), () => {
    revalidatePath(PLACE);
    return Promise.resolve({ problems: {}, message: desk('desk-access.frames-saved') });
  });
}
