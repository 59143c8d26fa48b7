import { SiteLinkButton } from '@/kit/site-link';
import type { KeyCut } from '@/core/key-cut';
import type { Words } from '@/words/speak';
import { KeyGlyph } from '@/kit/key-cut';
import type { OfferId } from '@/core/ids';

export type OfferedTier = {
  id: string;
  name: string;
  keyCut: KeyCut;
  offers: {
    id: string;
    name: string;
    sentence: string;
    isFree: boolean;
    /** Where it is a switch from what the reader holds: what it is called, what is credited, and what it costs. */
    switch?: { title: string; lines: string[] };
  }[];
};

export const joinPath = (offerId: OfferId, returnTo: string): string =>
  `/join/${offerId}?to=${encodeURIComponent(returnTo)}`;

type Props = { t: Words; tier: OfferedTier; returnTo: string; isFirst: boolean; note?: string };

/** A tier on the dark ground of the doorstep, with a way to join for each of its offers. */
export function TierOfferCard({ t, tier, returnTo, isFirst, note }: Props) {
  return (
    <div className="flex flex-col rounded-xl border border-on-night/25 p-5">
      <KeyGlyph cut={tier.keyCut} size={20} onNight />
      <h3 className="mt-2.5 text-xl break-words">{tier.name}</h3>
      {note && <p className="text-[0.9375rem] text-on-night-soft">{note}</p>}
      <ul className="mt-1 grid gap-4">
        {tier.offers.map((offer, index) => (
          <li key={offer.id}>
            <p className="text-on-night-soft">{offer.sentence}</p>
            {offer.switch?.lines.map((line) => (
              <p key={line} className="figures text-[0.9375rem] text-on-night-soft">
                {line}
              </p>
            ))}
            <SiteLinkButton
              href={joinPath(offer.id, returnTo)}
              look={isFirst && index === 0 ? 'lamp' : 'night'}
              className="mt-2 w-full"
            >
              {offer.switch
                ? offer.switch.title
                : tier.offers.length > 1
                  ? t('join.offer-alone', { offer: offer.name })
                  : offer.isFree
                    ? t('join.free')
                    : t('join.button', { tier: tier.name })}
            </SiteLinkButton>
          </li>
        ))}
      </ul>
    </div>
  );
}
