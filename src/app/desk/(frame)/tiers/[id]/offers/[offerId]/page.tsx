import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { requireStaff } from '@/app/session';
import { localDate } from '@/core/calendar';
import { draftOf, newStep, type OfferDraft } from '@/core/offers/draft';
import { pool } from '@/store/db';
import { findOffer, findTier, listTiers } from '@/store/tiers';
import { siteNow } from '@/services/clock';
import { currentSite } from '@/services/site';
import { OfferEditor } from '@/ui/desk/offer-editor';
import { KeyGlyph } from '@/ui/key-cut';
import { saveOfferAction } from '../../../actions';

export const metadata: Metadata = { title: 'Offer' };

export default async function OfferPage({ params }: { params: Promise<{ id: string; offerId: string }> }) {
  await requireStaff('set tiers');
  const { id, offerId } = await params;
  const tier = await findTier(pool(), id);
  const offer = offerId === 'new' ? null : await findOffer(pool(), offerId);
  if (!tier || offer === undefined || (offer && offer.tierId !== tier.id)) notFound();
  const site = await currentSite();
  const fresh: OfferDraft = {
    tier: tier.id,
    currency: site.currency,
    feeAmount: '',
    feeDue: 'first-payment',
    steps: [newStep('repeat')],
    after: 'end',
  };
  const now = siteNow(site);
  return (
    <>
      <p>
        <Link href="/desk/tiers" className="text-spruce underline">
          Tiers
        </Link>{' '}
        ·{' '}
        <Link href={`/desk/tiers/${tier.id}`} className="text-spruce underline">
          {tier.name}
        </Link>
      </p>
      <h1 className="mt-1 flex items-center gap-3 text-3xl" id="desk-main">
        <KeyGlyph cut={tier.keyCut} size={28} />
        {offer ? `${tier.name}: ${offer.name}` : `A new offer for ${tier.name}`}
      </h1>
      <OfferEditor
        action={saveOfferAction}
        offer={{
          id: offer?.id ?? '',
          name: offer?.name ?? '',
          onSale: offer?.onSale ?? true,
          version: offer?.version ?? 0,
        }}
        draft={offer ? draftOf(offer.definition) : fresh}
        tier={{ name: tier.name, description: tier.description, keyCut: tier.keyCut }}
        tiers={(await listTiers(pool()))
          .filter((other) => other.id !== tier.id)
          .map(({ id: otherId, name }) => ({ id: otherId, name }))}
        zone={site.zone}
        now={now}
        today={localDate(now, site.zone)}
      />
    </>
  );
}
