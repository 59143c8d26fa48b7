import type { Metadata } from 'next';
import { cache } from 'react';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { config } from '@/platform/config';
import { draftOf, newStep, type OfferDraft } from '@/core/offers/draft';
import { offerEditor } from '@/desk/services/tier-overview';
import { OfferEditor } from '@/tiers/ui/offer-editor';
import { OfferVersions } from '@/billing/ui/offer-versions';
import { ToolRow } from '@/tiers/ui/tool-row';
import { KeyGlyph } from '@/kit/key-cut';
import { Said } from '@/kit/toasts';
import { CopyText } from '@/kit/copy-text';
import { moveMembersAction, offerToolAction, saveOfferAction } from '../../../actions';
import type { OfferId } from '@/core/ids';
import { desk } from '@/words/desk';

type Props = { params: Promise<{ id: string; offerId: OfferId }>; searchParams: Search };

/** Read once a request: for the head and for the page. */
const editorOf = cache(async (tierId: string, offerId: OfferId) =>
  offerEditor(await currentActor(), { tierId, offerId }),
);

export async function generateMetadata({ params }: Pick<Props, 'params'>): Promise<Metadata> {
  const { id: tierId, offerId } = await params;
  const found = await editorOf(tierId, offerId);
  if (!found.ok) return { title: desk('desk-tiers.offer-tiers') };
  const { tier, offer } = found.value;
  return {
    title: desk('desk-tiers.offer-title', {
      tier: tier.name,
      offer: offer?.name ?? desk('desk-tiers.new-offer'),
    }),
  };
}

export default async function OfferPage({ params, searchParams }: Props) {
  const t = await deskWords();
  await requireStaff('set tiers');
  const [{ id, offerId }, { saved }] = [await params, await searchOf(searchParams)];
  const editor = await shown(editorOf(id, offerId));
  const { tier, offer, now } = editor;
  const fresh: OfferDraft = {
    tier: tier.id,
    currency: editor.currency,
    feeAmount: '',
    feeDue: 'first-payment',
    steps: [newStep('repeat')],
    after: 'end',
    renewDays: '',
  };
  const { versions, previews } = editor.versions;
  return (
    <>
      <p>
        <Link href="/desk/tiers" className="text-spruce underline">
          {desk('desk.tiers')}
        </Link>{' '}
        ·{' '}
        <Link href={`/desk/tiers/${tier.id}`} className="text-spruce underline">
          {tier.name}
        </Link>
      </p>
      <h1 className="mt-1 flex items-center gap-3 text-3xl" id="desk-main">
        <KeyGlyph cut={tier.keyCut} size={28} />
        {offer ? `${tier.name}: ${offer.name}` : desk('desk-tiers.a-new-offer-for', { name: tier.name })}
      </h1>
      {offer && (
        <div className="mt-1 text-muted">
          <CopyText
            text={`${config().SITE_URL}/join/${offer.id}`}
            label={t('form.copy', { name: desk('desk-tiers.the-join-link') })}
            copied={t('form.copied')}
          />
        </div>
      )}
      {saved && offer && (
        <Said
          words={desk('desk-tiers.offer-saved')}
          link={{ href: `/join/${offer.id}`, words: desk('desk-tiers.view-checkout') }}
        />
      )}
      <OfferEditor
        gateways={editor.gateways}
        // Saved, it is another draft to begin from.
        key={offer ? `${offer.id}:${offer.version}` : 'new'}
        action={saveOfferAction}
        offer={{
          id: offer?.id ?? '',
          name: offer?.name ?? '',
          onSale: offer?.onSale ?? true,
          version: offer?.version ?? 0,
          holderPrices: offer?.holderPrices ?? [],
        }}
        draft={offer ? draftOf(offer.definition, t.locale) : fresh}
        tier={{
          id: tier.id,
          name: tier.name,
          description: tier.description,
          keyCut: tier.keyCut,
          pictureId: tier.pictureId,
        }}
        opens={editor.opens}
        tiers={[tier, ...editor.others.filter((other) => !other.retiredAt)].map((each) => ({
          id: each.id,
          name: each.name,
          keyCut: each.keyCut,
        }))}
        site={editor.speaking}
        now={now}
        today={editor.today}
      />
      {offer && (
        <div className="mt-10 grid max-w-4xl gap-8 border-t border-line pt-8">
          <OfferVersions
            action={moveMembersAction}
            offerId={offer.id}
            versions={versions.map(({ version, running, moving, createdAt }) => ({
              version,
              running,
              moving,
              made: t.date(createdAt),
            }))}
            previews={previews.map((preview) => ({
              ...preview,
              first: t.date(preview.first),
              last: t.date(preview.last),
            }))}
          />
          <ToolRow
            action={offerToolAction}
            what="offer"
            id={offer.id}
            name={offer.name}
            tierId={tier.id}
            isRetired={offer.retiredAt !== null}
            canDelete={editor.canDelete}
          />
        </div>
      )}
    </>
  );
}
