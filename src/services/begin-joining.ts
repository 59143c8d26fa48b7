import { config } from '@/config';
import { nextPeriod, type Period } from '@/core/offers/schedule';
import { lock, transaction, type Transaction } from '@/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { claimJoining, findJoining, insertJoining, isBeingPaid, type Joining } from '@/store/joinings';
import { findMemberByEmail, type Member } from '@/store/members';
import { findOpenPayment } from '@/store/payments';
import type { Mode, Site } from '@/store/site';
import { findRunning, hasHadTrial, insertPending, lockSubscription, saveLife } from '@/store/subscriptions';
import type { StoredOffer, Tier } from '@/store/tiers';
import { siteNow } from './clock';
import { done, refusedField, type Result } from './result';
import { safeReturn } from './safe-return';

/** What is joined, and how it is paid for. */
export type JoinPlan = {
  site: Site;
  offer: StoredOffer;
  tier: Tier;
  track: string;
  account: GatewayAccount | undefined;
};
/** Who joins: a member, or somebody new with the password's hash. */
export type Joiner = { member: Member | undefined; email: string; name: string; passwordHash: string | null };

export const HAS_ACCOUNT = 'This address has an account already. Sign in first; you come back to this page.';

/**
 * Why a person must not be charged for a track now: it is held already, or another window is paying. Null: nothing
 * stands against it. Whoever asks holds the lock "join", address, track until the intent to charge is written.
 */
export async function whyNotToPay(
  db: Transaction,
  joiningId: string,
  who: { email: string; mode: Mode; track: string; tierName: string },
): Promise<string | null> {
  const member = await findMemberByEmail(db, who.email);
  if (member && (await findRunning(db, member.id, who.mode, who.track))) {
    return `You hold ${who.tierName} or another tier of its ladder already. Your account shows it.`;
  }
  if (await isBeingPaid(db, who.email, who.mode, who.track, joiningId)) {
    return 'A payment of yours is under way in another window. Let that one finish.';
  }
  return null;
}

export type Begun = { joining: Joining; period: Period };

/** Takes the joining for this try, alone: one person, one track, one payment at a time. */
export async function beginJoining(
  plan: JoinPlan,
  person: Joiner,
  input: { joiningId: string; returnTo: string },
): Promise<Result<Begun | 'busy' | 'done'>> {
  const { site, offer, tier, track, account } = plan;
  const at = siteNow(site);
  return transaction(async (db) => {
    await lock(db, 'join', person.email, track);
    const known = await findJoining(db, input.joiningId);
    if (known?.state === 'done') return done('done');
    // Looked up again under the lock: another window may have made the account since the form was read.
    if (!person.member && (await findMemberByEmail(db, person.email)))
      return refusedField('email', HAS_ACCOUNT);
    const against = await whyNotToPay(db, input.joiningId, {
      ...person,
      mode: site.mode,
      track,
      tierName: tier.name,
    });
    if (against) return refusedField('', against);
    const skipTrial = person.member ? await hasHadTrial(db, person.member.id, site.mode, track) : false;
    const period = nextPeriod(offer.definition, at, site.zone, skipTrial, null);
    if (!period)
      return refusedField(
        '',
        'Nothing of this offer is left: its dates have passed. Choose another on the join page.',
      );
    const typed = {
      email: person.email,
      name: person.name,
      passwordHash: person.passwordHash,
      memberId: person.member?.id ?? null,
    };
    if (known) return resume(db, known, plan, typed, skipTrial);
    const subscription = await insertPending(db, {
      memberId: person.member?.id ?? null,
      mode: site.mode,
      track,
      offerVersionId: offer.versionId,
      startedAt: at,
      skipTrial,
      gatewayAccountId: account?.id ?? null,
    });
    const joining = await insertJoining(
      db,
      {
        id: input.joiningId,
        subscriptionId: subscription.id,
        track,
        mode: site.mode,
        returnTo: safeReturn(input.returnTo),
        ...typed,
      },
      config().LEASE_SECONDS,
    );
    return done({ joining, period });
  });
}

async function resume(
  db: Transaction,
  known: Joining,
  { site, offer }: JoinPlan,
  typed: Pick<Joining, 'email' | 'name' | 'passwordHash' | 'memberId'>,
  skipTrial: boolean,
): Promise<Result<Begun | 'busy'>> {
  const joining = await claimJoining(db, known.id, typed, config().LEASE_SECONDS);
  if (!joining) return done('busy');
  const subscription = await lockSubscription(db, joining.subscriptionId);
  if (!subscription || subscription.offerVersionId !== offer.versionId) {
    return refusedField('', 'This page belongs to another offer. Load it again; nothing was charged.');
  }
  // A payment still open keeps its instant: the answer to it belongs to what was asked then.
  const startedAt = (await findOpenPayment(db, subscription.id)) ? subscription.startedAt : siteNow(site);
  await saveLife(db, subscription.id, { ...subscription, startedAt, skipTrial });
  const period = nextPeriod(offer.definition, startedAt, site.zone, skipTrial, null);
  return period
    ? done({ joining, period })
    : refusedField('', 'Nothing of this offer is left: its dates have passed.');
}
