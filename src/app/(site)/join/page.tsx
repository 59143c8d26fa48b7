import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown } from '@/app/session';
import { tierOffers } from '@/app/tier-cards';
import { startOfDate } from '@/core/calendar';
import { formatDate, type LocalDate } from '@/core/instants';
import { placesWords } from '@/core/tiers/joining';
import { joinPage, type JoinPageTier } from '@/checkout/services/join-page';
import { safeReturn } from '@/platform/safe-return';
import { Empty } from '@/kit/empty';
import { JoinCard } from '@/tiers/ui/join-card';
import { RhythmSwitch } from '@/checkout/ui/rhythm-switch';
import { TierComparison } from '@/access/ui/tier-comparison';

export const metadata: Metadata = { title: 'Join' };

type Props = { searchParams: Search };

export default async function JoinPage({ searchParams }: Props) {
  const { to, every } = await searchOf(searchParams);
  const page = await shown(joinPage(await currentActor(), (every ?? '').slice(0, 40)));
  const returnTo = safeReturn(to ?? '/account');
  return (
    <div className="mx-auto w-full max-w-6xl px-5 pt-10 pb-16">
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-4">
        <div>
          <h1 className="text-4xl">Join {page.siteName}</h1>
          <p className="mt-2 text-lg text-muted">
            You see every date and amount before anything is paid.
            {page.taxNote && ` ${page.taxNote}`}
          </p>
        </div>
        {page.rhythms.length > 1 && (
          <RhythmSwitch
            chosen={page.rhythm}
            choices={page.rhythms.map(({ key, name }) => ({
              key,
              name,
              href: `/join?${new URLSearchParams({ every: key, ...(to ? { to: returnTo } : {}) }).toString()}`,
            }))}
          />
        )}
      </div>
      {page.tiers.length === 0 ? (
        <div className="mt-8">
          <Empty title="Joining is not open yet">Come back soon, or write to us.</Empty>
        </div>
      ) : (
        <>
          <ul className="mt-7 grid gap-5 sm:grid-cols-2 lg:grid-cols-3">
            {page.tiers.map((each) => (
              <JoinCard
                key={each.tier.id}
                tier={tierOffers(each.tier, each.offers, page.tierNames)}
                returnTo={returnTo}
                state={each.joining.state}
                note={noteOf(each, page.zone)}
                opens={each.opens}
              />
            ))}
          </ul>
          <TierComparison
            tiers={page.tiers.map(({ tier }) => ({ id: tier.id, name: tier.name, keyCut: tier.keyCut }))}
            lines={page.comparison}
          />
        </>
      )}
    </div>
  );
}

/** What of the sale of a tier a visitor should know before choosing it. */
function noteOf({ tier, joining }: JoinPageTier, zone: string): string {
  const day = (date: LocalDate): string => formatDate(startOfDate(date, zone), zone);
  if (joining.state === 'not-yet' && tier.onSaleFrom) return `On sale from ${day(tier.onSaleFrom)}`;
  if (joining.state === 'over') return 'No longer on sale';
  if (joining.state === 'sold-out') return 'Every place is taken';
  if (joining.state === 'closed') return 'Joining is closed for now';
  return [
    joining.state === 'by-code' && 'With a code',
    placesWords(tier.places, joining.placesLeft),
    tier.onSaleUntil && `on sale until ${day(tier.onSaleUntil)}`,
  ]
    .filter(Boolean)
    .join(' · ');
}
