import type { Subscription, BillingContext } from '@/core/billing/book';
import { figuresOfNext } from '@/core/billing/figures';
import { reminderOf } from '@/core/billing/upcoming';
import { isBefore, type Instant } from '@/core/instants';
import { offerSentence } from '@/words/offers';
import { wordsOf } from '@/words/words';
import type { StoredBook } from '@/billing/store/book';
import { setRemindAt } from '@/billing/store/subscription-work';
import { writeMail } from '@/mail/services/lib/write-mail';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { contextOf } from './open-book';
import type { OpenBook } from './opened';
import { readersOf } from './tell';

/** Rehearsed time may have jumped over the moment at which the member would have been told. */
export async function remindBefore(
  { db, site, stored }: OpenBook,
  s: Subscription,
  now: Instant,
): Promise<void> {
  const account = stored.accounts.get(s.id);
  if (stored.mode !== 'test' || !account?.remindAt || isBefore(now, account.remindAt)) return;
  await remind(db, site, { stored, context: contextOf(site, stored), at: account.remindAt }, s);
}

/** Writes the reminder of a locked subscription, once for each charge that it is about. */
export async function remind(
  db: Transaction,
  site: Site,
  { stored, context, at }: { stored: StoredBook; context: BillingContext; at: Instant },
  s: Subscription,
): Promise<void> {
  await setRemindAt(db, s.id, null);
  const reminder = reminderOf(s, context);
  const next = figuresOfNext(stored.book, s, context, at);
  const offer = context.offers[s.switchesTo ?? s.movesTo ?? s.offer];
  const { member, tierNames } = await readersOf(db, stored.memberId, site.mode);
  if (!reminder || !next || !member || !offer) return;
  const content = {
    template: reminder.kind,
    tierName: tierNames.get(reminder.period.tier) ?? '',
    at: next.at,
    amount: next.due,
    credit: next.credit,
    currency: offer.currency,
    methodLabel: stored.accounts.get(s.id)?.methodLabel ?? null,
    sentence: offerSentence(offer, wordsOf(site), { skipTrial: true, skipFee: s.place.skipFee, tierNames }),
  };
  await writeMail(db, site, { to: member, content, key: `${reminder.kind}:${s.id}:${reminder.at}`, at });
}
