'use server';

import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { redeemCode } from '@/members/services/redeem-code';

export async function redeemAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(redeemCode(await currentActor(), { word: text(form, 'word') }), ({ name }, t) => ({
    // The page is not made anew: it would say that the code is used up.
    problems: {},
    message: t('code.done', { name }),
  }));
}
