import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown, siteWords } from '@/app/session';
import { payWords } from '@/billing/ui/pay-words';
import { PaidForm } from '@/billing/ui/paid-form';
import { productPage } from '@/checkout/services/product-page';
import { CountryPicker } from '@/checkout/ui/country-picker';
import { StartForm } from '@/checkout/ui/start-form';
import { FirstValue } from '@/kit/first-value';
import { SiteLink } from '@/kit/site-link';
import { lengthWords } from '@/words/offers';
import { rateWords } from '@/words/sheet';
import { beginAccountAction } from '@/app/begin-account-action';
import { startWords } from '@/app/start-words';
import { buyAction } from '../actions';

type Props = { params: Promise<{ productId: string }>; searchParams: Search };

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('buy.title'),
  robots: { index: false },
});

/** Where a pass or a gift card is bought. */
export default async function BuyPage({ params, searchParams }: Props) {
  const [{ productId }, { country }] = [await params, await searchOf(searchParams)];
  const [t, actor] = [await siteWords(), await currentActor()];
  const page = await shown(productPage(actor, { productId, country }));
  const { product, price, figures, tax, ways, member, holdsUntil } = page;
  const money = (amount: number): string => t.money(amount, product.currency);
  const length = product.lasts ? lengthWords(product.lasts, t) : 'none';
  const button = figures.due > 0 ? t('buy.pay', { amount: money(figures.due) }) : t('buy.by-credit');
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-6 px-5 py-10 lg:grid-cols-[1fr_22rem] lg:grid-rows-[auto_1fr]">
      <div>
        <p className="text-muted">{page.siteName}</p>
        <h1 className="mt-2 text-4xl break-words">{product.name}</h1>
        <p className="mt-3 text-lg">
          {product.kind === 'pass'
            ? t('buy.pass-words', { length })
            : t('buy.card-words', { tier: page.tierName, length })}
        </p>
        {product.kind === 'pass' && product.mostDevices !== null && (
          <p className="mt-1 text-muted">{t('buy.devices', { count: product.mostDevices })}</p>
        )}
        {holdsUntil !== undefined && (
          <p className="mt-4 rounded-md border-l-4 border-open bg-open-wash px-4 py-2.5 text-open">
            {holdsUntil ? t('buy.held-until', { date: t.until(holdsUntil) }) : t('buy.held')}
          </p>
        )}
        {member && (
          <p className="mt-3 text-muted">
            {t('checkout.signed-in-as', { who: [member.name, member.email].filter(Boolean).join(', ') })}
          </p>
        )}
      </div>
      <aside
        aria-label={t('checkout.summary')}
        className="figures h-fit rounded-xl border border-line bg-surface p-6 lg:sticky lg:top-6 lg:col-start-2 lg:row-span-2 lg:row-start-1"
      >
        <dl>
          <div className="flex items-baseline justify-between gap-4">
            <dt className="font-semibold">{t('checkout.due-today')}</dt>
            <dd className="font-display text-3xl font-bold">{money(figures.due)}</dd>
          </div>
          {price.forHolder && (
            <div className="mt-2 flex items-baseline justify-between gap-4 text-open">
              <dt>{t('buy.for-holders', { tier: page.heldTierName })}</dt>
              <dd className="font-semibold">−{money(price.forHolder.usual - price.amount)}</dd>
            </div>
          )}
          {figures.credit > 0 && (
            <div className="mt-2 flex items-baseline justify-between gap-4 text-open">
              <dt>{t('buy.credit')}</dt>
              <dd className="font-semibold">−{money(figures.credit)}</dd>
            </div>
          )}
          {tax && (
            <div className="mt-2 flex items-baseline justify-between gap-4 text-muted">
              <dt>{t('checkout.tax-in', { tax: rateWords(tax.rate, t), amount: money(figures.amount) })}</dt>
              <dd>{money(tax.amount)}</dd>
            </div>
          )}
          <div className="mt-2 flex items-baseline justify-between gap-4 border-t border-line pt-2">
            <dt className="text-muted">{t('checkout.next')}</dt>
            <dd>{t('buy.nothing-more')}</dd>
          </div>
        </dl>
        {page.countries && (
          <CountryPicker
            code={price.country}
            countries={page.countries}
            label={t('checkout.country')}
            none={t('checkout.country-none')}
          />
        )}
      </aside>
      {!page.isOnSale ? (
        <p className="h-fit rounded-md border-l-4 border-metered bg-metered-wash px-4 py-3 font-medium text-metered">
          {t('buy.not-on-sale')}{' '}
          <SiteLink href="/" className="underline">
            {t('site.to-front')}
          </SiteLink>
        </p>
      ) : member ? (
        <PaidForm
          action={buyAction}
          label={t('buy.title')}
          ways={figures.due > 0 ? ways : []}
          keptCard={null}
          words={payWords(t, ways, button, figures.due > 0)}
          button={button}
          cost={t('checkout.cost-alone', { due: money(figures.due) })}
        >
          {/* One id for as long as this page is open: pressing twice, or again after a refused card, is one purchase. */}
          <FirstValue name="purchaseId" value={page.purchaseId} />
          <input type="hidden" name="productId" value={product.id} />
          <input type="hidden" name="version" value={product.version} />
          <input type="hidden" name="country" value={price.country} />
          <input type="hidden" name="due" value={figures.due} />
        </PaidForm>
      ) : (
        <StartForm
          words={startWords(t, 'buy.title')}
          action={beginAccountAction}
          offerId=""
          to={`/buy/${product.id}${country ? `?country=${country}` : ''}`}
          name=""
          code=""
          stamp={page.stamp}
          signInHref={`/sign-in?to=${encodeURIComponent(`/buy/${product.id}`)}`}
        />
      )}
    </div>
  );
}
