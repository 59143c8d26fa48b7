import { figuresOfSwitch, looking, type SwitchFigures } from '@/core/billing/figures';
import { standsBeside } from '@/core/billing/joining';
import { renewableFrom, renewalAt } from '@/core/billing/renewal';
import { obstacle } from '@/core/billing/checkout';
import { waitUntil } from '@/core/billing/switch-plan';
import { runningHere, type Refusal } from '@/core/billing/work';
import type { Subscription, Track } from '@/core/billing/book';
import { isBefore, type Instant } from '@/core/instants';
import type { Period } from '@/core/offers/schedule';
import { happen, contextOf } from '@/billing/services/lib/open-book';
import type { OpenBook } from '@/billing/services/lib/opened';
import { type Account } from '@/billing/store/book-rows';
import { offerKey, versionOf } from '@/billing/store/book-from-rows';
import { findOfferVersion, type StoredOffer } from '@/tiers/store/offers';
import { findTier, type Tier } from '@/tiers/store/tiers';
import type { CheckoutId, QuoteId } from '@/core/ids';

/** What a person who may hold something already would do by joining: join, renew, switch, or nothing that can be done. */
export type CheckoutAction =
  | { kind: 'new' }
  | { kind: 'held'; subscription: Subscription; tier: Tier }
  | { kind: 'renew'; subscription: Subscription & Account; period: Period; until: Instant }
  | { kind: 'renew-later'; from: Instant; until: Instant }
  | {
      kind: 'switch';
      subscription: Subscription & Account;
      from: StoredOffer;
      fromTier: Tier;
      quoteId: QuoteId;
      figures: SwitchFigures;
    }
  | { kind: 'no-switch'; fromTier: Tier; why: Refusal; until?: Instant }
  /** Another checkout of theirs is being paid, or a charge is under way. */
  | { kind: 'busy'; why: Refusal };

/** The track of a person's subscription to a tier: its ladder, or the tier itself; where several can be held, each has a slot. */
export function placeOf(tier: Tier, checkoutId: CheckoutId): Track {
  return { track: tier.ladderId ?? tier.id, slot: tier.several ? checkoutId : '' };
}

/** What a member would do by an offer, read in their open book; where it would be a switch, its quote is stored. */
export async function actionOf(
  open: OpenBook,
  offer: StoredOffer,
  addedTax: number,
  tier: Tier,
  checkoutId: CheckoutId,
): Promise<CheckoutAction> {
  const { db, site, stored, at } = open;
  const place = placeOf(tier, checkoutId);
  const context = contextOf(site, stored);
  const work = looking(stored.book, context, at, place);
  const s = runningHere(work);
  const key = offerKey(offer.versionId, addedTax);
  const why = obstacle(work, key, checkoutId);
  const isOwn = stored.book.checkouts.some(({ id }) => id === checkoutId);
  if (!s || standsBeside(work, s)) {
    if (why === 'held' && s) return { kind: 'held', subscription: s, tier };
    return why && !(isOwn && why === 'under-way') ? busyOr(why) : { kind: 'new' };
  }
  const account = stored.accounts.get(s.id);
  const held = await findOfferVersion(db, versionOf(s.offer).versionId);
  if (!account || !held) throw new Error(`subscription ${s.id} has lost its offer`);
  const definition = stored.offers[s.offer];
  const tierId = definition?.steps[s.place.last?.step ?? 0]?.tier ?? held.tierId;
  const fromTier = (await findTier(db, tierId)) ?? tier;
  if (held.id === offer.id) {
    const from = s.disputes.length === 0 ? renewableFrom(work, s) : null;
    if (from === null || s.paidThrough === null || !['active', 'cancelling'].includes(s.state))
      return { kind: 'held', subscription: s, tier: fromTier };
    if (isBefore(at, from)) return { kind: 'renew-later', from, until: s.paidThrough };
    const period = renewalAt(work, s, s.paidThrough);
    return { kind: 'renew', subscription: { ...s, ...account }, period, until: s.paidThrough };
  }
  const until = waitUntil(work) ?? undefined;
  if (why)
    return why === 'elsewhere' || why === 'under-way'
      ? { kind: 'busy', why }
      : { kind: 'no-switch', fromTier, why, until };
  const happened = await happen(open, { do: 'quote', subscription: s.id, to: key });
  const { quote } = open.stored.book;
  const figures = quote && happened.ok ? figuresOfSwitch(open.stored.book, s, quote, context, at) : null;
  if (!happened.ok || !quote || !figures)
    return { kind: 'no-switch', fromTier, why: happened.ok ? 'nothing-left' : happened.why };
  const subscription = { ...s, ...account };
  return {
    kind: 'switch',
    subscription,
    from: { ...held, definition: definition ?? held.definition },
    fromTier,
    quoteId: quote.id,
    figures,
  };
}

const busyOr = (why: Refusal): CheckoutAction =>
  why === 'nothing-left' ? { kind: 'new' } : { kind: 'busy', why };
