import { config } from '@/platform/config';
import { askedOf } from '@/core/billing/work';
import { claimOpenPurchase } from '@/billing/store/purchases';
import { WORKER } from '@/platform/actor';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { collect } from './lib/collect';
import { happen, openBook } from './lib/open-book';

/** Settles a purchase whose payment a crash or silence left open, and ends one that its buyer left unpaid for a day. */
export const settlePurchases = systemUse('settle-purchases', nothing, async () => {
  const claimed = await claimOpenPurchase(pool(), config().LEASE_SECONDS);
  if (!claimed) return done(false);
  const site = await currentSite();
  const { stored, left } = await transaction(async (db) => {
    const open = await openBook(db, site, WORKER, claimed, { purchases: [claimed.id] });
    const charge = open.stored.book.charges.find((one) => one.purchase === claimed.id && askedOf(one));
    const attempt = charge && askedOf(charge);
    if (!attempt) await happen(open, { do: 'abandon', purchase: claimed.id });
    return { stored: open.stored, left: attempt?.id };
  });
  if (left) await collect(WORKER, site, stored, left, false);
  return done(true);
});
