'use server';

import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { callerAddress, signInSession, signOutSession } from '@/app/session';
import { safeReturn } from '@/services/safe-return';
import { signIn } from '@/services/sign-in';
import { mailSignInLink, takeLink } from '@/services/sign-in-link';

export async function signInAction(_: FormState, form: FormData): Promise<FormState> {
  const caller = await callerAddress();
  return forForm(
    () => signIn({ email: text(form, 'email'), password: text(form, 'password') }, caller),
    async (member) => {
      await signInSession(member.id);
      redirect(safeReturn(text(form, 'to')));
    },
  );
}

/** Mails a link that signs in. What it answers does not say whether the address is known. */
export async function mailLinkAction(_: FormState, form: FormData): Promise<FormState> {
  const caller = await callerAddress();
  return forForm(
    () => mailSignInLink({ email: text(form, 'email').trim(), to: text(form, 'to') }, caller),
    () => ({
      problems: {},
      message: 'If this address has an account, a link is on its way. It works for 30 minutes.',
    }),
  );
}

export async function takeLinkAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    () => takeLink(text(form, 'token')),
    async ({ member, returnTo }) => {
      await signInSession(member.id);
      redirect(safeReturn(returnTo));
    },
  );
}

export async function signOutAction(): Promise<void> {
  await signOutSession();
  redirect('/');
}
