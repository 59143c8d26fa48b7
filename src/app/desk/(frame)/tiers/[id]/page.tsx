import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { requireStaff } from '@/app/session';
import { config } from '@/config';
import { offerSentence } from '@/core/offers/sentence';
import { pool } from '@/store/db';
import { findTier, listLadders, listOffers } from '@/store/tiers';
import { TierForm } from '@/ui/desk/tier-form';
import { KeyGlyph } from '@/ui/key-cut';
import { LinkButton } from '@/ui/kit/button';
import { saveTierAction } from '../actions';

export const metadata: Metadata = { title: 'Tier' };

export default async function TierPage({ params }: { params: Promise<{ id: string }> }) {
  await requireStaff('set tiers');
  const { id } = await params;
  const tier = id === 'new' ? null : await findTier(pool(), id);
  if (tier === undefined) notFound();
  const [ladders, offers] = [
    await listLadders(pool()),
    (await listOffers(pool())).filter((offer) => offer.tierId === tier?.id),
  ];
  return (
    <>
      <p>
        <Link href="/desk/tiers" className="text-spruce underline">
          Tiers
        </Link>
      </p>
      <h1 className="mt-1 flex items-center gap-3 text-3xl" id="desk-main">
        {tier && <KeyGlyph cut={tier.keyCut} size={28} />}
        {tier ? tier.name : 'A new tier'}
      </h1>
      <div className="mt-5 grid items-start gap-10 lg:grid-cols-[26rem_1fr]">
        <TierForm
          action={saveTierAction}
          tier={{
            id: tier?.id ?? '',
            name: tier?.name ?? '',
            description: tier?.description ?? '',
            ladder: tier?.ladderId ?? '',
            onJoinPage: tier?.onJoinPage ?? true,
          }}
          ladders={ladders}
        />
        {tier && (
          <section>
            <h2 className="text-xl">Offers</h2>
            <p className="text-muted">Each is one way to get {tier.name}.</p>
            <ul className="mt-3 grid max-w-2xl gap-3">
              {offers.map((offer) => (
                <li key={offer.id} className="rounded-card border border-line bg-surface p-4">
                  <div className="flex items-baseline justify-between gap-4">
                    <Link
                      href={`/desk/tiers/${tier.id}/offers/${offer.id}`}
                      className="font-display text-lg font-semibold hover:underline"
                    >
                      {offer.name}
                    </Link>
                    {!offer.onSale && <span className="text-ended">not on sale</span>}
                  </div>
                  <p>{offerSentence(offer.definition)}</p>
                  <p className="mt-1 text-[0.9375rem] break-all text-muted">
                    Join link:{' '}
                    <a className="underline" href={`/join/${offer.id}`}>
                      {config().SITE_URL}/join/{offer.id}
                    </a>
                  </p>
                </li>
              ))}
            </ul>
            <LinkButton
              href={`/desk/tiers/${tier.id}/offers/new`}
              look={offers.length === 0 ? 'main' : 'quiet'}
              className="mt-4"
            >
              {offers.length === 0 ? 'Make its first offer' : 'Another offer'}
            </LinkButton>
          </section>
        )}
      </div>
    </>
  );
}
