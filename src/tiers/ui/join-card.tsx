import type { Prose } from '@/core/content/prose';
import type { KeyCut } from '@/core/key-cut';
import type { JoiningState } from '@/core/tiers/joining';
import { KeyGlyph } from '@/kit/key-cut';
import { LinkButton } from '@/kit/button';
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

type Props = {
  tier: JoinCardTier;
  returnTo: string;
  state: JoiningState['state'];
  /** What of its sale is worth knowing: "12 of 30 left". */
  note: string;
  opens?: JoinCardOpens;
};

/** A tier as it is offered on the join page: what it is, what it costs, what it opens. */
export function JoinCard({ tier, returnTo, state, note, opens }: Props) {
  const canJoin = state === 'open' || state === 'by-code';
  return (
    <li className="flex flex-col overflow-hidden rounded-xl border border-line bg-surface">
      {tier.pictureId && (
        // Its size is the box's, whatever was uploaded: nothing jumps while it loads.
        // eslint-disable-next-line @next/next/no-img-element -- kept and served by ourselves, in its final size
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
          {tier.offers.map((offer) => (
            <li key={offer.id} className="border-t border-line pt-4">
              <p className="flex flex-wrap items-baseline gap-x-3">
                <span className="figures font-display text-2xl font-bold first-letter:uppercase">
                  {offer.price}
                </span>
                {offer.saving && <span className="font-semibold text-open">{offer.saving}</span>}
              </p>
              <p className="text-[0.9375rem] text-muted">{offer.sentence}</p>
              {canJoin && (
                <LinkButton href={joinPath(offer.id, returnTo)} className="mt-3 w-full">
                  {tier.offers.length > 1
                    ? `Join ${tier.name}: ${offer.name.toLowerCase()}`
                    : `Join ${tier.name}`}
                </LinkButton>
              )}
            </li>
          ))}
        </ul>
        {opens && opens.counts.length > 0 && <Opens opens={opens} />}
      </div>
    </li>
  );
}

function Opens({ opens }: { opens: JoinCardOpens }) {
  return (
    <div className="pt-5 text-[0.9375rem]">
      <h3 className="border-t border-line pt-4 font-sans font-semibold">What it opens</h3>
      <ul className="mt-1 grid gap-0.5">
        {opens.counts.map(({ group, name, count, later }) => (
          <li key={group} className="flex justify-between gap-3">
            <span>{name}</span>
            <span className="figures text-right text-muted">
              {[count > 0 && `${count} now`, later > 0 && `${later} after a wait`].filter(Boolean).join(', ')}
            </span>
          </li>
        ))}
      </ul>
      {opens.latest.length > 0 && (
        <p className="mt-2 text-muted">Latest: {opens.latest.map(({ title }) => `“${title}”`).join(', ')}</p>
      )}
    </div>
  );
}
