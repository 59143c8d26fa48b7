import type { OpeningPass } from '@/core/access/would-open';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { SiteLinkButton } from '@/kit/site-link';
import { lengthWords } from '@/words/offers';
import type { Words } from '@/words/speak';

type Props = {
  t: Words;
  pass: OpeningPass;
  /** The address to read on at. */
  to: string;
  actions: { byPassword: FormAction; byAddress: FormAction };
};

/** The ways to get a pass on a doorstep: to buy it, its shared password, or an address that is confirmed by a mailed link. */
export function PassForms({ t, pass, to, actions }: Props) {
  const hidden = (
    <>
      <input type="hidden" name="pass" value={pass.id} />
      <input type="hidden" name="to" value={to} />
    </>
  );
  return (
    <>
      {pass.products.map((product) => (
        <p key={product.id} className="mt-6 flex flex-wrap items-center gap-x-4 gap-y-2">
          <SiteLinkButton href={`/buy/${product.id}`} look="lamp">
            {t('pass.buy', { name: product.name, amount: t.money(product.amount, product.currency) })}
          </SiteLinkButton>
          <span>
            {t('buy.for-length', { length: product.lasts ? lengthWords(product.lasts, t) : 'none' })}
          </span>
        </p>
      ))}
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
