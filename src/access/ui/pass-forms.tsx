import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import type { Words } from '@/words/speak';

type Props = {
  t: Words;
  pass: { id: string; name: string; hasPassword: boolean; byAddress: boolean };
  /** The address to read on at. */
  to: string;
  actions: { byPassword: FormAction; byAddress: FormAction };
};

/** The ways to get a pass on a doorstep: its shared password, or an address that is proved by a mailed link. */
export function PassForms({ t, pass, to, actions }: Props) {
  const hidden = (
    <>
      <input type="hidden" name="pass" value={pass.id} />
      <input type="hidden" name="to" value={to} />
    </>
  );
  return (
    <>
      {pass.byAddress && (
        <ActionForm
          action={actions.byAddress}
          label={t('pass.by-address')}
          className="mt-6 grid max-w-sm gap-2"
        >
          {hidden}
          <TextField
            name="email"
            label={t('pass.by-address')}
            hint={t('pass.by-address-hint')}
            type="email"
            autoComplete="email"
            required
          />
          <FormMessage onNight />
          <SubmitButton busy={t('form.sending')} look="lamp" className="w-fit">
            {t('pass.send-link')}
          </SubmitButton>
        </ActionForm>
      )}
      {pass.hasPassword && (
        <details className="mt-5">
          <summary className="w-fit underline underline-offset-4">{t('pass.by-password')}</summary>
          <ActionForm
            action={actions.byPassword}
            label={t('pass.by-password')}
            className="mt-4 grid max-w-sm gap-3"
          >
            {hidden}
            <FormMessage onNight />
            <TextField
              name="password"
              label={t('pass.password', { name: pass.name })}
              type="password"
              autoComplete="off"
              required
            />
            <SubmitButton busy={t('signin.opening')} look="lamp" className="w-fit">
              {t('signin.continue')}
            </SubmitButton>
          </ActionForm>
        </details>
      )}
    </>
  );
}
