import type { Instant } from '@/core/calendar';
import { offerSentence } from '@/core/offers/sentence';
import { reminderOf } from '@/core/subscriptions/reminders';
import { type Transaction } from '@/platform/store/db';
import { findMember } from '@/store/members';
import type { Site } from '@/platform/store/site';
import { type StoredSubscription } from '@/store/subscriptions';
import { setRemindAt } from '@/store/subscription-work';
import { findTier, listTierNames } from '@/store/tiers';
import { termsOf } from '@/services/lib/terms';
import { writeMail } from '@/services/lib/write-mail';

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
