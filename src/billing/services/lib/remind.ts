import type { Subscription } from '@/core/billing/book';
import { reminderOf, type Schedule } from '@/core/billing/upcoming';
import { isBefore, type Instant } from '@/core/calendar';
import { offerSentence } from '@/core/offers/sentence';
import { setRemindAt } from '@/billing/store/subscription-work';
import { writeMail } from '@/services/lib/write-mail';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { findMember } from '@/store/members';
import { findTier, listTierNames } from '@/store/tiers';
import type { OpenBook } from './opened';

/** Rehearsed time may have jumped over the moment at which the member would have been told. */
export async function remindBefore(
  { db, site, stored }: OpenBook,
  s: Subscription,
  now: Instant,
): Promise<void> {
  const account = stored.accounts.get(s.id);
  if (stored.mode !== 'test' || !account?.remindAt || isBefore(now, account.remindAt)) return;
  const terms = { zone: site.zone, offers: stored.offers };
  await remind(db, site, { ...s, ...account, memberId: stored.memberId }, terms, account.remindAt);
}

/** Writes the reminder of a locked subscription, once for each charge that it is about. */
export async function remind(
  db: Transaction,
  site: Site,
  s: Subscription & { memberId: string; methodLabel: string | null },
  terms: Schedule,
  at: Instant,
): Promise<void> {
  await setRemindAt(db, s.id, null);
  const reminder = reminderOf(s, terms);
  const member = await findMember(db, s.memberId);
  const tier = reminder && (await findTier(db, reminder.period.tier));
  const offer = terms.offers[s.switchesTo ?? s.movesTo ?? s.offer];
  if (!reminder || !member || !offer) return;
  const content = {
    template: reminder.kind,
    tierName: tier?.name ?? '',
    at: reminder.at,
    amount: reminder.amount,
    currency: offer.currency,
    methodLabel: s.methodLabel,
    sentence: offerSentence(offer, {
      skipTrial: true,
      skipFee: s.place.skipFee,
      tierNames: await listTierNames(db),
    }),
  };
  await writeMail(db, site, member, content, `${reminder.kind}:${s.id}:${reminder.at}`, at);
}
