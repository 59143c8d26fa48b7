import type { Words } from '@/words/speak';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';

/** Signs in within the page, and continues at `to`. */
export function SignInForm({
  t,
  action,
  to,
  onNight = false,
}: {
  t: Words;
  action: FormAction;
  to: string;
  onNight?: boolean;
}) {
  return (
    <ActionForm action={action} label={t('signin.title')} className="mt-4 grid max-w-sm gap-4">
      <FormMessage onNight={onNight} />
      <input type="hidden" name="to" value={to} />
      <TextField name="email" label={t('signin.email')} type="email" autoComplete="username" required />
      <TextField
        name="password"
        label={t('signin.password')}
        type="password"
        autoComplete="current-password"
        required
      />
      <SubmitButton busy={t('signin.busy')} look={onNight ? 'lamp' : 'main'}>
        {t('site.sign-in')}
      </SubmitButton>
    </ActionForm>
  );
}

/** Signs in without a password: a code is mailed. */
export function AskForCode({ t, action, to }: { t: Words; action: FormAction; to: string }) {
  return (
    <details className="mt-6">
      <summary className="w-fit list-none text-spruce underline">{t('signin.by-code')}</summary>
      <ActionForm action={action} label={t('signin.by-code')} className="mt-3 grid gap-3">
        <input type="hidden" name="to" value={to} />
        <TextField name="email" label={t('signin.code-email')} type="email" autoComplete="username" />
        <SubmitButton busy={t('form.sending')} look="quiet" className="w-fit">
          {t('signin.send-code')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </details>
  );
}

/** Uses a mailed link up, by a press of a button: programs that read mail open links too. */
export function UseLink({ t, action, token }: { t: Words; action: FormAction; token: string }) {
  return (
    <ActionForm action={action} className="mt-4 grid gap-3">
      <input type="hidden" name="token" value={token} />
      <FormMessage />
      <SubmitButton busy={t('signin.opening')} className="w-fit">
        {t('signin.continue')}
      </SubmitButton>
    </ActionForm>
  );
}
