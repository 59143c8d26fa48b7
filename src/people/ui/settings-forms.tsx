import { MIN_PASSWORD } from '@/core/people/password';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { buttonClass } from '@/kit/button';
import { CloseDetails } from '@/kit/close-details';
import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';
import type { Words } from '@/words/speak';

const FORM = 'mt-3 grid max-w-md gap-4';

type DetailsProps = {
  t: Words;
  action: FormAction;
  name: string;
  invoiceWords: string;
  /** Null where nothing is taxed, and so nobody needs to know. */
  country: { code: string; all: { code: string; name: string }[] } | null;
};

export function DetailsForm({ t, action, name, invoiceWords, country }: DetailsProps) {
  return (
    <ActionForm action={action} label={t('account.details')} className={FORM}>
      <FormMessage />
      <TextField name="name" label={t('details.name')} defaultValue={name} autoComplete="name" />
      {country && (
        <SelectField
          name="country"
          label={t('details.country')}
          defaultValue={country.code}
          hint={t('details.country-hint')}
        >
          <option value="">{t('details.country-none')}</option>
          {country.all.map(({ code, name: label }) => (
            <option key={code} value={code}>
              {label}
            </option>
          ))}
        </SelectField>
      )}
      <TextArea
        name="invoiceWords"
        label={t('details.invoice')}
        defaultValue={invoiceWords}
        hint={t('details.invoice-hint')}
      />
      <SubmitButton busy={t('form.saving')} className="w-fit">
        {t('form.save')}
      </SubmitButton>
    </ActionForm>
  );
}

type PasswordProps = { t: Words; action: FormAction; hasPassword: boolean };

function YourPassword({ t, label }: { t: Words; label: string }) {
  return (
    <TextField
      name="password"
      label={label || t('signin.password')}
      type="password"
      autoComplete="current-password"
    />
  );
}

/** Another address counts once the code that is mailed to it was typed in. */
export function AddressForm({ t, action, hasPassword }: PasswordProps) {
  return (
    <ActionForm action={action} label={t('details.change-email')} className={FORM}>
      <FormMessage />
      <TextField
        name="email"
        label={t('details.new-email')}
        type="email"
        autoComplete="email"
        hint={t('details.new-email-hint')}
      />
      {hasPassword && <YourPassword t={t} label={t('signin.your-password')} />}
      <SubmitButton busy={t('form.sending')} look="quiet" className="w-fit">
        {t('signin.send-code')}
      </SubmitButton>
    </ActionForm>
  );
}

export function PasswordForm({ t, action, hasPassword }: PasswordProps) {
  const least = { least: MIN_PASSWORD };
  return (
    <ActionForm action={action} label={t('details.password')} emptyWhenDone className={FORM}>
      <FormMessage />
      {hasPassword && (
        <TextField
          name="current"
          label={t('details.current-password')}
          type="password"
          autoComplete="current-password"
        />
      )}
      <TextField
        name="next"
        label={t('details.new-password')}
        type="password"
        autoComplete="new-password"
        hint={hasPassword ? t('details.change-password-hint', least) : t('details.new-password-hint', least)}
      />
      <SubmitButton busy={t('details.changing')} look="quiet" className="w-fit">
        {hasPassword ? t('details.change-password') : t('details.set-password-button')}
      </SubmitButton>
    </ActionForm>
  );
}

/** Asked in words, and twice: this cannot be undone. */
export function DeleteAccount({ t, action, hasPassword }: PasswordProps) {
  return (
    <details className="mt-3">
      <summary className={buttonClass('bad', 'cursor-pointer list-none')}>
        {t('details.delete-start')}
      </summary>
      <ActionForm action={action} label={t('details.delete')} className={FORM}>
        <FormMessage />
        {hasPassword && <YourPassword t={t} label={t('signin.password')} />}
        <CheckField name="isSure" value="yes" label={t('details.delete-sure')} />
        <div className="flex flex-wrap gap-3">
          <SubmitButton look="bad" busy={t('details.deleting')}>
            {t('details.delete')}
          </SubmitButton>
          <CloseDetails>{t('details.delete-no')}</CloseDetails>
        </div>
      </ActionForm>
    </details>
  );
}
