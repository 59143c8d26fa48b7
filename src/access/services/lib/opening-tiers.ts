import type { Question } from '@/core/access/decide';
import { tiersThatWouldOpen } from '@/core/access/would-open';
import { localDate } from '@/core/calendar';
import { joiningState, joiningTerms } from '@/core/tiers/joining';
import { type StoredOffer } from '@/tiers/store/offers';
import { type Tier } from '@/tiers/store/tiers';
import type { Reader } from './reader';
import { keptOffers, keptTiers } from '@/tiers/services/lib/kept';

export type OpeningTier = { tier: Tier; offers: StoredOffer[]; at: 'once' | 'later' };
/** A tier that people can join, with its offers on sale. */
export type JoinableTier = Omit<OpeningTier, 'at'>;

/** The tiers that someone can join now, the highest first. */
export async function joinableTiers({ now, site }: Reader): Promise<JoinableTier[]> {
  const [tiers, offers] = [await keptTiers(), await keptOffers()];
  const today = localDate(now, site.zone);
  const canJoin = (tier: Tier): boolean => {
    const { state } = joiningState(joiningTerms(site, tier), 0, today);
    return state === 'open' || state === 'by-code';
  };
  return tiers
    .filter((tier) => tier.onJoinPage && canJoin(tier))
    .map((tier) => ({ tier, offers: offers.filter((offer) => offer.tierId === tier.id && offer.onSale) }))
    .filter((one) => one.offers.length > 0)
    .reverse();
}

/** Those of them that would open what is asked about, and that the person does not hold. */
export function openingTiers(question: Question, joinable: JoinableTier[]): OpeningTier[] {
  const held = new Set(question.person.tiers.map((tier) => tier.tier));
  const candidates = joinable
    .filter(({ tier }) => !held.has(tier.id))
    .map(({ tier, offers }) => ({ tier: tier.id, paid: offers.some((offer) => offer.isPaid) }));
  return tiersThatWouldOpen(question, candidates).flatMap(({ tier: id, at }) => {
    const found = joinable.find(({ tier }) => tier.id === id);
    return found ? [{ ...found, at }] : [];
  });
}
