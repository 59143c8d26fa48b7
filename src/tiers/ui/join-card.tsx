import { SiteLinkButton } from '@/kit/site-link';
import type { Prose } from '@/core/content/prose';
import type { KeyCut } from '@/core/key-cut';
import type { JoiningState } from '@/core/tiers/joining';
import type { Words } from '@/words/speak';
import { KeyGlyph } from '@/kit/key-cut';
import { RichText } from '@/content/ui/rich-text';
import { joinPath } from '@/content/ui/tier-offer-card';
import type { PictureId } from '@/core/ids';

export type JoinCardTier = {
  id: string;
  name: string;
  description: Prose;
  keyCut: KeyCut;
  pictureId: PictureId | null;
  offers: { id: string; name: string; price: string; sentence: string; saving: string | null }[];
};

export type JoinCardOpens = {
  counts: { group: string; name: string; count: number; later: number }[];
  latest: { title: string; path: string }[];
};

/** A card stays readable: what is more than this is folded away. */
const OFFERS_SHOWN = 3;

type Props = {
  t: Words;
  tier: JoinCardTier;
  returnTo: string;
  state: JoiningState['state'];
  /** What of its sale is worth knowing: "12 of 30 left". */
  note: string;
  opens?: JoinCardOpens;
};

/** A tier as it is offered on the join page: what it is, what it costs, what it opens. */
export function JoinCard({ t, tier, returnTo, state, note, opens }: Props) {
  const canJoin = state === 'open' || state === 'by-code';
  const more = tier.offers.slice(OFFERS_SHOWN);
  return (
    <li className="flex flex-col overflow-hidden rounded-xl border border-line bg-surface">
      {tier.pictureId && (
        // Its size is the box's, whatever was uploaded: nothing jumps while it loads.
        // oxlint-disable-next-line nextjs/no-img-element -- kept and served by ourselves, in its final size
        <img src={`/pictures/${tier.pictureId}`} alt="" className="aspect-[5/2] w-full object-cover" />
      )}
      <div className="flex flex-1 flex-col p-6">
        <div className="flex min-h-8 items-start justify-between gap-3">
          <KeyGlyph cut={tier.keyCut} size={24} />
          {note && (
            <p
              className={
                canJoin
                  ? 'figures text-right text-[0.9375rem] font-semibold text-metered'
                  : 'text-right text-[0.9375rem] font-semibold text-ended'
              }
            >
              {note}
            </p>
          )}
        </div>
        <h2 className="mt-2 text-2xl break-words">{tier.name}</h2>
        <RichText document={tier.description} className="mt-1 grid gap-2 text-muted" />
        <ul className="mt-4 space-y-4">
          {tier.offers.slice(0, OFFERS_SHOWN).map((offer) => (
            <OfferLine key={offer.id} {...{ t, tier, offer, returnTo, canJoin }} />
          ))}
        </ul>
        {more.length > 0 && (
          <details className="mt-4 border-t border-line pt-3">
            <summary className="text-spruce underline">
              {t('join.more-offers', { count: more.length })}
            </summary>
            <ul className="mt-3 space-y-4">
              {more.map((offer) => (
                <OfferLine key={offer.id} {...{ t, tier, offer, returnTo, canJoin }} />
              ))}
            </ul>
          </details>
        )}
        {opens && opens.counts.length > 0 && <Opens t={t} opens={opens} />}
      </div>
    </li>
  );
}

type LineProps = Pick<Props, 't' | 'tier' | 'returnTo'> & {
  offer: JoinCardTier['offers'][number];
  canJoin: boolean;
};

function OfferLine({ t, tier, offer, returnTo, canJoin }: LineProps) {
  return (
    <li className="border-t border-line pt-4">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="figures font-display text-2xl font-bold first-letter:uppercase">{offer.price}</span>
        {offer.saving && <span className="font-semibold text-open">{offer.saving}</span>}
      </p>
      <p className="text-[0.9375rem] text-muted">{offer.sentence}</p>
      {canJoin && (
        <SiteLinkButton href={joinPath(offer.id, returnTo)} className="mt-3 w-full">
          {tier.offers.length > 1
            ? t('join.button-offer', { tier: tier.name, offer: offer.name })
            : t('join.button', { tier: tier.name })}
        </SiteLinkButton>
      )}
    </li>
  );
}

/** "12 now, 3 after a wait". */
export const opensWords = ({ count, later }: { count: number; later: number }, t: Words): string =>
  [
    ...(count > 0 ? [t('join.opens-now', { count })] : []),
    ...(later > 0 ? [t('join.opens-later', { count: later })] : []),
  ].join(', ');

function Opens({ t, opens }: { t: Words; opens: JoinCardOpens }) {
  return (
    <div className="pt-5 text-[0.9375rem]">
      <h3 className="border-t border-line pt-4 font-sans font-semibold">{t('join.opens')}</h3>
      <ul className="mt-1 grid gap-0.5">
        {opens.counts.map(({ group, name, count, later }) => (
          <li key={group} className="flex justify-between gap-3">
            <span>{name}</span>
            <span className="figures text-right text-muted">{opensWords({ count, later }, t)}</span>
          </li>
        ))}
      </ul>
      {opens.latest.length > 0 && (
        <p className="mt-2 text-muted">
          {t('join.opens-latest', {
            titles: t.list(opens.latest.map(({ title }) => t('join.title-quoted', { title }))),
          })}
        </p>
      )}
    </div>
  );
}
