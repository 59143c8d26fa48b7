'use server';

import { redirect } from 'next/navigation';
import { enterSharedPassword, leaveAddress, takeReadLink, type GotPass } from '@/access/services/get-pass';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor, setSecrets } from '@/app/session';

async function readOn({ browser, to }: GotPass): Promise<FormState> {
  if (browser) await setSecrets({ passes: browser });
  redirect(to);
}

export async function enterSharedPasswordAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { pass: text(form, 'pass'), password: text(form, 'password'), to: text(form, 'to') };
  return forForm(enterSharedPassword(await currentActor(), input), readOn);
}

export async function leaveAddressAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { pass: text(form, 'pass'), email: text(form, 'email'), to: text(form, 'to') };
  return forForm(leaveAddress(await currentActor(), input), (_sent, t) =>
    Promise.resolve({
      problems: {},
      message: t('pass.link-sent', { email: input.email.trim() }),
    }),
  );
}

export async function takeReadLinkAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(takeReadLink(await currentActor(), text(form, 'token')), readOn);
}
