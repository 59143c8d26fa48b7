import type { ReactNode } from 'react';
import { signInAgainAction } from '@/app/sign-in-action';
import { FormWordsProvider } from '@/kit/action-form';
import { SignInAgainProvider } from '@/kit/surroundings';
import type { Words } from '@/words/words';

type Props = { t: Words; email: string | null; children: ReactNode };

/** What every form inside can say and do, in the language of the pages around it. `email`: of who is signed in. */
export function FormWordsOf({ t, email, children }: Props) {
  const words = {
    lost: t('form.lost'),
    checkOne: t('form.check-marked', { count: 1 }),
    checkMany: t('form.check-marked', { count: 2 }),
  };
  const again = email
    ? {
        email,
        action: signInAgainAction,
        words: {
          title: t('signin.session-ended'),
          password: t('signin.password-for', { email }),
          button: t('site.sign-in'),
          busy: t('signin.busy'),
          cancel: t('signin.not-now'),
        },
      }
    : null;
  return (
    <FormWordsProvider value={words}>
      <SignInAgainProvider value={again}>{children}</SignInAgainProvider>
    </FormWordsProvider>
  );
}
