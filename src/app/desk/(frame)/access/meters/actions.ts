'use server';

import { redirect } from 'next/navigation';
import { draftsOf, forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { deleteMeter, saveMeter } from '@/access/services/meters';

export async function saveMeterAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  const { meter } = draftsOf(sent);
  return forForm(saveMeter(await currentActor(), meter), () => redirect('/desk/access/meters?saved=1'));
}

export async function deleteMeterAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteMeter(await currentActor(), text(form, 'id')), () => redirect('/desk/access/meters'));
}
