import type { Instant } from '@/core/calendar';
import { plainText } from '@/core/content/document';
import { offerSentence } from '@/core/offers/sentence';
import type { Period } from '@/core/offers/schedule';
import { transition } from '@/core/subscriptions/transition';
import { nextCharge } from '@/core/subscriptions/upcoming';
import type { Transaction } from '@/platform/store/db';
import { insertAnswers } from '@/store/join-fields';
import { finishJoining, type Joining } from '@/store/joinings';
import { findMember, findMemberByEmail, insertMember, setCountry, type Member } from '@/store/members';
import type { Payment } from '@/store/payments';
import type { Site } from '@/platform/store/site';
import { findRunning, setMember, type StoredSubscription } from '@/store/subscriptions';
import { findTier, listTierNames } from '@/store/tiers';
import type { Actor } from '@/platform/actor';
import { applyTransition } from './apply-transition';
import { leaveForSwitch } from './leave-for-switch';
import { record } from '@/platform/record';
import type { Bought } from './terms';
import { writeMail } from './write-mail';

/**
 * The one place where a joining becomes a member with a subscription: in the transaction that records its payment,
 * or, where nothing is due, alone. Null where the person has a running subscription on this track already, other
 * than the one whose place this takes.
 */
export async function completeJoining(
  db: Transaction,
  site: Site,
  actor: Actor,
  joining: Joining,
  subscription: StoredSubscription,
  bought: Bought,
  period: Period,
  at: Instant,
  payment: Payment | null,
): Promise<Member | null> {
  const { terms, offer } = bought;
  const member = await memberOf(db, joining, at);
  const running = await findRunning(db, member.id, subscription.mode, subscription.track, subscription.slot);
  if (running && running.id !== joining.replacesId) {
    // It came a second time, against every guard. Staff must see it; a second subscription there cannot be.
    await record(db, actor, at, 'payment without effect', `subscription:${subscription.id}`, {
      member: member.id,
    });
    await finishJoining(db, joining.id, member.id);
    return null;
  }
  if (running) await leaveForSwitch(db, site, actor, joining, running, subscription, period, payment, at);
  await setMember(db, subscription.id, member.id);
  if (subscription.taxCountry && !member.country) await setCountry(db, member.id, subscription.taxCountry);
  const begun = transition(subscription, { type: 'paid', period }, terms, at);
  if (!begun.ok) throw new Error(begun.reason);
  await applyTransition(db, site, actor, { ...subscription, memberId: member.id }, begun, bought, at);
  await insertAnswers(db, member.id, subscription.id, joining.answers, at);
  await finishJoining(db, joining.id, member.id);
  await record(db, actor, at, running ? 'switched' : 'joined', `member:${member.id}`, {
    offer: offer.id,
    version: offer.version,
    subscription: subscription.id,
  });

  const tier = await findTier(db, period.tier);
  const next = nextCharge(begun.subscription, terms);
  const content = {
    template: running ? ('switched' as const) : ('welcome' as const),
    tierName: tier?.name ?? offer.name,
    sentence: offerSentence(offer.definition, {
      skipTrial: subscription.skipTrial,
      skipFee: subscription.skipFee,
      tierNames: await listTierNames(db),
    }),
    words: tier?.welcomeShown.includes('mail') ? plainText(tier.welcomeWords).trim() : '',
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
    passwordHash: null,
    staffRole: null,
    joinedAt: at,
    // Started before an address had to be confirmed first.
    emailConfirmedAt: null,
  });
}
