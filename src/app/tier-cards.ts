import 'server-only';
import type { KeyCut } from '@/core/key-cut';
import { offerPrice, offerSentence } from '@/core/offers/sentence';
import type { StoredOffer, Tier } from '@/store/tiers';

/** A tier with its offers, as far as a visitor may know them. */
export type TierCard = {
  id: string;
  name: string;
  description: string;
  keyCut: KeyCut;
  offers: { id: string; name: string; price: string; sentence: string; isFree: boolean }[];
};

export function tierOffers(tier: Tier, offers: StoredOffer[]): TierCard {
  return {
    id: tier.id,
    name: tier.name,
    description: tier.description,
    keyCut: tier.keyCut,
    offers: offers.map((offer) => ({
      id: offer.id,
      name: offer.name,
      price: offerPrice(offer.definition),
      sentence: offerSentence(offer.definition),
      isFree: !offer.isPaid,
    })),
  };
}
