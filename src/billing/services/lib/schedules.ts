import type { Subscription } from '@/core/billing/book';
import { nextCharge, type Schedule } from '@/core/billing/upcoming';
import type { Instant } from '@/core/instants';
import { withTaxAdded } from '@/core/tax';
import { versionOf } from '@/billing/store/book-from-rows';
import { listSubscriptionsById, type StoredSubscription } from '@/billing/store/subscriptions';
import type { OfferVersionId } from '@/core/ids';
import { keptVersions } from '@/tiers/services/lib/kept';
import { pool, type Db } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { listOfferVersions, type StoredOffer } from '@/tiers/store/offers';

/** An offer as it was bought: with the tax on top that is added to every amount of it. */
export const asBought = (offer: StoredOffer, addedTax: number): StoredOffer =>
  addedTax === 0 ? offer : { ...offer, definition: withTaxAdded(offer.definition, addedTax) };

/** The offers of some subscriptions, and those that they go over to, by the key that they have in a book; as they were bought. */
export const offersOf = (db: Db, subscriptions: Subscription[]): Promise<Map<string, StoredOffer>> =>
  offersBy((ids) => listOfferVersions(db, ids), subscriptions);

/** The same, for pages: versions of offers are read once for each version of the site. */
export const keptOffersOf = (subscriptions: Subscription[]): Promise<Map<string, StoredOffer>> =>
  offersBy(keptVersions, subscriptions);

async function offersBy(
  read: (ids: OfferVersionId[]) => Promise<readonly StoredOffer[]>,
  subscriptions: Subscription[],
): Promise<Map<string, StoredOffer>> {
  const keys = new Set(
    subscriptions
      .flatMap(({ offer, switchesTo, movesTo }) => [offer, switchesTo, movesTo])
      .filter((key) => key !== null),
  );
  const versions = await read([...new Set([...keys].map((key) => versionOf(key).versionId))]);
  const found = new Map(versions.map((offer) => [offer.versionId, offer]));
  return new Map(
    [...keys].flatMap((key): [string, StoredOffer][] => {
      const { versionId, addedTax } = versionOf(key);
      const offer = found.get(versionId);
      return offer ? [[key, asBought(offer, addedTax)]] : [];
    }),
  );
}

/** What the coming charges of those subscriptions are worked out from. */
export const scheduleOf = ({ zone }: Pick<Site, 'zone'>, offers: Map<string, StoredOffer>): Schedule => ({
  zone,
  offers: Object.fromEntries([...offers].map(([key, offer]) => [key, offer.definition])),
});

/** The offer of one subscription, and the schedule that it is in. */
export async function boughtOf(
  db: Db,
  site: Site,
  s: StoredSubscription,
): Promise<{ offer: StoredOffer; goesOverTo: StoredOffer | null; context: Schedule }> {
  const offers = await offersOf(db, [s]);
  const offer = offers.get(s.offer);
  if (!offer) throw new Error(`no offer version ${s.offerVersionId}`);
  const next = s.switchesTo ?? s.movesTo;
  return { offer, goesOverTo: (next && offers.get(next)) || null, context: scheduleOf(site, offers) };
}

export type NextCharge = { at: Instant; amount: number; currency: string };

/** What each of the subscriptions is charged next, by their ids; those that are charged nothing more are left out. */
export const nextCharges = async (site: Site, ids: string[]): Promise<Map<string, NextCharge>> =>
  nextChargesOf(site, await listSubscriptionsById(pool(), ids));

export async function nextChargesOf(
  site: Site,
  subscriptions: StoredSubscription[],
): Promise<Map<string, NextCharge>> {
  const offers = await keptOffersOf(subscriptions);
  const context = scheduleOf(site, offers);
  const found = new Map<string, NextCharge>();
  for (const s of subscriptions) {
    const next = nextCharge(s, context);
    const currency = offers.get(s.offer)?.definition.currency;
    if (next && currency) found.set(s.id, { at: next.at, amount: next.amount, currency });
  }
  return found;
}
