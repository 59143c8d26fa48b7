import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CloseDetails } from '@/kit/close-details';
import { buttonClass } from '@/kit/button';
import { TextField } from '@/kit/field';
import type { Words } from '@/words/speak';

type Props = {
  t: Words;
  state: { isOn: boolean; left: number; pending: { typed: string; picture: string } | null };
  hasPassword: boolean;
  actions: { begin: FormAction; confirm: FormAction; renew: FormAction; end: FormAction };
};

/** One-time codes: off, being set up with an app, or on. */
export function OneTimeSettings({ t, state: { isOn, left, pending }, hasPassword, actions }: Props) {
  const password = hasPassword && (
    <TextField name="password" label={t('signin.password')} type="password" autoComplete="current-password" />
  );
  if (isOn)
    return (
      <>
        <p className="mt-2">{t('one-time.is-on', { count: left })}</p>
        <div className="mt-3 flex flex-wrap items-start gap-3">
          <details>
            <summary className={buttonClass('quiet')}>{t('one-time.renew')}</summary>
            <ActionForm
              action={actions.renew}
              emptyWhenDone
              label={t('one-time.renew')}
              className="mt-3 grid max-w-md gap-3 whitespace-pre-line"
            >
              <p>{t('one-time.renew-sure')}</p>
              {password}
              <FormMessage />
              <SubmitButton busy={t('form.moment')} className="w-fit">
                {t('one-time.renew')}
              </SubmitButton>
            </ActionForm>
          </details>
          <details>
            <summary className={buttonClass('quiet')}>{t('one-time.turn-off')}</summary>
            <ActionForm
              action={actions.end}
              label={t('one-time.turn-off')}
              className="mt-3 grid max-w-md gap-3"
            >
              <p>{t('one-time.turn-off-sure')}</p>
              {password}
              <FormMessage />
              <div className="flex flex-wrap gap-3">
                <SubmitButton busy={t('form.moment')} look="bad">
                  {t('one-time.turn-off')}
                </SubmitButton>
                <CloseDetails>{t('one-time.leave-on')}</CloseDetails>
              </div>
            </ActionForm>
          </details>
        </div>
      </>
    );
  if (pending)
    return (
      <>
        <p className="mt-2">{t('one-time.scan')}</p>
        <div className="mt-4 grid items-start gap-6 sm:grid-cols-[12rem_minmax(0,1fr)]">
          {/* Drawn by the server from a secret of its own; dark on light in any theme, for cameras. */}
          <div
            role="img"
            aria-label={t('one-time.picture')}
            className="rounded-md bg-white p-2 [&_svg]:block [&_svg]:w-full"
            dangerouslySetInnerHTML={{ __html: pending.picture }}
          />
          <div>
            <p className="text-[0.9375rem] text-muted">{t('one-time.or-type')}</p>
            <p className="figures mt-1 font-semibold [overflow-wrap:anywhere]">{pending.typed}</p>
            <ActionForm
              action={actions.confirm}
              emptyWhenDone
              label={t('one-time.title')}
              className="mt-4 grid max-w-md gap-3 whitespace-pre-line"
            >
              <TextField
                name="code"
                label={t('one-time.first-code')}
                inputMode="numeric"
                autoComplete="one-time-code"
                maxLength={12}
              />
              {password}
              <SubmitButton busy={t('signin.checking')} className="w-fit">
                {t('one-time.turn-on')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          </div>
        </div>
      </>
    );
  return (
    <>
      <p className="mt-2">{t('one-time.hint')}</p>
      <ActionForm action={actions.begin} label={t('one-time.title')} className="mt-3 grid gap-3">
        <SubmitButton busy={t('form.moment')} look="quiet" className="w-fit">
          {t('one-time.set-up')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </>
  );
}
