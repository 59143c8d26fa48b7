import 'server-only';
import type { Prose } from '@/core/content/prose';
import type { KeyCut } from '@/core/key-cut';
import { offerPrice, offerSentence } from '@/words/offers';
import type { Words } from '@/words/words';
import type { StoredOffer, Tier } from '@/checkout/services/join-page';
import type { PictureId } from '@/core/ids';

/** A tier with its offers, as far as a visitor may know them. */
export type TierCard = {
  id: string;
  name: string;
  description: Prose;
  keyCut: KeyCut;
  pictureId: PictureId | null;
  offers: {
    id: string;
    name: string;
    price: string;
    sentence: string;
    isFree: boolean;
    /** "£12 less in a year", where another offer of the tier costs more. */
    saving: string | null;
    /** Where it is a switch from what the reader holds. */
    switch?: { title: string; lines: string[] };
  }[];
};

type Offered = StoredOffer & { saving?: { amount: number; percent: number } | null };

export function tierOffers(
  t: Words,
  tier: Tier,
  offers: Offered[],
  tierNames?: ReadonlyMap<string, string>,
): TierCard {
  return {
    id: tier.id,
    name: tier.name,
    description: tier.description,
    keyCut: tier.keyCut,
    pictureId: tier.pictureId,
    offers: offers.map((offer) => ({
      id: offer.id,
      name: offer.name,
      price: offerPrice(offer.definition, t),
      sentence: offerSentence(offer.definition, t, { tierNames }),
      isFree: !offer.isPaid,
      saving: offer.saving
        ? t('join.saving', { amount: t.money(offer.saving.amount, offer.definition.currency, true) })
        : null,
    })),
  };
}
