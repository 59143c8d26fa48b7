'use server';

import { redirect } from 'next/navigation';
import { afterSignIn } from '@/app/after-sign-in';
import { forForm, text, withAsked, type FormState } from '@/app/form-state';
import { currentActor, dropSecrets, setSecrets, signOutBrowser } from '@/app/session';
import { enterCode, sendCodeAgain, type Entered } from '@/people/services/enter-code';
import { askForCode, signIn } from '@/people/services/sign-in';
import { askForPasskey, signInByPasskey } from '@/people/services/passkey-sign-in';
import { enterOneTime } from '@/people/services/one-time-codes';
import { takeLink } from '@/people/services/take-link';

export async function signInAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { email: text(form, 'email'), password: text(form, 'password'), to: text(form, 'to') };
  return forForm(signIn(await currentActor(), input), async ({ session, device, needsCode, to }) => {
    await setSecrets({ session, device });
    redirect(afterSignIn(needsCode, to));
  });
}

/** Signs in within a page whose session has ended. The answer is what is wrong; '' where they are signed in. */
export async function signInAgainAction(_: string, form: FormData): Promise<string> {
  const input = { email: text(form, 'email'), password: text(form, 'password') };
  const answer = await forForm(
    signIn(await currentActor(), input),
    async ({ session, device, needsCode }, t): Promise<FormState> => {
      await setSecrets({ session, device });
      return needsCode ? { problems: { '': t('one-time.elsewhere') } } : { problems: {} };
    },
  );
  return Object.values(answer.problems)[0] ?? '';
}

/** The challenge that a device signs with its passkey to sign a person in. */
export async function askForPasskeyAction() {
  return withAsked(askForPasskey(await currentActor()));
}

export async function signInByPasskeyAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { answer: text(form, 'answer'), to: text(form, 'to') };
  return forForm(signInByPasskey(await currentActor(), input), async ({ session, device, to }) => {
    await setSecrets({ session, device });
    redirect(to);
  });
}

/** Mails a code that signs in. The next page is the same whether or not the address is known. */
export async function askForCodeAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { email: text(form, 'email'), to: text(form, 'to') };
  return forForm(askForCode(await currentActor(), input), async ({ browser }) => {
    await setSecrets({ code: browser });
    redirect('/sign-in/code');
  });
}

export async function enterCodeAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(enterCode(await currentActor(), { code: text(form, 'code') }), enter);
}

async function enter({ opened, to }: Entered): Promise<FormState> {
  await dropSecrets('code');
  if (opened) await setSecrets({ session: opened.session, device: opened.device });
  redirect(afterSignIn(opened?.needsCode ?? false, to));
}

/** Takes a one-time code of an app, or a recovery code. */
export async function enterOneTimeAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { code: text(form, 'code'), to: text(form, 'to') || '/desk' };
  return forForm(enterOneTime(await currentActor(), input), ({ to }) => redirect(to));
}

export async function sendCodeAgainAction(): Promise<FormState> {
  return forForm(sendCodeAgain(await currentActor()), async ({ browser }, t) => {
    await setSecrets({ code: browser });
    return { problems: {}, message: t('signin.code-again') };
  });
}

export async function takeLinkAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    takeLink(await currentActor(), text(form, 'token')),
    async ({ session, device, needsCode, to }) => {
      await setSecrets({ session, device });
      redirect(afterSignIn(needsCode, to));
    },
  );
}

export async function signOutAction(): Promise<void> {
  await signOutBrowser();
  redirect('/');
}
