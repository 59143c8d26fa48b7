'use server';

import { forForm, text, type FormState } from '@/app/form-state';
import { redirect } from 'next/navigation';
import { currentActor, setSecrets } from '@/app/session';
import { enterPassCode } from '@/members/services/use-pass-code';
import { redeemCode } from '@/members/services/redeem-code';

export async function redeemAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(redeemCode(await currentActor(), { word: text(form, 'word') }), ({ name }, t) => ({
    // The page is not made anew: it would say that the code is used up.
    problems: {},
    message: t('code.done', { name }),
  }));
}

export async function usePassCodeAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { word: text(form, 'word'), to: text(form, 'to') };
  return forForm(enterPassCode(await currentActor(), input), async ({ browser, to }) => {
    if (browser) await setSecrets({ passes: browser });
    redirect(to);
  });
}
