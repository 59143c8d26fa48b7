import type { ReactNode } from 'react';
import { signInAgainAction } from '@/app/sign-in-action';
import { FormWordsProvider } from '@/kit/action-form';
import { SignInAgainProvider, type SignedIn } from '@/kit/surroundings';
import type { Words } from '@/words/words';

/** What every form inside can say, in the language of the pages around it. */
export function FormWordsOf({ t, children }: { t: Words; children: ReactNode }) {
  const words = {
    lost: t('form.lost'),
    checkOne: t('form.check-marked', { count: 1 }),
    checkMany: t('form.check-marked', { count: 2 }),
  };
  return <FormWordsProvider value={words}>{children}</FormWordsProvider>;
}

/** What signs a member in again, beside a form that they fill in. */
export const signInAgainOf = (t: Words, email: string): SignedIn => ({
  email,
  action: signInAgainAction,
  words: {
    title: t('signin.session-ended'),
    password: t('signin.password-for', { email }),
    button: t('site.sign-in'),
    busy: t('signin.busy'),
    cancel: t('signin.not-now'),
  },
});

/** Forms of someone who is signed in: where the session ends while one is filled in, they sign in again beside it. */
export function MemberFormsOf({ t, email, children }: { t: Words; email: string; children: ReactNode }) {
  return <SignInAgainProvider value={signInAgainOf(t, email)}>{children}</SignInAgainProvider>;
}
