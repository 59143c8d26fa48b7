import { SiteLinkButton } from '@/kit/site-link';
import type { Metadata } from 'next';
import { panelsOf } from '@/app/panels';
import { currentActor, shown, siteWords } from '@/app/session';
import { isEmpty } from '@/core/content/prose';
import { methodWords } from '@/words/methods';
import { afterCheckout } from '@/checkout/services/after-checkout';
import { KeyGlyph } from '@/kit/key-cut';
import { RichText } from '@/content/ui/rich-text';
import { PasswordForm } from '@/people/ui/settings-forms';
import { changePasswordAction } from '../../../account/settings/actions';
import type { CheckoutId } from '@/core/ids';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('done.title'),
  robots: { index: false },
});

/** After joining: the owner's words, what was paid and what comes, and the way to what they came for. */
export default async function DonePage({ params }: { params: Promise<{ checkoutId: CheckoutId }> }) {
  const { checkoutId } = await params;
  const t = await siteWords();
  const { tier, words, view, payment, onward, email, hasPassword } = await shown(
    afterCheckout(await currentActor(), checkoutId),
  );
  const { next, sentence, subscription } = view;
  const rows = [
    payment
      ? {
          what: t('done.paid-on', { date: t.date(payment.at) }),
          amount: t.money(payment.amount, payment.currency),
        }
      : { what: t('done.paid-today'), amount: t('done.nothing') },
    next
      ? {
          what: t('checkout.next-on', { date: t.date(next.at) }),
          amount: t.money(next.amount, next.currency),
        }
      : { what: t('checkout.next'), amount: t('checkout.none') },
  ];
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-8 px-5 py-12 lg:grid-cols-[1fr_22rem]">
      <div>
        <KeyGlyph cut={tier.keyCut} size={34} />
        <h1 className="mt-4 text-4xl break-words">{t('done.head', { tier: tier.name })}</h1>
        {!isEmpty(words) && (
          <RichText document={words} className="prose mt-5" panel={await panelsOf(words, onward)} />
        )}
        <div className="mt-7 flex flex-wrap gap-3">
          <SiteLinkButton href={onward} className="min-h-12 px-8 text-base">
            {onward === '/account' ? t('done.to-account') : t('done.onward')}
          </SiteLinkButton>
          {onward !== '/account' && (
            <SiteLinkButton href="/account" look="quiet" className="min-h-12 px-6 text-base">
              {t('account.title')}
            </SiteLinkButton>
          )}
        </div>
        {hasPassword ? (
          <p className="mt-8 text-muted">{t('done.sign-in-hint')}</p>
        ) : (
          <section aria-label={t('details.set-password')} className="mt-10 border-t border-line pt-6">
            <h2 className="text-xl">{t('done.password')}</h2>
            <p className="mt-1 text-muted">{t('done.password-hint')}</p>
            <PasswordForm t={t} action={changePasswordAction} hasPassword={false} />
          </section>
        )}
      </div>
      <aside
        aria-label={t('done.receipt')}
        className="figures h-fit rounded-xl border border-line bg-surface p-6"
      >
        <h2 className="text-xl">{t('done.receipt')}</h2>
        <dl className="mt-3">
          {rows.map(({ what, amount }) => (
            <div key={what} className="flex justify-between gap-4 border-t border-line py-2">
              <dt className="text-muted">{what}</dt>
              <dd className="font-semibold">{amount}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-3">{sentence}</p>
        {subscription.methodLabel && (
          <p className="mt-2 text-muted">{methodWords(subscription.methodLabel, t)}</p>
        )}
        <p className="mt-3 text-[0.9375rem] text-muted">{t('done.emailed', { email })}</p>
      </aside>
    </div>
  );
}
