import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown, siteWords } from '@/app/session';
import { tierOffers } from '@/app/tier-cards';
import { startOfDate } from '@/core/calendar';
import type { LocalDate } from '@/core/instants';
import type { Words } from '@/words/words';
import { shareWithAlike } from '@/access/services/share-with-alike';
import { joinPage, type JoinPageTier } from '@/checkout/services/join-page';
import { safeReturn } from '@/platform/safe-return';
import { Empty } from '@/kit/empty';
import { SiteLink } from '@/kit/site-link';
import { JoinCard } from '@/tiers/ui/join-card';
import { RhythmSwitch } from '@/checkout/ui/rhythm-switch';
import { TierComparison } from '@/access/ui/tier-comparison';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('site.join'),
});

type Props = { searchParams: Search };

export default async function JoinPage({ searchParams }: Props) {
  const { to, every } = await searchOf(searchParams);
  await shareWithAlike(await currentActor());
  const page = await shown(joinPage(await currentActor(), (every ?? '').slice(0, 40)));
  const t = await siteWords();
  const returnTo = safeReturn(to ?? '/account');
  return (
    <div className="mx-auto w-full max-w-6xl px-5 pt-10 pb-16">
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-4">
        <div>
          <h1 className="text-4xl">{t('join.title', { site: page.siteName })}</h1>
          <p className="mt-2 text-lg text-muted">
            {[t('join.intro'), page.taxNote].filter(Boolean).join(' ')}
          </p>
        </div>
        {page.rhythms.length > 1 && (
          <RhythmSwitch
            label={t('join.rhythm')}
            chosen={page.rhythm}
            choices={page.rhythms.map(({ key, length: { n, unit } }) => ({
              key,
              name: t('join.rhythm-name', { n, unit }),
              href: `/join?${new URLSearchParams({ every: key, ...(to ? { to: returnTo } : {}) }).toString()}`,
            }))}
          />
        )}
      </div>
      {page.tiers.length === 0 ? (
        <div className="mt-8">
          <Empty title={t('join.not-open')}>{t('join.not-open-hint')}</Empty>
        </div>
      ) : (
        <>
          <ul className="mt-7 grid gap-5 sm:grid-cols-2 lg:grid-cols-3">
            {page.tiers.map((each) => (
              <JoinCard
                key={each.tier.id}
                t={t}
                tier={tierOffers(t, each.tier, each.offers, page.tierNames)}
                returnTo={returnTo}
                state={each.joining.state}
                note={noteOf(each, t)}
                opens={each.opens}
              />
            ))}
          </ul>
          <TierComparison
            t={t}
            tiers={page.tiers.map(({ tier }) => ({ id: tier.id, name: tier.name, keyCut: tier.keyCut }))}
            lines={page.comparison}
          />
          <p className="mt-8">
            <SiteLink href="/code" className="text-spruce underline">
              {t('code.have-one')}
            </SiteLink>
          </p>
        </>
      )}
    </div>
  );
}

/** What of the sale of a tier a visitor should know before choosing it. */
function noteOf({ tier, joining }: JoinPageTier, t: Words): string {
  const day = (date: LocalDate): string => t.date(startOfDate(date, t.zone));
  if (joining.state === 'not-yet' && tier.onSaleFrom)
    return t('join.sale-from', { date: day(tier.onSaleFrom) });
  if (joining.state === 'over') return t('join.sale-over');
  if (joining.state === 'sold-out') return t('join.sold-out');
  if (joining.state === 'closed') return t('join.closed');
  return [
    joining.state === 'by-code' && t('join.by-code'),
    joining.placesLeft !== null &&
      t('join.places', { left: joining.placesLeft, places: tier.places ?? joining.placesLeft }),
    tier.onSaleUntil && t('join.sale-until', { date: day(tier.onSaleUntil) }),
  ]
    .filter(Boolean)
    .join(' · ');
}
