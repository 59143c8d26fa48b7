import { randomUUID } from 'node:crypto';
import { config } from '@/config';
import { offerSentence } from '@/core/offers/sentence';
import { gatewayById } from '@/gateways';
import { pool } from '@/store/db';
import { findActiveAccount } from '@/store/gateways';
import type { Member } from '@/store/members';
import { findRunning, hasHadTrial } from '@/store/subscriptions';
import {
  findOffer,
  findOfferVersion,
  findTier,
  listOffers,
  listTiers,
  type StoredOffer,
  type Tier,
} from '@/store/tiers';
import { siteNow } from './clock';
import { quoteOffer, type Quote } from './quote-offer';
import { currentSite } from './site';

export type PreparedJoining = {
  joiningId: string;
  offer: StoredOffer;
  tier: Tier;
  otherOffers: StoredOffer[];
  sentence: string;
  skipTrial: boolean;
  quote: Quote;
  /** The gateway's card frame; null where the offer is free. */
  frame: { url: string; origin: string; gateway: string } | null;
  /** Why nobody can join by this offer now, or why this person need not. */
  obstacle: 'none' | 'held' | 'no-gateway' | 'over';
  /** The tier that stands in the way, where one is held. */
  heldTier: Tier | null;
};

/** Everything that checkout shows before a person joins; the figures are those that will be charged. */
export async function prepareJoining(
  offerId: string,
  member: Member | undefined,
): Promise<PreparedJoining | null> {
  const site = await currentSite();
  const offer = await findOffer(pool(), offerId);
  const tier = offer && (await findTier(pool(), offer.tierId));
  if (!offer?.onSale || !tier) return null;
  const track = tier.ladderId ?? tier.id;
  const skipTrial = member ? await hasHadTrial(pool(), member.id, site.mode, track) : false;
  const quote = quoteOffer(offer.definition, siteNow(site), site.zone, skipTrial);
  const account = offer.isPaid ? await findActiveAccount(pool(), site.mode) : undefined;
  const gateway = account && gatewayById(account.gateway);
  const held = member && (await findRunning(pool(), member.id, site.mode, track));
  return {
    joiningId: randomUUID(),
    offer,
    tier,
    otherOffers: (await listOffers(pool())).filter(
      (other) => other.tierId === tier.id && other.onSale && other.id !== offer.id,
    ),
    sentence: offerSentence(offer.definition, skipTrial),
    skipTrial,
    quote,
    frame:
      account && gateway
        ? { ...gateway.frame(account.siteKey, new URL(config().SITE_URL).origin), gateway: gateway.name }
        : null,
    heldTier: held ? await tierHeldBy(held.offerVersionId) : null,
    obstacle: held ? 'held' : offer.isPaid && !account ? 'no-gateway' : quote.hasAnything ? 'none' : 'over',
  };
}

/** Tiers of the join page with their offers on sale, lowest rung first. */
export async function tiersOnSale(): Promise<{ tier: Tier; offers: StoredOffer[] }[]> {
  const [tiers, offers] = [await listTiers(pool()), await listOffers(pool())];
  return tiers
    .filter((tier) => tier.onJoinPage)
    .sort((a, b) => (a.rung ?? 0) - (b.rung ?? 0) || a.position - b.position)
    .sort((a, b) => Number(a.ladderId === null) - Number(b.ladderId === null))
    .map((tier) => ({ tier, offers: offers.filter((offer) => offer.tierId === tier.id && offer.onSale) }))
    .filter(({ offers: onSale }) => onSale.length > 0);
}

async function tierHeldBy(offerVersionId: string): Promise<Tier | null> {
  const bought = await findOfferVersion(pool(), offerVersionId);
  return (bought && (await findTier(pool(), bought.tierId))) ?? null;
}
