import { named } from '@/core/billing/book';
import { nextCharge } from '@/core/billing/upcoming';
import { transaction } from '@/platform/store/db';
import { findMember } from '@/people/store/members';
import type { Mode, Site } from '@/platform/store/site';
import { lockNextExpiry, lockNextReminder, setExpiryTold } from '@/billing/store/subscription-work';
import { findTier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { readBook } from './lib/open-book';
import { boughtOf } from './lib/schedules';
import { writeMail } from '@/mail/services/lib/write-mail';
import { systemUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { remind } from './lib/remind';

/** Tells members of charges that come after a trial or a long period, and of cards that expire before their next charge. */
async function writeAll(): Promise<number> {
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
    const book = await readBook(db, site, { memberId: subscription.memberId, mode });
    const s = named(book.stored.book.subscriptions, subscription.id);
    await remind(db, site, book, s);
    return true;
  });
}

async function tellNextExpiry(site: Site, mode: Mode): Promise<boolean> {
  const now = siteNow(site, mode);
  return transaction(async (db) => {
    const subscription = await lockNextExpiry(db, mode, now);
    if (!subscription?.methodExpires) return false;
    const { methodExpires: expires, id, methodLabel, memberId } = subscription;
    await setExpiryTold(db, id, expires);
    const { context, offer } = await boughtOf(db, site, subscription);
    const next = nextCharge(subscription, context);
    const member = await findMember(db, memberId);
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
    await writeMail(db, site, { to: member, content, key: `card-expires:${id}:${expires}`, at: now });
    return true;
  });
}

export const writeReminders = systemUse('write-reminders', nothing, async () => done(await writeAll()));
