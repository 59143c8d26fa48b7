import type { Instant } from '@/core/calendar';
import type { Period } from '@/core/offers/schedule';
import { isBefore } from '@/core/calendar';
import {
  quoteSwitch,
  type LadderTerms,
  type Leaving,
  type Refusal,
  type SwitchQuote,
} from '@/core/subscriptions/switching';
import { renewalOf } from '@/core/subscriptions/upcoming';
import { creditSpentOn } from '@/store/credits';
import type { Db } from '@/platform/store/db';
import type { StoredOffer } from '@/store/offers';
import { findLastPaid } from '@/store/payments';
import type { Mode, Site } from '@/platform/store/site';
import { findRunning, hasSwitched, type StoredSubscription } from '@/store/subscriptions';
import { findTier, listLadders, type Tier } from '@/store/tiers';
import { termsOf } from './terms';

/** What a person who may hold something already would do by joining: join, renew, switch, or nothing that can be done. */
export type Standing =
  | { kind: 'new' }
  | { kind: 'held'; subscription: StoredSubscription; tier: Tier }
  | { kind: 'renew'; subscription: StoredSubscription; period: Period; number: number; until: Instant }
  | { kind: 'renew-later'; subscription: StoredSubscription; from: Instant; until: Instant }
  | {
      kind: 'switch';
      subscription: StoredSubscription;
      from: StoredOffer;
      fromTier: Tier;
      quote: SwitchQuote;
    }
  | { kind: 'no-switch'; fromTier: Tier; why: Refusal; until?: Instant };

/** Where a person's subscription to a tier has its place: on its ladder, or by itself; several stand side by side. */
export function placeOf(tier: Tier, joiningId: string): { track: string; slot: string } {
  return { track: tier.ladderId ?? tier.id, slot: tier.several ? joiningId : '' };
}

export async function standingOf(
  db: Db,
  site: Site,
  memberId: string,
  offer: StoredOffer,
  tier: Tier,
  now: Instant,
  mode: Mode = site.mode,
): Promise<Standing> {
  if (tier.several) return { kind: 'new' };
  const subscription = await findRunning(db, memberId, mode, tier.ladderId ?? tier.id);
  if (!subscription) return { kind: 'new' };
  const { terms, offer: held } = await termsOf(db, site, subscription);
  const fromTier =
    (await findTier(db, terms.offer.steps[subscription.period?.step ?? 0]?.tier ?? held.tierId)) ?? tier;
  if (held.id === offer.id) {
    const renewal = renewalOf(subscription, terms);
    if (!renewal) return { kind: 'held', subscription, tier: fromTier };
    const until = renewal.period.from;
    return isBefore(now, renewal.from)
      ? { kind: 'renew-later', subscription, from: renewal.from, until }
      : { kind: 'renew', subscription, period: renewal.period, number: renewal.number, until };
  }
  const answer = quoteSwitch(
    await leavingOf(db, subscription, fromTier, held),
    { rung: tier.rung ?? 0, offer: offer.definition },
    await ladderTerms(db, tier),
    now,
    site.zone,
  );
  return answer.ok
    ? { kind: 'switch', subscription, from: held, fromTier, quote: answer.quote }
    : { kind: 'no-switch', fromTier, why: answer.why, until: answer.until };
}

/** A tier off any ladder has its own offers to choose between, under the usual terms. */
async function ladderTerms(db: Db, tier: Tier): Promise<LadderTerms> {
  const ladder = (await listLadders(db)).find((candidate) => candidate.id === tier.ladderId);
  return ladder ?? { creditUnused: true, waitDays: 0, downAtOnce: false };
}

async function leavingOf(
  db: Db,
  subscription: StoredSubscription,
  tier: Tier,
  held: StoredOffer,
): Promise<Leaving> {
  const last = await findLastPaid(db, subscription.id);
  // Only what was paid for the period that runs counts: a free one has nothing to give back.
  const isCurrent = last !== undefined && last.periodTo === subscription.paidThrough;
  const spent = isCurrent ? last.paid + (await creditSpentOn(db, last.id)) - last.joiningFee : 0;
  return {
    rung: tier.rung ?? 0,
    offer: held.definition,
    state: subscription.state as Leaving['state'],
    startedAt: subscription.startedAt,
    hasSwitched: subscription.memberId
      ? await hasSwitched(db, subscription.memberId, subscription.mode, subscription.track)
      : false,
    period: isCurrent ? { step: last.step, from: last.dueAt, to: last.periodTo } : null,
    paidThrough: subscription.paidThrough,
    paid: Math.max(0, spent),
  };
}
