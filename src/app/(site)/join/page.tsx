import type { Metadata } from 'next';
import { tierOffers } from '@/app/tier-cards';
import { tiersOnSale } from '@/services/prepare-joining';
import { safeReturn } from '@/services/safe-return';
import { currentSite } from '@/services/site';
import { Empty } from '@/ui/kit/empty';
import { JoinCard } from '@/ui/site/join-card';

export const metadata: Metadata = { title: 'Join' };

export default async function JoinPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const { to } = await searchParams;
  const [site, tiers] = [await currentSite(), await tiersOnSale()];
  return (
    <div className="mx-auto w-full max-w-5xl px-5 py-12">
      <h1 className="text-4xl">Join {site.name}</h1>
      {tiers.length === 0 ? (
        <div className="mt-8">
          <Empty title="Joining is not open yet">Come back soon, or write to us.</Empty>
        </div>
      ) : (
        <>
          <p className="mt-2 text-lg text-muted">
            Choose what you want to hold. You see every date and amount before anything is paid.
          </p>
          <ul className="mt-8 grid gap-5 sm:grid-cols-2 lg:grid-cols-3">
            {tiers.map(({ tier, offers }) => (
              <JoinCard
                key={tier.id}
                tier={tierOffers(tier, offers)}
                returnTo={safeReturn(to ?? '/account')}
              />
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
