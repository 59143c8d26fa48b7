import type { Metadata } from 'next';
import Link from 'next/link';
import { requireStaff } from '@/app/session';
import { offerPrice } from '@/core/offers/sentence';
import { listTierOverview } from '@/services/tier-overview';
import { KeyGlyph } from '@/ui/key-cut';
import { buttonClass } from '@/ui/kit/button';
import { Empty } from '@/ui/kit/empty';

export const metadata: Metadata = { title: 'Tiers' };

export default async function TiersPage() {
  await requireStaff();
  const { ladders, alone } = await listTierOverview();
  return (
    <>
      <div className="flex flex-wrap items-center gap-3" id="desk-main">
        <h1 className="mr-auto text-3xl">Tiers</h1>
        <Link data-new href="/desk/tiers/new" className={buttonClass('main')}>
          Make a tier
        </Link>
      </div>
      {ladders.length + alone.length === 0 ? (
        <div className="mt-6">
          <Empty title="No tiers yet">
            A tier is what a member can hold. Make one, then say what it costs.
          </Empty>
        </div>
      ) : (
        <div className="mt-5 flex flex-wrap items-start gap-10">
          {ladders.map(({ ladder, tiers }) => (
            <section key={ladder.id} className="w-full max-w-lg">
              <h2 className="text-xl">Ladder: {ladder.name}</h2>
              <p className="text-muted">A member holds one of these at a time; up is on top.</p>
              {/* The rails of a ladder stand beside its rungs. */}
              <ul className="mt-3 border-x-4 border-line px-4 py-1">
                {tiers.map((tier) => (
                  <TierRow key={tier.id} tier={tier} isRung />
                ))}
              </ul>
            </section>
          ))}
          {alone.length > 0 && (
            <section className="w-full max-w-lg">
              <h2 className="text-xl">On their own</h2>
              <p className="text-muted">Held beside any other.</p>
              <ul className="mt-3 divide-y divide-line border-y border-line">
                {alone.map((tier) => (
                  <TierRow key={tier.id} tier={tier} />
                ))}
              </ul>
            </section>
          )}
        </div>
      )}
    </>
  );
}

type Overview = Awaited<ReturnType<typeof listTierOverview>>['alone'][number];

function TierRow({ tier, isRung = false }: { tier: Overview; isRung?: boolean }) {
  return (
    <li className={isRung ? 'my-2 border-t-4 border-line bg-surface px-4 py-3' : 'py-3'}>
      <div className="flex items-center gap-3">
        <KeyGlyph cut={tier.keyCut} size={20} />
        <Link href={`/desk/tiers/${tier.id}`} className="font-display text-lg font-semibold hover:underline">
          {tier.name}
        </Link>
        <span className="ml-auto text-muted">
          {tier.holders === 1 ? '1 member' : `${tier.holders} members`}
        </span>
      </div>
      <p className="figures mt-0.5 text-muted">
        {tier.offers.length === 0 ? (
          <span className="text-closed">no offer yet: nobody can join</span>
        ) : (
          tier.offers.map((offer) => offerPrice(offer.definition)).join(' · ')
        )}
        {!tier.onJoinPage && ' · not on the join page'}
      </p>
    </li>
  );
}
