import type { Instant } from '@/core/calendar';
import { offerSentence } from '@/core/offers/sentence';
import { reminderOf } from '@/core/subscriptions/reminders';
import { nextCharge } from '@/core/subscriptions/upcoming';
import { transaction, type Transaction } from '@/store/db';
import { findMember } from '@/store/members';
import type { Mode, Site } from '@/store/site';
import { type StoredSubscription } from '@/store/subscriptions';
import { lockNextExpiry, lockNextReminder, setExpiryTold, setRemindAt } from '@/store/subscription-work';
import { findTier, listTierNames } from '@/store/tiers';
import { siteNow } from './clock';
import { currentSite } from './site';
import { termsOf } from './terms';
import { writeMail } from './write-mail';

/** Tells members of charges that come after a trial or a long period, and of cards that expire before their next charge. */
export async function writeReminders(): Promise<number> {
  const site = await currentSite();
  let written = 0;
  for (const mode of site.mode === 'test' ? (['test', 'live'] as const) : (['live'] as const)) {
    while (await remindNext(site, mode)) written++;
    while (await tellNextExpiry(site, mode)) written++;
  }
  return written;
}

async function remindNext(site: Site, mode: Mode): Promise<boolean> {
  const now = siteNow(site, mode);
  return transaction(async (db) => {
    const subscription = await lockNextReminder(db, mode, now);
    if (!subscription) return false;
    await remind(db, site, subscription, now);
    return true;
  });
}

/** Writes the reminder of a locked subscription, once for each charge that it is about. */
export async function remind(
  db: Transaction,
  site: Site,
  subscription: StoredSubscription,
  at: Instant,
): Promise<void> {
  await setRemindAt(db, subscription.id, null);
  const { terms, offer } = await termsOf(db, site, subscription);
  const reminder = reminderOf(subscription, terms);
  const member = subscription.memberId ? await findMember(db, subscription.memberId) : undefined;
  const tier = reminder && (await findTier(db, reminder.period.tier));
  if (!reminder || !member) return;
  const content = {
    template: reminder.kind,
    tierName: tier?.name ?? offer.name,
    at: reminder.at,
    amount: reminder.period.amount,
    currency: terms.offer.currency,
    methodLabel: subscription.methodLabel,
    sentence: offerSentence(terms.movesTo ?? terms.offer, {
      skipTrial: true,
      skipFee: subscription.skipFee,
      tierNames: await listTierNames(db),
    }),
  };
  await writeMail(db, site, member, content, `${reminder.kind}:${subscription.id}:${reminder.at}`, at);
}

async function tellNextExpiry(site: Site, mode: Mode): Promise<boolean> {
  const now = siteNow(site, mode);
  return transaction(async (db) => {
    const subscription = await lockNextExpiry(db, mode, now);
    if (!subscription?.methodExpires) return false;
    const { methodExpires: expires, id, methodLabel, memberId } = subscription;
    await setExpiryTold(db, id, expires);
    const { terms, offer } = await termsOf(db, site, subscription);
    const next = nextCharge(subscription, terms);
    const member = memberId ? await findMember(db, memberId) : undefined;
    if (!next || !member) return true;
    const tier = await findTier(db, next.period.tier);
    const content = {
      template: 'card-expires' as const,
      tierName: tier?.name ?? offer.name,
      methodLabel,
      expires,
      at: next.at,
      path: `/account/pay/${id}`,
    };
    await writeMail(db, site, member, content, `card-expires:${id}:${expires}`, now);
    return true;
  });
}
