'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { removeAddress } from '@/members/services/mail-addresses';
import { desk } from '@/words/desk';

export async function removeAddressAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(removeAddress(await currentActor(), text(form, 'id')), ({ email }) => {
    revalidatePath('/desk/members/addresses');
    return { problems: {}, message: desk('desk-letters.removed', { email }) };
  });
}
