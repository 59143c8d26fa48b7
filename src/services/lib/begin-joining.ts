import { config } from '@/config';
import { localDate, type Instant } from '@/core/calendar';
import { nextPeriod, type Period } from '@/core/offers/schedule';
import type { JoinAnswer } from '@/core/tiers/join-fields';
import { joiningState } from '@/core/tiers/joining';
import { endAgreementsOf } from '@/store/agreements';
import type { StoredQuote } from '@/store/credits';
import { lock, transaction, type Transaction } from '@/platform/store/db';
import type { GatewayAccount } from '@/store/gateways';
import type { JoiningCode } from '@/store/joining-codes';
import {
  claimJoining,
  findJoining,
  insertJoining,
  isBeingPaid,
  type Joining,
  type TypedJoining,
} from '@/store/joinings';
import { findMemberByEmail, type Member } from '@/store/members';
import type { StoredOffer } from '@/store/offers';
import { findOpenPayment } from '@/store/payments';
import type { Mode, Site } from '@/platform/store/site';
import {
  findRunning,
  hasHadTrial,
  insertPending,
  lockSubscription,
  setPendingTerms,
  type StoredSubscription,
} from '@/store/subscriptions';
import { countPlacesTaken, type Tier } from '@/store/tiers';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { placeOf } from './standing';

/** What is joined, and how it is paid for. */
export type JoinPlan = {
  site: Site;
  /** With the tax on top, where it is added. */
  offer: StoredOffer;
  country: string;
  addedTax: number;
  tier: Tier;
  account: GatewayAccount | undefined;
  code: JoiningCode | null;
  /** Where this is a switch: what it was said to cost, and what it takes the place of. */
  quote: StoredQuote | null;
  replaces: StoredSubscription | null;
};
/** `approve`: the person continues at the wallet; `transfer`: they send money. */
export type Joined = { state: 'done' } | { state: 'approve'; url: string } | { state: 'transfer' };

/**
 * Why a person must not be charged for a place now: it is held already, or another window is paying. Null: nothing
 * stands against it. The caller holds the lock "join", address, track until the intent to charge is written.
 */
export async function whyNotToPay(
  db: Transaction,
  joiningId: string,
  who: {
    email: string;
    mode: Mode;
    track: string;
    slot: string;
    tierName: string;
    replacesId: string | null;
  },
): Promise<string | null> {
  const member = await findMemberByEmail(db, who.email);
  const running = member && (await findRunning(db, member.id, who.mode, who.track, who.slot));
  if (running && running.id !== who.replacesId)
    return `You hold ${who.tierName} or another tier of its ladder already. Your account shows it.`;
  if (running && (await findOpenPayment(db, running.id)))
    return 'A payment for what you hold is under way. Try again in a minute.';
  if (await isBeingPaid(db, who.email, who.mode, who.track, joiningId)) {
    return 'A payment of yours is under way in another window. Let that one finish.';
  }
  return null;
}

export type Begun = { joining: Joining; period: Period };

/** How the new subscription begins: where it stands, from when, and without what. */
type Beginning = { at: Instant; skipTrial: boolean; skipFee: boolean };

/** Takes the joining for this try, alone: one person, one place, one payment at a time. */
export async function beginJoining(
  actor: Actor,
  plan: JoinPlan,
  member: Member,
  answers: JoinAnswer[],
  input: { joiningId: string; returnTo: string },
): Promise<Result<Begun | 'busy' | 'done'>> {
  const { site, offer, tier, account, quote } = plan;
  const now = siteNow(site);
  const place = placeOf(tier, input.joiningId);
  return transaction(async (db) => {
    await lock(db, 'join', member.email, place.track);
    const known = await findJoining(db, input.joiningId);
    // The first press of the button may have been recorded since it was looked at: what stands against a second joining
    // is then the first one itself.
    const refuse = async (field: string, words: string): Promise<Result<Begun | 'busy' | 'done'>> =>
      (await findJoining(db, input.joiningId))?.state === 'done' ? done('done') : refusedField(field, words);
    if (known && known.memberId !== member.id) {
      await record(db, actor, now, 'another member’s checkout refused', `joining:${known.id}`);
      return refusedField('', 'This page was opened by someone else. Load it again; nothing was charged.');
    }
    if (known?.state === 'done') return done('done');
    if (known && known.mode !== site.mode)
      return refusedField(
        '',
        'This page was opened before the site went live. Load it again; nothing was charged.',
      );
    if (known?.state === 'expired')
      return refusedField(
        '',
        'This joining was left for too long. Load the page again; nothing was charged.',
      );
    const against = await whyNotToPay(db, input.joiningId, {
      ...place,
      email: member.email,
      mode: site.mode,
      tierName: tier.name,
      replacesId: plan.replaces?.id ?? null,
    });
    if (against) return refuse('', against);
    const staysInTier = plan.replaces !== null && plan.replaces.offerVersionId === offer.versionId;
    const full = staysInTier ? null : await whyFull(db, site, tier, input.joiningId, now);
    if (full) return refuse('', full);
    const beginning: Beginning = {
      at: quote?.startsAt ?? now,
      skipFee: plan.replaces !== null,
      skipTrial: plan.replaces !== null || (await hasHadTrial(db, member.id, site.mode, place.track)),
    };
    const period = firstPeriod(plan, beginning);
    if (!period)
      return refusedField(
        '',
        'Nothing of this offer is left: its dates have passed. Choose another on the join page.',
      );
    const typed: TypedJoining = {
      answers,
      codeId: plan.code?.id ?? null,
      replacesId: plan.replaces?.id ?? null,
      quoteId: quote?.id ?? null,
    };
    if (known) return resume(db, known, plan, typed, beginning);
    const subscription = await insertPending(db, {
      memberId: member.id,
      mode: site.mode,
      ...place,
      offerVersionId: offer.versionId,
      startedAt: beginning.at,
      skipTrial: beginning.skipTrial,
      skipFee: beginning.skipFee,
      gatewayAccountId: account?.id ?? null,
      taxCountry: plan.country,
      addedTax: plan.addedTax,
    });
    const joining = await insertJoining(
      db,
      {
        id: input.joiningId,
        subscriptionId: subscription.id,
        offerId: offer.id,
        track: place.track,
        mode: site.mode,
        memberId: member.id,
        email: member.email,
        name: member.name,
        returnTo: safeReturn(input.returnTo),
        at: now,
        ...typed,
      },
      config().LEASE_SECONDS,
    );
    return done({ joining, period });
  });
}

function firstPeriod({ offer, site }: JoinPlan, { at, skipTrial, skipFee }: Beginning): Period | undefined {
  const definition = skipFee ? { ...offer.definition, joiningFee: undefined } : offer.definition;
  return nextPeriod(definition, at, site.zone, skipTrial, null);
}

/** Whether every place is taken, counted under a lock of the tier: the last place goes to one person. */
export async function whyFull(
  db: Transaction,
  site: Site,
  tier: Tier,
  joiningId: string,
  now: Instant,
): Promise<string | null> {
  if (tier.places === null) return null;
  await lock(db, 'places', tier.id);
  const taken = await countPlacesTaken(db, tier.id, site.mode, now, joiningId);
  const { state } = joiningState({ ...tier, isRetired: false }, taken, localDate(now, site.zone));
  return state === 'sold-out'
    ? `The last place of ${tier.name} has just been taken. Nothing was charged.`
    : null;
}

async function resume(
  db: Transaction,
  known: Joining,
  plan: JoinPlan,
  typed: TypedJoining,
  beginning: Beginning,
): Promise<Result<Begun | 'busy'>> {
  const joining = await claimJoining(db, known.id, typed, config().LEASE_SECONDS);
  if (!joining) return done('busy');
  const subscription = await lockSubscription(db, joining.subscriptionId);
  if (!subscription || joining.offerId !== plan.offer.id) {
    return refusedField('', 'This page belongs to another offer. Load it again; nothing was charged.');
  }
  // A payment still open keeps its instant and its price: the answer to it belongs to what was asked then.
  if (await findOpenPayment(db, subscription.id)) {
    const { startedAt: at, skipTrial, skipFee } = subscription;
    const asked = firstPeriod(plan, { at, skipTrial, skipFee });
    if (asked) return done({ joining, period: asked });
  }
  await setPendingTerms(db, subscription.id, {
    offerVersionId: plan.offer.versionId,
    startedAt: beginning.at,
    skipTrial: beginning.skipTrial,
    skipFee: beginning.skipFee,
    gatewayAccountId: plan.account?.id ?? null,
    taxCountry: plan.country,
    addedTax: plan.addedTax,
  });
  const period = firstPeriod(plan, beginning);
  return period
    ? done({ joining, period })
    : refusedField('', 'Nothing of this offer is left: its dates have passed.');
}

/**
 * Locks a checkout up to the written intent to charge: no other checkout of this person passes meanwhile. What was asked
 * of a wallet before, and not approved, ends. Refused where something stands against the charge.
 */
export async function lockToPay(
  db: Transaction,
  { tier }: JoinPlan,
  joining: Joining,
): Promise<Result<StoredSubscription>> {
  await lock(db, 'join', joining.email, joining.track);
  const { slot } = placeOf(tier, joining.id);
  const against = await whyNotToPay(db, joining.id, { ...joining, slot, tierName: tier.name });
  if (against) return refusedField('', against);
  const subscription = await lockSubscription(db, joining.subscriptionId);
  if (subscription?.state !== 'pending')
    return refusedField('', 'This was finished in another window. Your account shows it.');
  await endAgreementsOf(db, subscription.id);
  return done(subscription);
}
