'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { draftsOf, forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { removeCodes } from '@/desk/services/codes-place';
import { changeCodes, makeCodes } from '@/tiers/services/codes';
import { desk } from '@/words/desk';

export async function makeCodesAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  const { code } = draftsOf(sent);
  return forForm(makeCodes(await currentActor(), code), ({ id }) =>
    redirect(`/desk/money/codes/${id}?saved=1`),
  );
}

export async function changeCodesAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  const { code } = draftsOf(sent);
  return forForm(changeCodes(await currentActor(), code), () => {
    revalidatePath('/desk/money/codes', 'layout');
    return { problems: {}, message: desk('desk.saved') };
  });
}

export async function removeCodesAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(removeCodes(await currentActor(), text(form, 'id')), () => redirect('/desk/money/codes'));
}
