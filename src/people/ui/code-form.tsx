import { SiteLink } from '@/kit/site-link';
import type { Words } from '@/words/speak';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';

type Props = { t: Words; action: FormAction; again: FormAction; back: string };

/** Takes the six digits that were mailed, and sends others on request. */
export function CodeForm({ t, action, again, back }: Props) {
  return (
    <>
      <ActionForm action={action} label={t('signin.code')} className="mt-6 grid gap-4">
        <FormMessage />
        <TextField
          name="code"
          label={t('signin.code')}
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={12}
          className="max-w-sm"
          hint={t('signin.code-hint')}
          autoFocus
          required
        />
        <SubmitButton busy={t('signin.checking')} className="min-h-12 w-fit px-8 text-base">
          {t('signin.continue')}
        </SubmitButton>
      </ActionForm>
      <ActionForm
        action={again}
        label={t('signin.new-code')}
        className="mt-8 grid gap-2 border-t border-line pt-5"
      >
        <p className="text-muted">
          {t('signin.no-email')}{' '}
          <SiteLink href={back} className="text-spruce underline">
            {t('signin.other-address')}
          </SiteLink>
        </p>
        <FormMessage />
        <SubmitButton busy={t('form.sending')} look="quiet" className="w-fit">
          {t('signin.new-code')}
        </SubmitButton>
      </ActionForm>
    </>
  );
}
