import { nextPeriod } from '@/core/offers/schedule';
import { transaction } from '@/store/db';
import { awaitProof, findJoiningByHash, type Joining } from '@/store/joinings';
import { lockSubscription } from '@/store/subscriptions';
import { findTier } from '@/store/tiers';
import { VISITOR_ACTOR } from './actor';
import { whyFull, type Joined, type Joiner, type JoinPlan } from './begin-joining';
import { siteNow } from './clock';
import { completeJoining } from './complete-joining';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';
import { termsOf } from './terms';
import { hashToken, newToken } from './tokens';
import { writeMail } from './write-mail';

/** Whether an address must be proved before the tier opens: where the owner asks for it, of a new person, at no charge. */
export function needsProof({ tier, offer }: JoinPlan, { member }: Joiner): boolean {
  return tier.confirmAddress && !offer.isPaid && member === undefined;
}

/** Mails the link that proves the address. Until it is followed nobody holds anything. */
export async function askForProof({ site, tier }: JoinPlan, joining: Joining): Promise<Result<Joined>> {
  const { token, hash } = newToken();
  return transaction(async (db) => {
    await awaitProof(db, joining.id, hash);
    await writeMail(
      db,
      site,
      { id: null, email: joining.email, name: joining.name },
      { template: 'prove-address', tierName: tier.name, path: `/join/confirm/${token}` },
      `prove:${joining.id}:${hash.toString('hex').slice(0, 16)}`,
      joining.at,
    );
    return done({ state: 'proof', email: joining.email } as const);
  });
}

const DEAD =
  'This link has been used, or is too old. If you have joined already, sign in; otherwise join once more.';

/** Completes the joining whose mailed link was followed: the member and what they hold come into being now. */
export async function confirmJoining(
  token: string,
): Promise<Result<{ memberId: string; joiningId: string }>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const joining = await findJoiningByHash(db, hashToken(token));
    if (joining?.state !== 'waiting') return refusedField('', DEAD);
    const subscription = await lockSubscription(db, joining.subscriptionId);
    if (subscription?.state !== 'pending') return refusedField('', DEAD);
    const bought = await termsOf(db, site, subscription);
    // Somebody may have taken the last place while the mail was on its way.
    const tier = await findTier(db, bought.offer.tierId);
    const full = tier && (await whyFull(db, site, tier, joining.id, siteNow(site)));
    if (full) return refusedField('', full);
    const { startedAt, skipTrial } = subscription;
    const period = nextPeriod(bought.terms.offer, startedAt, site.zone, skipTrial, null);
    if (!period || period.amount > 0) return refusedField('', DEAD);
    const member = await completeJoining(
      db,
      site,
      VISITOR_ACTOR,
      joining,
      subscription,
      bought,
      period,
      startedAt,
      null,
    );
    return member ? done({ memberId: member.id, joiningId: joining.id }) : refusedField('', DEAD);
  });
}
