import { SiteLinkButton } from '@/kit/site-link';
import type { Metadata } from 'next';
import { currentActor, shown, siteWords } from '@/app/session';
import { methodWords } from '@/words/methods';
import { methodChoices } from '@/billing/services/method-choices';
import { ChangeMethodForm } from '@/billing/ui/change-method-form';
import { changeMethodAction } from '../../actions';
import type { SubscriptionId } from '@/core/ids';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('method.title'),
  robots: { index: false },
});

/** How a subscription is paid from now on; what is owed is charged at once. */
export default async function PayPage({ params }: { params: Promise<{ subscriptionId: SubscriptionId }> }) {
  const { subscriptionId } = await params;
  const choices = await shown(methodChoices(await currentActor(), subscriptionId));
  const t = await siteWords();
  const { name, owed, next, needsApproval, ways } = choices;
  const amount = owed && t.money(owed.amount, owed.currency);
  const method = choices.methodLabel && methodWords(choices.methodLabel, t);
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl">{t('method.head', { tier: name })}</h1>
      <p className="figures mt-3 text-lg">
        {amount
          ? t('method.owed', { amount })
          : next
            ? t('method.next', { amount: t.money(next.amount, next.currency), date: t.date(next.at) })
            : t('method.nothing')}
      </p>
      {needsApproval && (
        <p className="mt-3 rounded-md bg-metered-wash px-4 py-3 text-metered">
          {t('method.approve', { method: method ?? t('subscription.your-wallet') })}
        </p>
      )}
      {method && <p className="text-muted">{t('method.current', { method })}</p>}
      <div className="mt-6">
        {ways.length > 0 ? (
          <ChangeMethodForm
            t={t}
            action={changeMethodAction}
            subscriptionId={subscriptionId}
            ways={ways}
            button={amount ? t('method.pay', { amount }) : t('method.use')}
          />
        ) : (
          <p>{t('method.none')}</p>
        )}
      </div>
      <SiteLinkButton href="/account" look="quiet" className="mt-6">
        {t('method.back')}
      </SiteLinkButton>
    </div>
  );
}
