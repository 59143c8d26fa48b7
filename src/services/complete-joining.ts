import type { Instant } from '@/core/calendar';
import { offerSentence } from '@/core/offers/sentence';
import type { Period } from '@/core/offers/schedule';
import type { Terms } from '@/core/subscriptions/subscription';
import { nextCharge, transition } from '@/core/subscriptions/transition';
import type { Transaction } from '@/store/db';
import { finishJoining, type Joining } from '@/store/joinings';
import { findMember, findMemberByEmail, insertMember, type Member } from '@/store/members';
import type { Site } from '@/store/site';
import { findRunning, setMember, type StoredSubscription } from '@/store/subscriptions';
import { findTier, type StoredOffer } from '@/store/tiers';
import type { Actor } from './actor';
import { applyTransition } from './apply-transition';
import { record } from './record';
import { writeMail } from './write-mail';

/**
 * The one place where a joining becomes a member with a subscription: in the transaction that records its payment,
 * or, where nothing is due, alone. Null where the person has a running subscription on this track already.
 */
export async function completeJoining(
  db: Transaction,
  site: Site,
  actor: Actor,
  joining: Joining,
  subscription: StoredSubscription,
  { terms, offer }: { terms: Terms; offer: StoredOffer },
  period: Period,
  at: Instant,
): Promise<Member | null> {
  const member = await memberOf(db, joining, at);
  if (await findRunning(db, member.id, subscription.mode, subscription.track)) {
    // It came a second time, against every guard. Staff must see it; a second subscription there cannot be.
    await record(db, actor, at, 'payment without effect', `subscription:${subscription.id}`, {
      member: member.id,
    });
    await finishJoining(db, joining.id, member.id);
    return null;
  }
  await setMember(db, subscription.id, member.id);
  const begun = transition(subscription, { type: 'paid', period }, terms, at);
  if (!begun.ok) throw new Error(begun.reason);
  await applyTransition(
    db,
    site,
    actor,
    { ...subscription, memberId: member.id },
    begun.subscription,
    begun.effects,
    offer,
    at,
  );
  await finishJoining(db, joining.id, member.id);
  await record(db, actor, at, 'joined', `member:${member.id}`, {
    offer: offer.id,
    version: offer.version,
    subscription: subscription.id,
  });

  const tier = await findTier(db, period.tier);
  const next = nextCharge(begun.subscription, terms);
  const content = {
    template: 'welcome' as const,
    tierName: tier?.name ?? offer.name,
    sentence: offerSentence(offer.definition, subscription.skipTrial),
    nextCharge: next && { at: next.at, amount: next.period.amount, currency: offer.definition.currency },
  };
  await writeMail(db, site, member, content, `welcome:${subscription.id}`, at);
  return member;
}

async function memberOf(db: Transaction, joining: Joining, at: Instant): Promise<Member> {
  const known = joining.memberId
    ? await findMember(db, joining.memberId)
    : await findMemberByEmail(db, joining.email);
  if (known) return known;
  return insertMember(db, {
    email: joining.email,
    name: joining.name,
    passwordHash: joining.passwordHash,
    staffRole: null,
    joinedAt: at,
  });
}
