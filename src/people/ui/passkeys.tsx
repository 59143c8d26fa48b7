import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { buttonClass } from '@/kit/button';
import { CloseDetails } from '@/kit/close-details';
import { TextField } from '@/kit/field';
import type { Words } from '@/words/speak';
import type { Instant } from '@/core/instants';
import { PasskeyForm, type AskToMake, type AskToShow, type PasskeyWords } from './passkey-form';

const passkeyWords = (t: Words): PasskeyWords => ({
  cancelled: t('passkey.cancelled'),
  haveOne: t('passkey.have-one'),
  noSupport: t('passkey.no-support'),
  elsewhere: t('passkey.elsewhere', { origin: '{origin}' }),
});

type Props = {
  t: Words;
  passkeys: { id: string; name: string; at: Instant; usedAt: Instant | null }[];
  hasPassword: boolean;
  ask: AskToMake;
  add: FormAction;
  remove: FormAction;
};

/** One's own passkeys: each can be removed, and another added. */
export function Passkeys({ t, passkeys, hasPassword, ask, add, remove }: Props) {
  const password = hasPassword && (
    <TextField name="password" label={t('signin.password')} type="password" autoComplete="current-password" />
  );
  return (
    <>
      <p className="mt-2">{t('passkey.hint')}</p>
      {passkeys.length > 0 && (
        <ul className="mt-3 divide-y divide-line border-y border-line">
          {passkeys.map(({ id, name, at, usedAt }) => (
            <li key={id} className="flex flex-wrap items-start justify-between gap-3 py-3">
              <div className="min-w-0 flex-1 basis-56">
                <p className="font-semibold [overflow-wrap:anywhere]">{name}</p>
                <p className="figures text-[0.9375rem] text-muted">
                  {t('passkey.facts', { added: t.date(at), used: usedAt ? t.date(usedAt) : 'never' })}
                </p>
              </div>
              <details>
                <summary className={buttonClass('quiet')}>
                  {t('passkey.remove')}
                  <span className="sr-only"> {name}</span>
                </summary>
                <ActionForm
                  action={remove}
                  label={t('passkey.remove-this', { name })}
                  className="mt-3 grid max-w-md gap-3"
                >
                  <p>{t('passkey.remove-sure')}</p>
                  <input type="hidden" name="id" value={id} />
                  {password}
                  <FormMessage />
                  <div className="flex flex-wrap gap-3">
                    <SubmitButton busy={t('form.moment')} look="bad">
                      {t('passkey.remove')}
                    </SubmitButton>
                    <CloseDetails>{t('passkey.keep')}</CloseDetails>
                  </div>
                </ActionForm>
              </details>
            </li>
          ))}
        </ul>
      )}
      <details className="mt-3">
        <summary className={buttonClass('quiet')}>{t('passkey.add')}</summary>
        <PasskeyForm
          way="make"
          ask={ask}
          finish={add}
          words={passkeyWords(t)}
          label={t('passkey.add')}
          emptyWhenDone
          className="mt-3 grid max-w-md gap-3"
        >
          <TextField
            name="name"
            label={t('passkey.name')}
            hint={t('passkey.name-hint')}
            maxLength={80}
            autoComplete="off"
          />
          {password}
          <FormMessage />
          <SubmitButton busy={t('passkey.adding')} className="w-fit">
            {t('passkey.add')}
          </SubmitButton>
        </PasskeyForm>
      </details>
    </>
  );
}

/** Signs in by a passkey, without a name or a password, and continues at `to`. */
export function SignInByPasskey({
  t,
  ask,
  signIn,
  to,
}: {
  t: Words;
  ask: AskToShow;
  signIn: FormAction;
  to: string;
}) {
  return (
    <PasskeyForm
      way="show"
      ask={ask}
      finish={signIn}
      words={passkeyWords(t)}
      label={t('passkey.sign-in')}
      className="mt-3 grid max-w-sm gap-3"
    >
      <input type="hidden" name="to" value={to} />
      <SubmitButton busy={t('passkey.adding')} look="quiet">
        {t('passkey.sign-in')}
      </SubmitButton>
      <FormMessage />
    </PasskeyForm>
  );
}
