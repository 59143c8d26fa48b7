import { randomUUID } from 'node:crypto';
import { localDate, type Instant } from '@/core/calendar';
import { quoteOffer, type Quote } from '@/core/offers/quote';
import { offerSentence } from '@/core/offers/sentence';
import { fieldsOfTier, type JoinField } from '@/core/tiers/join-fields';
import { joiningState, type JoiningState } from '@/core/tiers/joining';
import { insertQuote } from '@/store/credits';
import { pool } from '@/platform/store/db';
import { listJoinFields } from '@/store/join-fields';
import { findOpenJoining } from '@/store/joinings';
import type { Member } from '@/store/members';
import { findOffer, listOffers, type StoredOffer } from '@/store/offers';
import type { Site } from '@/platform/store/site';
import { hasHadTrial } from '@/store/subscriptions';
import { countPlacesTaken, findTier, listTierNames, type Tier } from '@/store/tiers';
import { siteNow } from '@/platform/clock';
import { formStamp } from '@/platform/guard-form';
import { currentSite, inMode, joiningMode } from '@/platform/site';
import { toWay, waysToPay, type WayToPay } from '@/services/lib/ways-to-pay';
import { placeOf, standingOf, type Standing } from '@/services/lib/standing';
import { priceOffer, type Pricing } from '@/services/lib/terms';

export type PreparedJoining = {
  joiningId: string;
  /** What was typed before, where a checkout that was left is taken up again. */
  typed: { answers: Record<string, string> } | null;
  /** Whether staff of a live site try it in test mode. */
  isTry: boolean;
  /** What tax is in the amounts, and for which country. */
  pricing: Pricing;
  /** The signed moment at which the form was shown. */
  stamp: string;
  offer: StoredOffer;
  tier: Tier;
  otherOffers: StoredOffer[];
  sentence: string;
  skipTrial: boolean;
  quote: Quote;
  standing: Standing;
  /** The stored quote, where this would be a switch. */
  quoteId: string | null;
  fields: JoinField[];
  joining: JoiningState;
  /** How it can be paid, in the owner's order; none where the offer is free. */
  ways: WayToPay[];
  /** The card of the running subscription, which can be kept. */
  keptCard: { accountId: string; label: string } | null;
  /** Why no one can join by this offer now. */
  obstacle: 'none' | 'no-gateway' | 'over';
};

/** Everything that checkout shows before a person joins; the figures are those that will be charged. */
export async function prepare(
  offerId: string,
  member: Member | undefined,
  country: string = member?.country ?? '',
  mode: '' | 'test' = '',
): Promise<PreparedJoining | null> {
  const own = await currentSite();
  const site = inMode(own, joiningMode(own, { staffRole: member?.staffRole ?? null }, mode));
  const now = siteNow(site);
  const listed = await findOffer(pool(), offerId);
  const tier = listed && (await findTier(pool(), listed.tierId));
  if (!listed?.onSale || !tier || tier.retiredAt) return null;
  const pricing = priceOffer(site, listed, country);
  const { offer } = pricing;
  const { track } = placeOf(tier, '');
  const skipTrial = member ? await hasHadTrial(pool(), member.id, site.mode, track) : false;
  const quote = quoteOffer(offer.definition, now, site.zone, skipTrial);
  const standing: Standing = member
    ? await standingOf(pool(), site, member.id, offer, tier, now)
    : { kind: 'new' };
  const isSwitch = standing.kind === 'switch';
  const subscription = 'subscription' in standing ? standing.subscription : null;
  const accounts = offer.isPaid ? await waysToPay(site, offer) : [];
  const keptOn = accounts.find(({ id }) => id === subscription?.gatewayAccountId);
  const begun = member && (await findOpenJoining(pool(), member.id, offer.id, site.mode));
  return {
    joiningId: begun?.id ?? randomUUID(),
    typed: begun
      ? { answers: Object.fromEntries(begun.answers.map(({ fieldId, value }) => [fieldId, value])) }
      : null,
    isTry: site.mode !== own.mode,
    pricing,
    stamp: formStamp(),
    offer,
    tier,
    otherOffers: (await listOffers(pool())).filter(
      (other) => other.tierId === tier.id && other.onSale && other.id !== offer.id,
    ),
    sentence: offerSentence(offer.definition, {
      skipTrial: skipTrial || isSwitch,
      skipFee: isSwitch,
      tierNames: await listTierNames(pool()),
    }),
    skipTrial,
    quote,
    standing,
    quoteId: member ? await storeQuote(member.id, standing, offer, now) : null,
    fields: fieldsOfTier(await listJoinFields(pool()), tier.id),
    joining: await joiningStateOf(site, tier, now),
    ways: accounts.map(toWay),
    keptCard:
      keptOn && subscription?.methodRef && toWay(keptOn).nature === 'card'
        ? { accountId: keptOn.id, label: subscription.methodLabel ?? '' }
        : null,
    obstacle: offer.isPaid && accounts.length === 0 ? 'no-gateway' : quote.hasAnything ? 'none' : 'over',
  };
}

/** Whether people can join the tier today, with the places that are left. */
export async function joiningStateOf(site: Site, tier: Tier, now: Instant): Promise<JoiningState> {
  const taken = tier.places === null ? 0 : await countPlacesTaken(pool(), tier.id, site.mode, now, null);
  return joiningState({ ...tier, isRetired: tier.retiredAt !== null }, taken, localDate(now, site.zone));
}

/** The quote shown is the quote charged: it is kept with its instant and the subscription's count of events. */
export async function storeQuote(
  memberId: string,
  standing: Standing,
  offer: StoredOffer,
  now: Instant,
): Promise<string | null> {
  if (standing.kind !== 'switch') return null;
  const { subscription, quote } = standing;
  return insertQuote(pool(), {
    memberId,
    subscriptionId: subscription.id,
    mode: subscription.mode,
    offerVersionId: offer.versionId,
    direction: quote.direction,
    at: now,
    events: subscription.events,
    startsAt: quote.startsAt,
    credit: quote.credit,
  });
}
