import { SiteLinkButton } from '@/kit/site-link';
import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown, siteWords } from '@/app/session';
import { safeReturn } from '@/platform/safe-return';
import { prepareCheckout } from '@/checkout/services/prepare-checkout';
import type { Words } from '@/words/words';
import { Checkout } from '../checkout';
import type { OfferId } from '@/core/ids';

type Props = { params: Promise<{ offerId: OfferId }>; searchParams: Search };

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('site.join'),
});

export default async function CheckoutPage({ params, searchParams }: Props) {
  const [{ offerId }, { to, country, mode, code, name = '' }] = [await params, await searchOf(searchParams)];
  const checkout = await shown(
    prepareCheckout(await currentActor(), { offerId, country, code, mode: mode ?? '' }),
  );
  const { prepared, page, gone, ...rest } = checkout;
  const t = await siteWords();
  if (!prepared || !page) return <Gone t={t} tierName={gone?.tierName ?? ''} />;
  return (
    <Checkout
      {...rest}
      t={t}
      prepared={prepared}
      page={page}
      returnTo={safeReturn(to ?? '/account')}
      givenName={name.trim().slice(0, 80)}
    />
  );
}

/** A link to what is no longer sold: it may be in an old mail. */
function Gone({ t, tierName: tier }: { t: Words; tierName: string }) {
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl break-words">{t('checkout.gone', { tier })}</h1>
      <p className="mt-3 text-lg">{t('checkout.gone-hint', { tier })}</p>
      <div className="mt-6 flex flex-wrap gap-3">
        <SiteLinkButton href="/join">{t('checkout.see-offers')}</SiteLinkButton>
        <SiteLinkButton href="/account" look="quiet">
          {t('account.title')}
        </SiteLinkButton>
      </div>
    </div>
  );
}
